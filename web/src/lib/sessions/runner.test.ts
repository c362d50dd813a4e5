import { describe, expect, it } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { Packed, type Pack } from './pack';
import type { Felt, LoadTag } from './run';
import { Runner } from './runner.svelte';
import { pack, packOfPositions, Floor } from './runner.floor';
import { takenOutText } from './takenOut';
import { doing } from './words';

const felt = (region: LoadTag | null, pain: number | null): Felt => ({
  region,
  pain,
  side: null,
  place: null,
});

describe('the runner', () => {
  it('goes from segment to segment by the clock, and writes down what was held', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.pass(9);
    expect(floor.runner.secondsLeft).toBe(1);
    floor.pass(31);
    expect(floor.sets()).toMatchObject([{ round: 1, seconds: 30, confirmed: false }]);
    floor.pass(35);
    expect(floor.runner.run.lines.map((l) => l.state)).toEqual(['done', 'todo', 'todo']);
    expect(floor.sets()).toHaveLength(2);
  });

  it('writes down what was really held when it is left early, and nothing under a second', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.pass(22);
    floor.runner.forward();
    expect(floor.sets()).toMatchObject([{ round: 1, seconds: 12 }]);
    floor.pass(5.5);
    floor.runner.skip();
    expect(floor.sets()).toHaveLength(1);
  });

  it('counts a confirmed round with its number, once', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.pass(41);
    floor.runner.confirm(25, null);
    floor.runner.confirm(30, null);
    expect(floor.facts.filter((f) => f.kind === 'confirmed')).toMatchObject([
      { of: floor.sets()[0]!.id, seconds: 25 },
    ]);
  });

  it('stops at once when a body speaks: the clock stands, and nothing that is left loads the region', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.pass(20);
    floor.runner.signal(pack.stops[1]!, felt('hamstring', 7));
    expect(floor.runner.running).toBe(false);
    expect(floor.runner.version.id).toBe('lean/only');
    expect(floor.facts.map((f) => f.kind)).toEqual(['set', 'signal']);
    expect(floor.tones).toEqual([]);
  });

  it('offers the easier version after a dull pain, and takes the offer back when the region ends', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.runner.signal(pack.stops[0]!, felt('hamstring', 4));
    expect(floor.runner.offered?.id).toBe('fold/easy');
    floor.runner.signal(pack.stops[1]!, felt('hamstring', 7));
    expect(floor.runner.offered).toBeUndefined();
    floor.runner.takeOffer();
    // It was said in the next drill by then, and that is over too.
    expect(floor.runner.version.id).toBe('rest/only');
  });

  it('ends the drill in which it was said, whatever that loads, and says what goes', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.runner.signal(pack.stops[1]!, felt('ankle', 7));
    expect(floor.runner.run.lines.map((l) => l.state)).toEqual(['ended', 'todo', 'todo']);
    expect(takenOutText(floor.runner.taken!)).toBe('Out for today: fold/hard.');
    floor.runner.toggle();
    expect(floor.runner.taken).toBeUndefined();
  });

  it('writes down the side and the place that were said', () => {
    const floor = new Floor();
    floor.runner.signal(pack.stops[1]!, {
      region: 'hamstring',
      pain: 7,
      side: 'right',
      place: 'sitting-bone',
    });
    expect(floor.facts.find((f) => f.kind === 'signal')).toMatchObject({
      side: 'right',
      place: 'sitting-bone',
    });
  });

  it('says what backing off comes to, and ends what has nothing easier', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.runner.backOff();
    expect(floor.runner.eased).toBe('fold/easy: fold/easy from here.');
    floor.runner.backOff();
    expect(floor.runner.eased).toBe('fold/easy: nothing is easier. It ends here.');
    expect(floor.runner.version.id).toBe('lean/only');
  });

  it('meets a dull pain of six as sharp', () => {
    const floor = new Floor();
    floor.runner.signal(pack.stops[0]!, felt('hamstring', 6));
    expect(floor.runner.offered).toBeUndefined();
    expect(floor.runner.run.ended).toEqual(['hamstring']);
  });

  it('settles half as long when it went over the ceiling, and only then takes the easier version', () => {
    const floor = new Floor();
    const over = pack.stops.find((s) => s.signal === 'overCeiling')!;
    floor.runner.toggle();
    floor.runner.signal(over, felt(null, null));
    expect(floor.runner.version.id).toBe('fold/short');
    floor.runner.signal(over, felt(null, null));
    expect(floor.runner.version.id).toBe('fold/easy');
  });

  it('starts a question that was answered today from that answer, on the same side only', () => {
    const check = {
      key: 'pain',
      asks: 'Wrist pain?',
      atMost: 1,
      atLeast: null,
      otherwise: 'notToday',
      region: null,
      offered: [0, 1, 2, 3, 4],
      good: [0, 1],
      felt: [],
      signal: null,
    } satisfies Schemas['PackCheck'];
    const gate = (
      id: string,
      key: string,
      side: Schemas['Side'] | null,
      need: string,
    ): Pack['gates'][number] => ({
      id,
      gate: id,
      name: id,
      test: '',
      side,
      tests: [],
      needs: [{ slot: need, easier: null }],
      checks: [{ ...check, key }],
      instead: [],
      firstTime: false,
    });
    const asking = {
      ...pack,
      gates: [
        gate('a', 'pain', null, 'fold'),
        gate('b', 'wrist', null, 'lean'),
        gate('c', 'pain', 'left', 'rest'),
      ],
    };
    const runner = new Runner(new Packed(asking), {
      now: () => 0,
      id: () => '00000000-0000-4000-8000-000000000001',
      keep: () => {},
      lay: () => {},
    });
    expect(runner.asking?.id).toBe('a');
    expect(runner.answered).toEqual({});
    runner.answer({ pain: 1 });
    runner.skip();
    expect(runner.asking?.id).toBe('b');
    expect(runner.answered).toEqual({ wrist: 1 });
    runner.answer({ wrist: 0 });
    runner.skip();
    expect(runner.asking?.id).toBe('c');
    expect(runner.answered).toEqual({});
  });

  it('asks after a sleep what was done, and adds no more than the segment has', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.pass(15);
    floor.now += 300_000;
    floor.runner.tick();
    expect(floor.runner.slept).toMatchObject({ to: floor.now });
    expect(floor.runner.running).toBe(false);
    expect(floor.runner.secondsLeft).toBe(25);
    floor.runner.tellGap(999);
    expect(floor.runner.secondsLeft).toBe(0);
    expect(floor.sets()).toHaveLength(0);
  });

  it('goes on after a crash where it was last seen', () => {
    const before = new Floor();
    before.runner.toggle();
    before.pass(18);
    const after = new Floor(before.entries, before.now, [], before.now + 60_000);
    expect(after.runner.running).toBe(false);
    expect(after.runner.secondsLeft).toBe(22);
    // Never seen: back to the last thing that was said.
    expect(new Floor(before.entries, 0, [], before.now + 60_000).runner.secondsLeft).toBe(30);
  });

  it('ends what the server bars meanwhile, and says so once', () => {
    const floor = new Floor();
    floor.runner.toggle();
    floor.runner.bar(['wrist']);
    floor.runner.bar(['wrist']);
    expect(floor.runner.run.lines.map((l) => l.state)).toEqual(['todo', 'ended', 'todo']);
    expect(floor.entries.filter((e) => e.event.is === 'barred')).toHaveLength(1);
  });

  it('lays the tones of what lies ahead, and takes them up again when the clock stands', () => {
    const floor = new Floor();
    floor.runner.toggle();
    expect(floor.tones.map((t) => [t.inMs, t.moment])).toEqual(
      expect.arrayContaining([
        [0, 'rest'],
        [7000, 'tick'],
        [10_000, 'work'],
        [40_000, 'rest'],
        [75_000, 'rest'],
      ]),
    );
    floor.runner.toggle();
    expect(floor.tones).toEqual([]);
  });

  it('says things while a stretch lasts, and leads out of a position before the rest', () => {
    const floor = new Floor([], 0, [], 1_000_000, packOfPositions);
    floor.runner.toggle();
    floor.pass(11);
    expect(floor.runner.cue).toBe('Hips back');
    floor.pass(15);
    expect(floor.runner.cue).toBe('Neck long');
    floor.pass(15);
    expect(doing(floor.runner.segment)).toBe('Come out');
    expect(floor.runner.cue).toBe('Hands first');
    // The round counts what was held, and not the way out of it.
    expect(floor.sets()).toMatchObject([{ round: 1, seconds: 30 }]);
    // The way out sounds; the rest after it does not.
    const tones = new Floor([], 0, [], 1_000_000, packOfPositions);
    tones.runner.toggle();
    expect(tones.tones.filter((t) => t.moment !== 'tick').map((t) => [t.inMs, t.moment])).toEqual([
      [0, 'rest'],
      [10_000, 'work'],
      [40_000, 'rest'],
      [53_000, 'work'],
      [83_000, 'rest'],
      [91_000, 'rest'],
    ]);
    floor.pass(8 + 5 + 30 + 8);
    expect(floor.runner.version.id).toBe('lean/only');
    expect(floor.sets()).toHaveLength(2);
  });

  it('does not do a round again that is over, when it is backed off on the way out', () => {
    const floor = new Floor([], 0, [], 1_000_000, packOfPositions);
    floor.runner.toggle();
    floor.pass(45);
    floor.runner.backOff();
    expect(floor.runner.version.id).toBe('fold/easy');
    expect(floor.runner.segment).toMatchObject({ kind: 'work', round: 2 });
    floor.pass(35);
    expect(floor.runner.segment).toMatchObject({ kind: 'out', round: 2 });
    // On the last way out there is nothing left to ease.
    floor.runner.backOff();
    expect(floor.runner.segment).toMatchObject({ kind: 'out', round: 2 });
  });

  it('ends the session on head contact, and says that it is over', () => {
    const floor = new Floor();
    floor.runner.signal(pack.stops.at(-1)!, felt(null, null));
    expect(floor.runner.run.over).toBe(true);
    expect(floor.facts.map((f) => f.kind)).toEqual(['signal', 'finished']);
  });
});
