import { describe, expect, it } from 'vitest';
import { Packed } from './pack';
import { readWritten, Walk, where } from './realPacks.walk';
import { reshape, secondsToGo } from './reshape';

describe('real packs, shortened', () => {
  it('is shortened to what is left, wherever it stands, and stays sound to its end', () => {
    const written = readWritten();
    let fitted = 0;
    for (const w of written.filter((_, i) => i % 3 === 0)) {
      const packed = new Packed(w.pack);
      for (const after of [0, 9, 25])
        for (const minutes of [5, 15, 30]) {
          const walker = new Walk(w, packed);
          walker.say({ is: 'started' });
          for (let n = 0; n < after && !walker.run.over; n++)
            if (walker.run.asking !== null) walker.answerWell();
            else walker.pass();
          if (walker.run.over) continue;
          if (walker.run.asking !== null) walker.answerWell();
          const before = walker.run;
          const made = reshape(packed, before, 0, minutes * 60);
          walker.say({ is: 'reshaped', versions: made.versions });
          expect(secondsToGo(packed, walker.run, 0), where(w, before)).toBe(made.seconds);
          expect(made.seconds).toBeLessThanOrEqual(Math.max(minutes * 60, secondsToGo(packed, before, 0)));
          if (made.seconds <= minutes * 60) fitted++;
          // Nothing becomes longer, heavier or other; what is asked for again stays as it is.
          for (const line of walker.run.lines) {
            const was = before.lines.find((l) => l.slot === line.slot)!;
            expect(packed.version(line.version).seconds).toBeLessThanOrEqual(
              packed.version(was.version).seconds,
            );
            expect(packed.version(line.version).drill).toBe(packed.version(was.version).drill);
          }
          if (made.seconds <= minutes * 60)
            expect(reshape(packed, walker.run, 0, minutes * 60).versions, where(w, before)).toEqual({});
          // What counters something that stays stays, and both sides of a drill go together.
          for (const slot of w.pack.slots) {
            const gone = (id: string) => walker.run.lines.find((l) => l.slot === id)?.state === 'ended';
            if (
              slot.for.some((f) => !gone(f)) &&
              !before.lines.some((l) => l.slot === slot.id && l.state === 'ended')
            )
              expect(gone(slot.id), `${where(w, before)}: ${slot.versions[0]!.drill}`).toBe(false);
          }
          while (!walker.run.over)
            if (walker.run.asking !== null) walker.answerWell();
            else walker.pass();
        }
    }
    expect(fitted).toBeGreaterThan(written.length);
  });
});
