import { api, saves, type Schemas } from '$lib/api/client';

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
  const own = () => saves.beats.get(studentId) ?? 0;
  let before = { beat: 0, own: 0 };

  async function ask() {
    if (busy || ended || document.visibilityState === 'hidden' || !navigator.onLine) return;
    // What this page is saving now would be taken for another's.
    if (saves.begun !== saves.done) return;
    const { begun } = saves;
    busy = true;
    try {
      const { data, response } = await api.GET('/api/v1/students/{studentId}/pulse', {
        params: { path: { studentId } },
        headers: tag ? { 'If-None-Match': tag } : {},
      });
      if (ended || !response.ok || !data || begun !== saves.begun) return;
      const first = tag === undefined;
      tag = response.headers.get('ETag') ?? undefined;
      // What this page has saved it shows already.
      const others = data.beat - before.beat - (own() - before.own);
      before = { beat: data.beat, own: own() };
      if (!first && others > 0) heard(data);
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
