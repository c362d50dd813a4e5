// A coach of a bench: calls the server, keeps the cookie, and times calls.
export const base = 'http://127.0.0.1:5191';
let cookie = '';

export async function call(path, body) {
  const answer = await fetch(`${base}/api/v1${path}`, {
    method: body ? 'POST' : 'GET',
    headers: { cookie, 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  });
  const set = answer.headers.getSetCookie();
  if (set.length) cookie = set.map((c) => c.split(';')[0]).join('; ');
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.status === 204 ? undefined : answer.json();
}

export async function owner() {
  await call('/accounts/owner', {
    studioName: 'Bench',
    timeZone: 'Europe/Oslo',
    name: 'Ines Falk',
    email: 'ines@harbour.example',
    password: 'a-long-password',
    setupCode: 'LAMP-2357',
  });
  return (await call('/catalogue')).questions;
}

/** A screened student. */
export async function student(name, questions) {
  const id = crypto.randomUUID();
  await call('/students', {
    id,
    student: {
      name,
      about: null,
      birthDate: '1990-05-06',
      leftLegCm: 86,
      rightLegCm: 86,
      bodyweightKg: null,
      breathSeconds: 4.5,
      sensationCeiling: 7,
      splitStandard: 'square',
      blocksOwned: 4,
      sessionMinutes: 60,
    },
    consents: [{ kind: 'training', given: true }],
  });
  await call(`/students/${id}/answers`, { answers: questions.map((q) => ({ question: q.key, yes: false })) });
  return id;
}

/** The first one of a new studio: screened, and on the front split at stage 3 with both sides. */
export async function firstStudent() {
  const id = await student('Student A', await owner());
  await call(`/students/${id}/skills`, {
    id: crypto.randomUUID(),
    skill: 'front-split',
    approach: 'long-and-ramped',
    courses: ['left', 'right'].map((side) => ({ decisionId: crypto.randomUUID(), side, stage: 3 })),
  });
  return id;
}

export async function time(name, ask, runs = 30) {
  for (let i = 0; i < Math.min(5, runs); i++) await ask();
  const times = [];
  for (let i = 0; i < runs; i++) {
    const from = performance.now();
    await ask();
    times.push(performance.now() - from);
  }
  times.sort((a, b) => a - b);
  const ms = (t) => t.toFixed(1).padStart(7);
  console.log(`  ${name.padEnd(46)} median ${ms(times[Math.floor(runs / 2)])} ms, worst of ${runs} ${ms(times.at(-1))} ms`);
}
