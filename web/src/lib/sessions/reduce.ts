import { decide, end, endDrill, endLine, endNeeding } from './ending';
import { allowed, type Gate, type Packed, type Segment, type Version } from './pack';
import { noRound, type Line, type Run, type RunEvent } from './run';

/** The session before anything was said. `ended` is what bars kept from it when the pack was fetched. */
export function begin(packed: Packed, ended: readonly string[] = []): Run {
  const lines = packed.pack.slots.map((s): Line => ({
    slot: s.id,
    version: s.versions[0]!.id,
    state: 'todo',
  }));
  const run: Run = {
    lines,
    at: 0,
    segment: 0,
    elapsed: 0,
    since: null,
    started: false,
    over: false,
    ended: [],
    decided: [],
    asking: null,
    offer: null,
    round: noRound,
    unknown: 0,
    seq: 0,
  };
  return enter(packed, end(packed, run, ended), 0);
}

export const lineOf = (run: Run): Line | undefined => run.lines[run.at];
export const versionOf = (packed: Packed, run: Run): Version => packed.version(run.lines[run.at]!.version);
export const segmentOf = (packed: Packed, run: Run): Segment => versionOf(packed, run).segments[run.segment]!;

/** What happened, taken in. Pure, and total: what cannot be changes nothing and is counted. */
export function reduce(packed: Packed, run: Run, event: RunEvent): Run {
  const next = take(packed, run, event);
  return next === undefined
    ? { ...run, unknown: run.unknown + 1, seq: event.seq }
    : { ...next, seq: event.seq };
}

/** All that was said, in its order; what was undone is left out. */
export function replay(packed: Packed, events: readonly RunEvent[], ended: readonly string[] = []): Run {
  const undone = new Set(events.flatMap((e) => (e.is === 'undone' ? [e.of] : [])));
  return events
    .filter((e) => !undone.has(e.id) || e.is === 'signal')
    .reduce((run, e) => reduce(packed, run, e), begin(packed, ended));
}

function take(packed: Packed, run: Run, event: RunEvent): Run | undefined {
  switch (event.is) {
    case 'signal':
      return signal(packed, run, event);
    case 'barred':
      return go(packed, end(packed, run, event.loads), event.at);
    case 'quality':
    case 'confirmed':
    case 'undone':
      return run;
    case 'reshaped':
      return run.over ? undefined : reshaped(packed, run, event.versions);
    case 'gate': {
      const gate = packed.gate(event.gate);
      return gate && run.asking === gate.id ? answer(packed, run, gate, event.answers, event.at) : undefined;
    }
  }
  if (run.over || run.asking !== null) return undefined;
  switch (event.is) {
    case 'started':
    case 'resumed':
      return run.since === null ? { ...run, started: true, since: event.at } : undefined;
    case 'paused':
      return run.since === null ? undefined : still(packed, run, event.at);
    case 'ended':
      return over({ ...run, lines: run.lines.map((l, i) => (i >= run.at ? endLine(l) : l)) });
    case 'back':
      return {
        ...run,
        segment:
          run.elapsed < 2000 && passedSince(run, event.at) < 2000
            ? Math.max(0, run.segment - 1)
            : run.segment,
        elapsed: 0,
        since: run.since === null ? null : event.at,
        round: noRound,
      };
    case 'passed':
      return pass(packed, run, event.heldMs, event.at);
    case 'gap':
      return {
        ...still(packed, { ...run, since: null }, event.at),
        elapsed: Math.min(
          run.elapsed + Math.max(0, event.doneSeconds) * 1000,
          segmentOf(packed, run).seconds * 1000,
        ),
      };
    case 'skipped':
      return leave(packed, run, 'ended', event.at);
    case 'eased':
      return ease(packed, run, event.at);
    case 'offerTaken':
      return takeOffer(packed, run, event.at);
    case 'offerDeclined':
      return run.offer ? { ...run, offer: null } : undefined;
    default:
      return undefined;
  }
}

