/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { version } from '$service-worker';

/**
 * Keeps the pages of practice, so that a session opens without a connection. It sees nothing but what lies under /practice/
 * and what those pages ask for. What is new on the server always comes first; what never changes comes from here.
 */
const worker = self as unknown as ServiceWorkerGlobalScope;
const CACHE = `practice-${version}`;
/** Addresses under which nothing ever changes. */
const FOREVER = /^\/(_app\/immutable\/|api\/practice\/sheets\/)/;
const PAGE = /^\/practice\//;

worker.addEventListener('install', () => void worker.skipWaiting());

worker.addEventListener('activate', (event) => {
  const tidy = async (): Promise<void> => {
    for (const name of await caches.keys()) if (name.startsWith('practice-') && name !== CACHE) await caches.delete(name);
    await worker.clients.claim();
  };
  event.waitUntil(tidy());
});

worker.addEventListener('message', (event) => {
  const { keep } = (event.data ?? {}) as { keep?: string[] };
  if (!Array.isArray(keep)) return;
  const fetchAll = async (): Promise<void> => {
    const cache = await caches.open(CACHE);
    await Promise.all(
      keep.map(async (address) => {
        if (FOREVER.test(new URL(address).pathname) && (await cache.match(address))) return;
        const response = await fetch(address).catch(() => null);
        if (response?.ok) await cache.put(address, response);
      })
    );
  };
  event.waitUntil(fetchAll());
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== location.origin) return;
  if (FOREVER.test(pathname)) event.respondWith(known(request));
  else if (PAGE.test(pathname)) event.respondWith(newest(request));
});

async function known(request: Request): Promise<Response> {
  return (await caches.match(request)) ?? fetch(request);
}

/** From the server; where it does not answer, as it was last. */
async function newest(request: Request): Promise<Response> {
  const cache = await caches.open(CACHE);
  try {
    const response = await fetch(request);
    // Who is signed out here has nothing kept here.
    if (response.type === 'opaqueredirect' || response.status === 401) await caches.delete(CACHE);
    if (response.ok) await cache.put(request, response.clone());
    return response;
  } catch (error) {
    const kept = await cache.match(request);
    if (kept) return kept;
    throw error;
  }
}
