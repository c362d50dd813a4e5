import { describe, expect, it, vi } from 'vitest';
import { Device, type Stream } from './device.svelte';
import { Stopwatch } from './stopwatch.svelte';

function device() {
  const stream: Stream = { onmessage: null, onerror: null, close: vi.fn() };
  const captured: number[] = [];
  const it = new Device(
    (angle) => captured.push(angle),
    () => stream,
  );
  const say = (angleDeg: number | null, stableDeg: number | null = null, captureDeg: number | null = null) =>
    stream.onmessage?.({ data: JSON.stringify({ seconds: 0, angleDeg, stableDeg, captureDeg }) });
  return { it, stream, captured, say };
}

describe('the inclinometer', () => {
  it('shows the live angle and takes what has come to a stand', () => {
    const { it, captured, say } = device();
    it.start();
    expect(it.state).toBe('connecting');
    say(71);
    expect([it.state, it.angleDeg]).toEqual(['live', 71]);
    say(80.1, 80, 80);
    expect(captured).toEqual([80]);
    say(80.2, 80.1);
    expect(captured).toEqual([80]);
  });

  it('takes by key only, when that is wanted', () => {
    const { it, captured, say } = device();
    it.auto = false;
    it.start();
    say(80.1, 80, 80);
    expect(captured).toEqual([]);
    it.capture();
    expect(captured).toEqual([80]);
    say(70);
    it.capture();
    expect(captured).toEqual([80, 70]);
  });

  it('says that it is lost, takes nothing meanwhile, and comes back', () => {
    const { it, stream, captured, say } = device();
    it.start();
    say(80);
    say(null);
    expect([it.state, it.angleDeg]).toEqual(['lost', undefined]);
    it.capture();
    stream.onerror?.();
    expect(captured).toEqual([]);
    say(79);
    expect(it.state).toBe('live');
    it.stop();
    expect(stream.close).toHaveBeenCalled();
  });
});

describe('the stopwatch', () => {
  it('runs from one press to the next, to a tenth', () => {
    let now = 1000;
    const watch = new Stopwatch(() => now);
    expect(watch.press()).toBeUndefined();
    now += 31_440;
    expect(watch.press()).toBe(31.4);
    expect(watch.running).toBe(false);
  });
});
