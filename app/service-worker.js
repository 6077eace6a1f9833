/* global self, caches, fetch, FILES, VERSION */
// Keeps the whole application on the device, so that it opens and records with no server in reach. What the build
// wrote above: FILES, the paths to keep, and VERSION, which changes with any of them.

const CACHE = `heliaster-${VERSION}`
const PATIENCE_MS = 2500

self.addEventListener('install', (event) => {
  const requests = FILES.map((path) => new Request(path, { cache: 'reload' }))
  event.waitUntil(caches.open(CACHE).then((cache) => cache.addAll(requests)))
})

self.addEventListener('activate', (event) => {
  const clear = async () => {
    for (const name of await caches.keys()) if (name.startsWith('heliaster-') && name !== CACHE) await caches.delete(name)
    await self.clients.claim()
  }
  event.waitUntil(clear())
})

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin || url.pathname.startsWith('/api/')) return
  if (request.mode === 'navigate') event.respondWith(freshOrKept(request, '/index.html'))
  else if (url.pathname.endsWith('.json')) event.respondWith(freshOrKept(request, url.pathname))
  else event.respondWith(keptOrFresh(request))
})

/** From the server where it answers soon, else as it was kept. */
async function freshOrKept(request, path) {
  const kept = () => caches.match(path)
  const late = new Promise((resolve) => setTimeout(() => resolve(undefined), PATIENCE_MS))
  const fresh = fetch(request).catch(() => undefined)
  const first = await Promise.race([fresh, late])
  if (first?.ok) return first
  return (await kept()) ?? (await fresh) ?? Response.error()
}

/** Files whose names change with their bytes. */
async function keptOrFresh(request) {
  return (await caches.match(request, { ignoreSearch: true, cacheName: CACHE })) ?? fetch(request)
}
