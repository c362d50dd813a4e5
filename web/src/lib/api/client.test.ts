import { afterEach, expect, test } from 'vitest';
import { ask, Refusal, signIn } from './client';

const told: boolean[] = [];
signIn.stands = (stands) => void told.push(stands);
afterEach(() => {
  told.length = 0;
});

const good = { data: 1, response: new Response(null, { status: 200 }) };
const signedOut = { error: { code: 'signedOut' }, response: new Response(null, { status: 401 }) };

test('an answer that was asked for before the sign-in ended does not say that it stands', async () => {
  let answer: (value: typeof good) => void = () => undefined;
  const late = ask(new Promise<typeof good>((resolve) => (answer = resolve)));
  await expect(ask(Promise.resolve(signedOut))).rejects.toBeInstanceOf(Refusal);
  answer(good);
  expect(await late).toBe(1);
  expect(told).toEqual([false]);
});

test('what is asked after a new sign-in says that it stands again', async () => {
  await expect(ask(Promise.resolve(signedOut))).rejects.toMatchObject({ code: 'signedOut', status: 401 });
  await ask(Promise.resolve(good));
  expect(told).toEqual([false, true]);
});

test('a server that cannot be reached is a refusal too, and says nothing of the sign-in', async () => {
  await expect(ask(Promise.reject(new TypeError('gone')))).rejects.toMatchObject({
    code: 'unreachable',
    status: 0,
  });
  expect(told).toEqual([]);
});