/** Only to a version of the slot's own that nothing has ended, and only what is still to come. */
function reshaped(packed: Packed, run: Run, versions: Readonly<Record<string, string | null>>): Run {
  const lines = run.lines.map((l, i): Line => {
    const to = versions[l.slot];
    if (i <= run.at || l.state !== 'todo' || to === undefined) return l;
    if (to === null) return endLine(l);
    const version = packed.slot(l.slot).versions.find((v) => v.id === to);
    return version && allowed(version, run.ended) ? { ...l, version: to } : l;
  });
  return { ...run, lines };
}

const passedSince = (run: Run, at: number): number => (run.since === null ? 0 : Math.max(0, at - run.since));

/** The clock stands still; what had passed of the segment is kept. */
function still(packed: Packed, run: Run, at: number): Run {
  const elapsed = Math.min(run.elapsed + passedSince(run, at), segmentOf(packed, run).seconds * 1000);
  return { ...run, elapsed, since: null };
}

/** The round that is under way once a stretch of work was held. */
export function held(packed: Packed, run: Run, ms: number, at: number): Run['round'] {
  const segment = segmentOf(packed, run);
  if (segment.kind !== 'work' || ms <= 0) return run.round;
  return run.round.number === segment.round
    ? { ...run.round, ms: run.round.ms + ms }
    : { number: segment.round, ms, from: at - ms };
}

/** Whether the round ends with this segment. */
export function endsRound(packed: Packed, run: Run): boolean {
  const segment = segmentOf(packed, run);
  const next = versionOf(packed, run).segments[run.segment + 1];
  return segment.kind === 'work' && (!next || next.kind !== 'work' || next.round !== segment.round);
}

function pass(packed: Packed, run: Run, ms: number, at: number): Run {
  const round = endsRound(packed, run) ? noRound : held(packed, run, ms, at);
  if (run.segment + 1 < versionOf(packed, run).segments.length)
    return { ...run, segment: run.segment + 1, elapsed: 0, since: run.since === null ? null : at, round };
  return leave(packed, run, 'done', at);
}

/**
 * `shorterFirst`: with half the settling, where the version has such; else the next easier one. Where none is easier the settling is halved, and
 * where that is not possible the drill ends.
 */
function ease(packed: Packed, run: Run, at: number, shorterFirst = false): Run {
  const now = versionOf(packed, run);
  const { kind, round: under } = segmentOf(packed, run);
  const past = kind === 'rest' || kind === 'out';
  // On the last way out there is nothing left to ease.
  if (past && !now.segments.slice(run.segment).some((s) => s.kind === 'work')) return run;
  const shorter = now.shorter != null ? packed.version(now.shorter) : undefined;
  const halved = shorter && allowed(shorter, run.ended) ? shorter : undefined;
  const easier = shorterFirst
    ? (halved ?? nextAllowed(packed, now, run.ended))
    : (nextAllowed(packed, now, run.ended) ?? halved);
  if (!easier) return leave(packed, run, 'ended', at);
  // A round that is over is not done again: what gets easier is the next one.
  const round = past ? under + 1 : under;
  const from = easier.segments.findIndex((s) => s.kind === 'work' && s.round >= round);
  return {
    ...run,
    lines: run.lines.map((l, i) => (i === run.at ? { ...l, version: easier.id } : l)),
    segment: round === 0 ? 0 : Math.max(0, from),
    elapsed: 0,
    since: run.since === null ? null : at,
    round: noRound,
  };
}

/** The next easier version that nothing has ended. */
function nextAllowed(packed: Packed, version: Version, ended: readonly string[]): Version | undefined {
  for (let id = version.easier; id != null; id = packed.version(id).easier)
    if (allowed(packed.version(id), ended)) return packed.version(id);
  return undefined;
}

function takeOffer(packed: Packed, run: Run, at: number): Run | undefined {
  if (!run.offer || !allowed(packed.version(run.offer.version), run.ended)) return undefined;
  const lines = [...run.lines];
  lines.splice(run.at, 0, { ...run.offer, state: 'todo' });
  return enter(packed, { ...run, lines, offer: null }, run.at, at);
}

