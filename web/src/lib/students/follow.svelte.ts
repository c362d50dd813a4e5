import { api, sent, type Schemas } from '$lib/api/client';

/** So often a screen asks whether somebody else has saved something. */
const every = 4_000;

export type News = { by: string; at: string };

/**
 * Asks, while the page is looked at, whether anything was saved about a student; the answer is 304 while nothing was.
 * @param heard Called when something was, by somebody else or on another device.
 * @returns What ends it.
 */
export function follow(studentId: string, heard: (pulse: Schemas['PulseView']) => void): () => void {
  let tag: string | undefined;
  let busy = false;
  let ended = false;
  let before = sent.count;

  async function ask() {
    if (busy || ended || document.visibilityState === 'hidden' || !navigator.onLine) return;
    busy = true;
    try {
      const { data, response } = await api.GET('/api/v1/students/{studentId}/pulse', {
        params: { path: { studentId } },
        headers: tag ? { 'If-None-Match': tag } : {},
      });
      if (ended || !response.ok || !data) return;
      const first = tag === undefined;
      tag = response.headers.get('ETag') ?? undefined;
      // What this page has saved it shows already.
      const own = data.mine && sent.count !== before;
      before = sent.count;
      if (!first && !own) heard(data);
    } catch {
      // The server is gone: it is asked again.
    } finally {
      busy = false;
    }
  }

  void ask();
  const timer = setInterval(() => void ask(), every);
  const look = () => void ask();
  document.addEventListener('visibilitychange', look);
  return () => {
    ended = true;
    clearInterval(timer);
    document.removeEventListener('visibilitychange', look);
  };
}
