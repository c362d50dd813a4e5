import { newId } from '$lib/api/client';

const key = 'device';
let here: string | undefined;

/** This device, by an id of its own that says nothing: two that run one session are told apart by it. */
export function device(): string {
  if (here) return here;
  try {
    here = localStorage.getItem(key) ?? newId();
    localStorage.setItem(key, here);
  } catch {
    // Without room it is a device of its own until the page is left.
    here ??= newId();
  }
  return here;
}
