import Ticker from './ticker.worker?worker';

/** Calls `tick` several times a second, also while the page is busy or hidden, and keeps the screen awake; returns what ends it. */
export function heartbeat(tick: () => void): () => void {
  const ticker = new Ticker();
  ticker.onmessage = tick;
  // Where no worker runs, the page's own clock does.
  const beat = setInterval(tick, 250);
  const screen = navigator.wakeLock?.request('screen').catch(() => undefined);
  return () => {
    ticker.terminate();
    clearInterval(beat);
    void screen?.then((lock) => lock?.release());
  };
}
