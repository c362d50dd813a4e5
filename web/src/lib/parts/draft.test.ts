import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Draft, draftKey, eraseDrafts, sweepDrafts, takeOverDrafts } from './draft.svelte';

const day = 86_400_000;

beforeEach(() => {
  const kept: Record<string, string> = {};
  vi.stubGlobal(
    'localStorage',
    new Proxy(
      {
        getItem: (k: string) => kept[k] ?? null,
        setItem: (k: string, v: string) => void (kept[k] = v),
        removeItem: (k: string) => delete kept[k],
      },
      {
        ownKeys: () => Object.keys(kept),
        getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
      },
    ),
  );
});

const type = (author: string, text: string) => {
  const draft = new Draft(draftKey('note', 'mara', author), { text: '' });
  draft.value.text = text;
  draft.keep();
};
const read = (author: string) => new Draft(draftKey('note', 'mara', author), { text: '' }).value.text;

describe('a draft', () => {
  it('is of its author alone, and goes with them', () => {
    type('una', 'sore wrist');
    expect([read('una'), read('ivo')]).toEqual(['sore wrist', '']);
    type('ivo', 'tired');
    eraseDrafts('una');
    expect([read('una'), read('ivo')]).toEqual(['', 'tired']);
  });

  it('of somebody who does not come back stays for thirty days', () => {
    type('una', 'sore wrist');
    type('ivo', 'tired');
    sweepDrafts('ivo', 0);
    sweepDrafts('ivo', 29 * day);
    expect(read('una')).toBe('sore wrist');
    sweepDrafts('ivo', 31 * day);
    expect([read('una'), read('ivo')]).toEqual(['', 'tired']);
    // Who came back in between is counted from when they were last away.
    type('una', 'sore wrist');
    sweepDrafts('ivo', 40 * day);
    sweepDrafts('una', 60 * day);
    sweepDrafts('ivo', 75 * day);
    expect(read('una')).toBe('sore wrist');
  });

  it('of the application of before becomes one of whoever works here', () => {
    const bench = '0190aaaa-0000-7000-8000-000000000001';
    localStorage.setItem('draft:note:mara', '{"text":"old"}');
    localStorage.setItem('edit/s1', '[]');
    localStorage.setItem(`bench:${bench}`, '{}');
    localStorage.setItem('bench:quick', 'no');
    takeOverDrafts('una');
    expect(read('una')).toBe('old');
    expect(Object.keys(localStorage).sort()).toEqual(
      ['bench:quick', 'draft:edit:una:s1', 'draft:note:una:mara', `draft:sitting:una:${bench}`].sort(),
    );
  });
});
