type Moment = 'work' | 'rest' | 'tick' | 'end';

const notes: Record<Moment, { hertz: number; seconds: number }[]> = {
  work: [{ hertz: 784, seconds: 0.35 }],
  rest: [{ hertz: 392, seconds: 0.3 }],
  tick: [{ hertz: 587, seconds: 0.07 }],
  end: [
    { hertz: 523, seconds: 0.25 },
    { hertz: 392, seconds: 0.5 },
  ],
};

/** Tones made by the browser itself; they start with the first touch, as browsers ask. */
export class Tones {
  #audio: AudioContext | undefined;
  on = true;

  wake(): void {
    this.#audio ??= new AudioContext();
    void this.#audio.resume();
  }

  sound(moment: Moment): void {
    if (!this.#audio || !this.on) return;
    let at = this.#audio.currentTime;
    for (const note of notes[moment]) {
      const tone = this.#audio.createOscillator();
      const loudness = this.#audio.createGain();
      tone.frequency.value = note.hertz;
      loudness.gain.setValueAtTime(0.0001, at);
      loudness.gain.exponentialRampToValueAtTime(0.4, at + 0.02);
      loudness.gain.exponentialRampToValueAtTime(0.0001, at + note.seconds);
      tone.connect(loudness).connect(this.#audio.destination);
      tone.start(at);
      tone.stop(at + note.seconds);
      at += note.seconds;
    }
  }
}
