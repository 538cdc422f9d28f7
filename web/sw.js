// Keeps the page and its parts for a phone without network; what they show is kept by the page.
const KEPT = 'mellow-page';
const PAGE = '/my-day';
/** What the page needs without network; the build says it. */
const PARTS = [];

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const cache = await caches.open(KEPT);
      await cache.addAll([PAGE, ...PARTS]);
      await self.skipWaiting();
    })(),
  );
});

self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

self.addEventListener('fetch', (event) => {
  const address = new URL(event.request.url);
  if (event.request.method !== 'GET' || address.origin !== self.location.origin) {
    return;
  }
  if (event.request.mode === 'navigate' && address.pathname === PAGE) {
    event.respondWith(pageFirst(event.request));
  } else if (address.pathname.startsWith('/assets/')) {
    event.respondWith(keptFirst(event.request));
  }
});

async function pageFirst(request) {
  const cache = await caches.open(KEPT);
  try {
    const page = await fetch(request);
    if (page.ok) {
      await cache.put(PAGE, page.clone());
    }
    return page;
  } catch (without) {
    const kept = await cache.match(PAGE);
    if (kept) {
      return kept;
    }
    throw without;
  }
}

async function keptFirst(request) {
  const cache = await caches.open(KEPT);
  const kept = await cache.match(request);
  if (kept) {
    return kept;
  }
  const part = await fetch(request);
  if (part.ok) {
    await cache.put(request, part.clone());
  }
  return part;
}
