/** What is said is spoken by the browser itself: with a voice of the device only, and not at all where there is none. */
export function speak(text: string): void {
  if (!('speechSynthesis' in window)) return;
  const voice = speechSynthesis.getVoices().find((v) => v.localService && v.lang.startsWith('en'));
  if (!voice) return;
  hush();
  const said = new SpeechSynthesisUtterance(text);
  said.voice = voice;
  speechSynthesis.speak(said);
}

export function hush(): void {
  if ('speechSynthesis' in window) speechSynthesis.cancel();
}
