import { describe, expect, it } from 'vitest';
import { rebase } from './rebase';

describe('a form under which something else was saved', () => {
  const base = { left: '86', right: '86', goals: ['crow'], name: 'Ada' };

  it('follows where nothing was typed, keeps what was, and names what both changed', () => {
    const mine = { ...base, left: '87', name: 'Ada Quill' };
    const theirs = { ...base, left: '88', right: '85', goals: ['crow', 'handstand'] };
    expect(rebase(base, mine, theirs)).toEqual({
      merged: { left: '87', right: '85', goals: ['crow', 'handstand'], name: 'Ada Quill' },
      clashes: ['left'],
      taken: ['right', 'goals'],
    });
  });

  it('has no quarrel where both typed the same', () => {
    const both = { ...base, left: '88' };
    expect(rebase(base, both, { ...both })).toEqual({ merged: both, clashes: [], taken: [] });
  });
});
