/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';

/**
 * Keeps the application itself and what its start asks for, so that a reload without the server shows the runner. The packs lie in the runner's own
 * store. A new version takes its place when no page of the old one is open any more: never during a run.
 */
const worker = self as unknown as ServiceWorkerGlobalScope;
const shell = `shell-${version}`;
/** What the start asks for: kept for a day. */
const answers = 'answers';
const asked = ['/api/v1/accounts/me', '/api/v1/catalogue'];
const day = 24 * 3600 * 1000;
const page = '/';

worker.addEventListener('install', (event) => {
  event.waitUntil(caches.open(shell).then((cache) => cache.addAll([page, ...build, ...files])));
});

worker.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((n) => n !== shell && n !== answers).map((n) => caches.delete(n))),
      ),
  );
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== location.origin) return;
  if (url.pathname === '/api/v1/accounts/sign-out') event.waitUntil(caches.delete(answers));
  if (request.method !== 'GET') return;
  if (build.includes(url.pathname)) event.respondWith(kept(request));
  else if (request.mode === 'navigate')
    event.respondWith(soon(fetch(request)).catch(() => kept(new Request(page))));
  else if (asked.includes(url.pathname)) event.respondWith(freshOrKept(request));
});

/** A network that hangs is no better than none: so long a start waits for it. */
const longestWait = 3000;

const soon = (coming: Promise<Response>): Promise<Response> =>
  Promise.race([
    coming,
    new Promise<Response>((_, fail) =>
      setTimeout(() => fail(new TypeError('It takes too long.')), longestWait),
    ),
  ]);

async function kept(request: Request): Promise<Response> {
  return (await caches.match(request)) ?? fetch(request);
}

/** From the server; from what it said within the last day when it cannot be reached. */
async function freshOrKept(request: Request): Promise<Response> {
  const cache = await caches.open(answers);
  try {
    const before = await cache.match(request);
    // Without anything kept there is nothing to begin with: it is waited for.
    const answer = await (before ? soon(fetch(request)) : fetch(request));
    if (answer.ok) {
      const headers = new Headers(answer.headers);
      headers.set('x-kept-at', String(Date.now()));
      await cache.put(request, new Response(await answer.clone().blob(), { status: answer.status, headers }));
    } else if (answer.status === 401) await caches.delete(answers);
    return answer;
  } catch (error) {
    const before = await cache.match(request);
    if (before && Date.now() - Number(before.headers.get('x-kept-at')) < day) return before;
    throw error;
  }
}