function signal(packed: Packed, run: Run, event: Extract<RunEvent, { is: 'signal' }>): Run {
  const stop = packed.metAs(event.signal, event.pain);
  if (run.over) return run;
  const quiet = { ...(run.asking === null && lineOf(run) ? still(packed, run, event.at) : run), since: null };
  if (stop.ends === 'session')
    return over({ ...quiet, lines: quiet.lines.map((l, i) => (i >= quiet.at ? endLine(l) : l)) });
  if (stop.ends === 'nothing')
    return stop.easierBy > 0 && quiet.asking === null
      ? ease(packed, quiet, event.at, stop.shorterFirst)
      : quiet;
  // What hurt ends first, whatever it loads; then all that loads what was named.
  const hurt = versionOf(packed, quiet);
  const dull = stop.ends === 'drillSide';
  const oneSide = dull && hurt.side !== null && (event.side ?? hurt.side) === hurt.side ? hurt.side : null;
  const { slot } = lineOf(quiet)!;
  let next = endDrill(packed, quiet, hurt.drill, oneSide);
  if (stop.ends === 'region' && event.region) next = end(packed, next, [event.region]);
  if (stop.ends === 'tags') next = end(packed, next, stop.loads);
  const asked = next.asking === null ? undefined : packed.gate(next.asking);
  if (asked) next = endNeeding(next, asked);
  next = go(packed, next, event.at);
  const offer = dull && quiet.asking === null ? hurt.offer : null;
  return offer != null && !next.over && next.asking === null && allowed(packed.version(offer), next.ended)
    ? { ...next, offer: { slot, version: offer } }
    : next;
}

/** On, when the line that is done now has ended, or the gate that asked is decided. */
function go(packed: Packed, run: Run, at: number): Run {
  if (run.over || run.asking !== null) return run;
  return lineOf(run)?.state === 'todo' ? run : enter(packed, run, run.at, at);
}

/** Done with this line, one way or the other. */
function leave(packed: Packed, run: Run, state: 'done' | 'ended', at: number): Run {
  const { slot } = lineOf(run)!;
  let next: Run = {
    ...run,
    lines: run.lines.map((l, i) => (i === run.at ? { ...l, state } : l)),
    round: noRound,
  };
  for (const gate of packed.gatesTestedBy(slot)) {
    if (next.decided.includes(gate.id)) continue;
    if (state === 'ended') next = decide(packed, next, gate, {});
    else if (gate.tests.every((t) => next.lines.some((l) => l.slot === t && l.state === 'done')))
      return { ...next, asking: gate.id, since: null, elapsed: 0 };
  }
  return enter(packed, next, next.at, at);
}

function answer(packed: Packed, run: Run, gate: Gate, answers: Record<string, number>, at: number): Run {
  return enter(packed, decide(packed, { ...run, asking: null }, gate, answers), run.at, at);
}

/** To the first line from here that is still to do; a gate that it needs asks first. */
function enter(packed: Packed, run: Run, from: number, at: number | null = null): Run {
  const next = run.lines.findIndex((l, i) => i >= from && l.state === 'todo');
  if (next === -1) return over(run);
  const open = packed.gatesNeededBy(run.lines[next]!.slot).find((g) => !run.decided.includes(g.id));
  const there = { ...run, at: next, segment: 0, elapsed: 0, round: noRound };
  if (!open) return { ...there, since: run.since === null ? null : at };
  if (open.tests.every((t) => run.lines.some((l) => l.slot === t && l.state === 'done')))
    return { ...there, since: null, asking: open.id };
  // Its test was not done: what was not seen does not hold.
  return enter(packed, decide(packed, run, open, {}), from, at);
}

const over = (run: Run): Run => ({
  ...run,
  at: run.lines.length,
  segment: 0,
  elapsed: 0,
  since: null,
  over: true,
  asking: null,
  offer: null,
  round: noRound,
});
