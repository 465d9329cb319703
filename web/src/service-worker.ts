/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
// Keeps the application itself on the device, so that it opens without a connection. Plans and the log are
// kept by the page; nothing of them passes through here.
import { build, files, version } from '$service-worker';

const worker = self as unknown as ServiceWorkerGlobalScope;
const CACHE = `shell-${version}`;
const SHELL = ['/', ...build, ...files];

worker.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) => cache.addAll(SHELL))
      .then(() => worker.skipWaiting()),
  );
});

worker.addEventListener('activate', (event) => {
  const old = async () => {
    for (const name of await caches.keys()) if (name !== CACHE) await caches.delete(name);
    await worker.clients.claim();
  };
  event.waitUntil(old());
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin) return;
  if (url.pathname.startsWith('/api/') || url.pathname === '/healthz') return;
  // The page as the server has it now; as it was when there is no server.
  if (request.mode === 'navigate') {
    event.respondWith(fetch(request).catch(() => kept('/')));
    return;
  }
  event.respondWith(kept(url.pathname).then((own) => (own.ok ? own : fetch(request))));
});

async function kept(path: string): Promise<Response> {
  const cache = await caches.open(CACHE);
  return (await cache.match(path)) ?? new Response(null, { status: 504 });
}
