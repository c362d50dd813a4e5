export type Moment = 'work' | 'rest' | 'tick' | 'end' | 'ask';

/** A tone that is to sound so many milliseconds from now. */
export type Planned = { inMs: number; moment: Moment };

const notes: Record<Moment, { hertz: number; seconds: number }[]> = {
  work: [{ hertz: 784, seconds: 0.35 }],
  rest: [{ hertz: 392, seconds: 0.3 }],
  tick: [{ hertz: 587, seconds: 0.07 }],
  ask: [
    { hertz: 659, seconds: 0.15 },
    { hertz: 659, seconds: 0.15 },
  ],
  end: [
    { hertz: 523, seconds: 0.25 },
    { hertz: 392, seconds: 0.5 },
  ],
};

/** Tones made by the browser itself; they start with the first touch, as browsers ask, and are laid ahead, so that a busy page does not drift. */
export class Tones {
  #audio: AudioContext | undefined;
  #laid: OscillatorNode[] = [];
  on = true;

  wake(): void {
    this.#audio ??= new AudioContext();
    void this.#audio.resume();
  }

  /** These from now on, in the place of all that were laid before. */
  lay(planned: readonly Planned[]): void {
    for (const tone of this.#laid) tone.stop();
    this.#laid = [];
    if (!this.#audio || !this.on) return;
    for (const { inMs, moment } of planned)
      this.#sound(this.#audio, this.#audio.currentTime + inMs / 1000, moment);
  }

  #sound(audio: AudioContext, start: number, moment: Moment): void {
    let at = start;
    for (const note of notes[moment]) {
      const tone = audio.createOscillator();
      const loudness = audio.createGain();
      tone.frequency.value = note.hertz;
      loudness.gain.setValueAtTime(0.0001, at);
      loudness.gain.exponentialRampToValueAtTime(0.4, at + 0.02);
      loudness.gain.exponentialRampToValueAtTime(0.0001, at + note.seconds);
      tone.connect(loudness).connect(audio.destination);
      tone.start(at);
      tone.stop(at + note.seconds);
      this.#laid.push(tone);
      at += note.seconds;
    }
  }
}
