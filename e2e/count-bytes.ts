import type { Page } from '@playwright/test'

/** Counts what the application brings over the wire, compressed as it is, by path. People’s own sounds are counted apart. */
export async function countBytes(page: Page): Promise<() => { total: number; byPath: Map<string, number> }> {
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  const paths = new Map<string, string>()
  const byPath = new Map<string, number>()
  session.on('Network.responseReceived', ({ requestId, response }) => paths.set(requestId, new URL(response.url).pathname))
  session.on('Network.dataReceived', ({ requestId, encodedDataLength }) => {
    const path = paths.get(requestId) ?? requestId
    byPath.set(path, (byPath.get(path) ?? 0) + encodedDataLength)
  })
  return () => {
    const counted = new Map([...byPath].filter(([path]) => !path.startsWith('/api/audio/')))
    return { total: [...counted.values()].reduce((sum, bytes) => sum + bytes, 0), byPath: counted }
  }
}
