import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

export const api = createClient<paths>({ baseUrl: '' });

/** What this page has saved, counted by student as the server tells it: what it hears of afterwards may be its own. */
export const saves = { begun: 0, done: 0, beats: new Map<string, number>() };
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') saves.begun++;
  },
  onResponse({ request, response }) {
    if (request.method === 'GET') return;
    saves.done++;
    for (const beat of response.ok ? (response.headers.get('Beats')?.split(', ') ?? []) : []) {
      const [student, n] = beat.split('=') as [string, string];
      saves.beats.set(student, (saves.beats.get(student) ?? 0) + Number(n));
    }
  },
  onError({ request }) {
    if (request.method !== 'GET') saves.done++;
  },
});

/** One mistake in what was typed: a code, its field, and the numbers to word it with. */
export type FieldProblem = {
  code: string;
  field: string;
  numbers?: Record<string, number> | null;
  /** Of a plan that there is none of: rules that cannot all hold. */
  rules?: Schemas['PieceRule'][] | null;
};

/** What the server said when it said no. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly problems: FieldProblem[],
  ) {
    super(code);
  }
}

/** Told of every answer: whether the sign-in still stood. What was asked before it ended says nothing of what is so since. */
export const signIn: { stands: (stands: boolean) => void; ends: number } = {
  stands: () => undefined,
  ends: 0,
};

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The body of a good answer; throws a Refusal, also when the server cannot be reached. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  const { ends } = signIn;
  try {
    answer = await call;
  } catch {
    throw new Refusal(0, 'unreachable', []);
  }
  if (answer.response.ok) {
    if (ends === signIn.ends) signIn.stands(true);
    return answer.data as T;
  }
  const body = (answer.error ?? {}) as { code?: string; errors?: FieldProblem[] };
  if (body.code === 'signedOut') {
    signIn.ends++;
    signIn.stands(false);
  }
  throw new Refusal(answer.response.status, body.code ?? 'unexpected', body.errors ?? []);
}

/** A file as the whole body of a request. The description calls a binary body a string. */
export const fileBody = (file: File) => ({
  body: file as unknown as string,
  bodySerializer: (sent: unknown) => sent as Blob,
  headers: { 'Content-Type': 'application/octet-stream' },
});

/** A client-made id: time-ordered, so that a retry carries the same one. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const now = Date.now();
  for (let i = 0; i < 6; i++) bytes[i] = Math.floor(now / 2 ** (8 * (5 - i))) % 256;
  bytes[6] = (bytes[6]! & 0x0f) | 0x70;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
