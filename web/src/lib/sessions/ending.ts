import { allowed, failedCheck, type Gate, type Packed, type Version } from './pack';
import type { Line, Run, Side } from './run';

/** These loads have ended: with them every line that carries one, and an offer that does. */
export function end(packed: Packed, run: Run, loads: readonly string[]): Run {
  const fresh = loads.filter((l) => !run.ended.includes(l));
  if (fresh.length === 0) return run;
  const ended = [...run.ended, ...fresh];
  return endWhat(packed, { ...run, ended }, (v) => !allowed(v, ended));
}

/** The drill that hurt, on one side or on both, wherever it comes again; the gates that wait for it as well. */
export function endDrill(packed: Packed, run: Run, drill: string, side: Side | null): Run {
  return endWhat(
    packed,
    run,
    (v) => v.drill === drill && (side === null || v.side === null || v.side === side),
  );
}

function endWhat(packed: Packed, run: Run, which: (version: Version) => boolean): Run {
  const lines = run.lines.map((l) =>
    l.state === 'todo' && which(packed.version(l.version)) ? endLine(l) : l,
  );
  const offer = run.offer && !which(packed.version(run.offer.version)) ? run.offer : null;
  // A test that ended decides its gates: what needs them ends too, and nothing is put in its place.
  const lost = packed.pack.gates.filter(
    (g) =>
      !run.decided.includes(g.id) &&
      g.tests.some((t) => lines.some((l) => l.slot === t && l.state === 'ended')),
  );
  return lost.reduce<Run>((r, gate) => endNeeding(r, gate), { ...run, lines, offer });
}

export const endLine = (line: Line): Line => (line.state === 'todo' ? { ...line, state: 'ended' } : line);

export function endNeeding(run: Run, gate: Gate): Run {
  const needs = new Set(gate.needs.map((n) => n.slot));
  return {
    ...run,
    lines: run.lines.map((l) => (needs.has(l.slot) ? endLine(l) : l)),
    decided: [...run.decided, gate.id],
    asking: run.asking === gate.id ? null : run.asking,
    offer: run.offer && needs.has(run.offer.slot) ? null : run.offer,
  };
}

/** What the answers do: go, the easier version of each that needs it, or not today with what is done instead. */
export function decide(packed: Packed, run: Run, gate: Gate, answers: Record<string, number>): Run {
  const failed = failedCheck(gate, answers);
  const painful = gate.checks.find((c) => c.region != null && (answers[c.key] ?? 0) >= sharpFrom(packed));
  const decided = { ...run, decided: [...run.decided, gate.id] };
  if (!failed) return decided;
  /** The easier one of what is done by now: with fewer rounds, if it was shortened. */
  const easierOf = (n: Gate['needs'][number]): string | null | undefined => {
    const now = run.lines.find((l) => l.slot === n.slot && l.state === 'todo')?.version;
    return now !== undefined && packed.slot(n.slot).fewer?.includes(now)
      ? packed.version(now).easier
      : n.easier;
  };
  const easier = new Map(
    failed.otherwise === 'easier'
      ? gate.needs.flatMap((n) => {
          const to = easierOf(n);
          return to != null && allowed(packed.version(to), run.ended) ? [[n.slot, to]] : [];
        })
      : [],
  );
  const needs = new Set(gate.needs.map((n) => n.slot));
  const first = decided.lines.findIndex(
    (l) => needs.has(l.slot) && l.state === 'todo' && !easier.has(l.slot),
  );
  const lines = decided.lines.map((l): Line => {
    if (!needs.has(l.slot) || l.state !== 'todo') return l;
    const own = easier.get(l.slot);
    return own ? { ...l, version: own } : endLine(l);
  });
  const next =
    first === -1 ? { ...decided, lines } : instead(packed, { ...decided, lines }, gate, failed.key, first);
  return painful?.region ? end(packed, next, [painful.region]) : next;
}

const sharpFrom = (packed: Packed): number => packed.stop('dullPain').worseFrom ?? Infinity;

/** One for the gate, in the place of the first that needed it; what is planned anyway gets a round more. */
function instead(packed: Packed, run: Run, gate: Gate, failed: string, place: number): Run {
  const chosen = gate.instead.find((i) => i.failed === failed);
  if (!chosen) return run;
  if (chosen.more != null && chosen.moreVersion != null)
    return {
      ...run,
      lines: run.lines.map((l) =>
        l.slot === chosen.more &&
        l.state === 'todo' &&
        allowed(packed.version(chosen.moreVersion!), run.ended) &&
        isPlanned(packed, l)
          ? { ...l, version: chosen.moreVersion! }
          : l,
      ),
    };
  const put = chosen.slots
    .map((s): Line => ({ slot: s.id, version: s.versions[0]!.id, state: 'todo' }))
    .filter((l) => allowed(packed.version(l.version), run.ended));
  return { ...run, lines: [...run.lines.slice(0, place), ...put, ...run.lines.slice(place)] };
}

const isPlanned = (packed: Packed, line: Line): boolean =>
  packed.slot(line.slot).versions[0]!.id === line.version;
