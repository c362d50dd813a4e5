import type { Kept } from './log';
import { sent } from './outbox.svelte';

/** What is not in the books, as a file. */
export function saveFile(left: readonly Kept[]): void {
  const text = JSON.stringify(
    left.map((k) => ({ code: k.code ?? null, ...sent(k) })),
    null,
    2,
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  link.download = 'not-logged.json';
  link.click();
  URL.revokeObjectURL(link.href);
}
