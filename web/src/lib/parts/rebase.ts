const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * A form under which something else was saved: what was not touched follows what stands now, what was typed stays.
 * @param base What was loaded.
 * @param mine What is typed.
 * @param theirs What stands by now.
 * @returns The form as it goes on; `clashes`, the fields that both changed; `taken`, those that follow the other.
 */
export function rebase<T extends object>(
  base: T,
  mine: T,
  theirs: T,
): { merged: T; clashes: (keyof T)[]; taken: (keyof T)[] } {
  const merged = { ...mine };
  const clashes: (keyof T)[] = [];
  const taken: (keyof T)[] = [];
  for (const key of Object.keys(theirs) as (keyof T)[]) {
    if (same(theirs[key], base[key]) || same(theirs[key], mine[key])) continue;
    if (same(mine[key], base[key])) {
      merged[key] = theirs[key];
      taken.push(key);
    } else clashes.push(key);
  }
  return { merged, clashes, taken };
}
