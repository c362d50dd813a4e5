import { beforeEach, describe, expect, it, vi } from 'vitest';
import { blankBody } from './body';
import { dropIntake, intakeKey, rawIntake, takeOverIntake, unfinishedIntakes } from './unfinished';

const now = Date.UTC(2026, 10, 3);
const hour = 3600 * 1000;

/** As much of a browser's storage as is used: what is kept are its own keys. */
class Storage {
  getItem(key: string): string | null {
    return (this as unknown as Record<string, string>)[key] ?? null;
  }
  setItem(key: string, text: string): void {
    (this as unknown as Record<string, string>)[key] = text;
  }
  removeItem(key: string): void {
    delete (this as unknown as Record<string, string>)[key];
  }
}

const begin = (author: string, id: string, name: string, at: number, answers: Record<string, boolean> = {}) =>
  localStorage.setItem(intakeKey(author, id), JSON.stringify({ at, body: { ...blankBody, name }, answers }));

describe('an intake that was left half-way', () => {
  beforeEach(() => vi.stubGlobal('localStorage', new Storage()));

  it('is of one person, named, the newest first, and of whoever began it', () => {
    begin('una', '1', ' Ada Quill ', now - 2 * hour, { neck: true, knee: false });
    begin('una', '2', '', now - hour);
    begin('tova', '3', 'Bo Lind', now);
    expect(unfinishedIntakes('una', now)).toEqual([
      { id: '2', name: '', at: now - hour, answered: 0 },
      { id: '1', name: 'Ada Quill', at: now - 2 * hour, answered: 2 },
    ]);
  });

  it('does not stay for ever, and one that cannot be read takes no other with it', () => {
    begin('una', '1', 'Ada Quill', now - 31 * 24 * hour, { neck: true });
    begin('una', '2', 'Bo Lind', now);
    localStorage.setItem(intakeKey('una', '3'), '{"body":');
    expect(unfinishedIntakes('una', now).map((i) => i.name)).toEqual(['Bo Lind']);
    expect(rawIntake('una', '1')).toBeNull();
    expect(rawIntake('una', '3')).toBeNull();
    dropIntake('una', '2');
    expect(unfinishedIntakes('una', now)).toEqual([]);
  });

  it('takes over the one draft of the application of before, as a person of their own', () => {
    const old = { id: 'old', body: { ...blankBody, name: 'Ada Quill' }, answers: { neck: true } };
    localStorage.setItem('draft:student', JSON.stringify(old));
    takeOverIntake('una', now);
    expect(localStorage.getItem('draft:student')).toBeNull();
    expect(unfinishedIntakes('una', now)).toEqual([{ id: 'old', name: 'Ada Quill', at: now, answered: 1 }]);
    localStorage.setItem('draft:student', 'broken');
    takeOverIntake('una', now);
    expect(unfinishedIntakes('una', now)).toHaveLength(1);
  });
});
