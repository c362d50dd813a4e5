import type { Schemas } from '$lib/api/client';

type Segment = Schemas['Segment'];

export const workNames: Record<Segment['phase'], string> = {
  none: '',
  hold: 'Hold',
  settle: 'Settle',
  press: 'Press',
  lift: 'Lift',
  resettle: 'Relax deeper',
  repeat: 'Repeat',
  rung: 'Hold',
  position: 'Hold',
  attempt: 'Attempt',
};

/** What is done in a segment. */
export function doing(segment: Segment): string {
  switch (segment.kind) {
    case 'setUp':
      return 'Set up';
    case 'switchSides':
      return 'Switch sides';
    case 'out':
      return 'Come out';
    case 'rest':
      return 'Rest';
    default:
      return segment.label ?? (segment.reps ? `${segment.reps} repetitions` : workNames[segment.phase]);
  }
}
