import type { Schemas } from '$lib/api/client';
import { catalogue } from '$lib/catalogue/catalogue.svelte';
import { levelName, valueOf } from '$lib/measuring/words';
import { number } from '$lib/parts/format';
import { signalLine } from './tags';

type Line = Schemas['FactLine'];
type Instead = Schemas['Instead'];

const decisions: Record<Schemas['DecisionKind'], string> = {
  place: 'Placed at stage',
  advance: 'Advanced to stage',
  stay: 'Stayed at stage',
  stepBack: 'Stepped back to stage',
  override: 'Advanced by override to stage',
  move: 'Moved to stage',
};

/** What was written down, in one line; with what is said instead in its place. */
export function factText(line: Line, instead: Instead | null = null): string {
  const side = (instead?.side ?? line.side) ? `, ${instead?.side ?? line.side}` : '';
  switch (line.what) {
    case 'set': {
      const seconds = instead?.seconds ?? line.seconds;
      const reps = instead?.cleanReps ?? line.cleanReps;
      const quality = instead?.quality ?? line.quality;
      const done = [
        seconds != null && `${number(seconds, Number.isInteger(seconds) ? 0 : 1)} s`,
        reps != null && `${reps} repetitions`,
        quality != null && `quality ${quality}`,
      ].filter(Boolean);
      const drill = catalogue.drill(line.drill!);
      const key = instead?.variant ?? line.variant!;
      const variant = key === 'standard' ? '' : `, ${catalogue.variant(line.drill!, key).toLowerCase()}`;
      return `${drill.name}${variant}${side}: ${done.join(', ') || 'done'}`;
    }
    case 'signal': {
      return signalLine({
        kind: instead?.signal ?? line.signal!,
        region: instead?.region ?? line.region ?? null,
        place: line.place ?? null,
        side: instead?.side ?? line.side ?? null,
        pain: instead?.pain ?? line.pain ?? null,
      });
    }
    case 'form':
      return `Form at stage ${line.stage} of ${skillName(line)}${side}: ${(instead?.ticked ?? line.ticked ?? []).length} ticked`;
    case 'exit':
      return `Way out at stage ${line.stage} of ${skillName(line)}${side}: ${instead?.safe ?? line.safe} of ${instead?.times ?? line.times} safe`;
    case 'decision':
      return `${decisions[line.decision!]} ${line.toStage} of ${skillName(line)}${side}`;
    case 'reading': {
      const reading = line.reading!;
      const measure = catalogue.measure(reading.measure);
      const level = levelName(measure, reading.level);
      return `${measure.name}${level ? `, ${level}` : ''}${side}: ${reading.unreadable ? 'cannot be read' : valueOf(measure, reading)}`;
    }
    case 'session':
      return `A session of ${skillName(line)}`;
  }
}

const skillName = (line: Line): string => catalogue.ladder(line.skill!)?.name.toLowerCase() ?? line.skill!;

/** The fields of a fact that a coach can say anew; none where it is struck out or stands. */
export function fieldsOf(
  line: Line,
): ('seconds' | 'cleanReps' | 'quality' | 'region' | 'pain' | 'safe' | 'times')[] {
  switch (line.what) {
    case 'set':
      return [line.cleanReps != null ? 'cleanReps' : 'seconds', 'quality'];
    case 'signal':
      return line.region ? ['region', 'pain'] : [];
    case 'exit':
      return ['safe', 'times'];
    default:
      return [];
  }
}
