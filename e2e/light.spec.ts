import { expect, test } from '@playwright/test'

import { countBytes } from './count-bytes'
import { findKit, pad } from './helpers'

const heaviest = (byPath: Map<string, number>) =>
  [...byPath]
    .sort(([, a], [, b]) => b - a)
    .slice(0, 5)
    .map(([path, bytes]) => `${bytes} ${path}`)

test('the first screen stands on 500 KB over the wire, and the Board on 800 KB', async ({ page, browser }) => {
  const first = await countBytes(page)
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'New kit', exact: true })).toBeVisible()
  const { total, byPath } = first()
  expect([...byPath.keys()].some((path) => path.includes('entry-'))).toBe(true)
  expect(total, heaviest(byPath).join('\n')).toBeLessThan(500_000)

  const context = await browser.newContext({ baseURL: new URL(page.url()).origin })
  const board = await context.newPage()
  const toBoard = await countBytes(board)
  await board.goto('/kit/demo-low-tide/board')
  await expect(pad(board, 'Hull thump')).toBeVisible()
  await expect(board.getByRole('button', { name: 'Add pad' })).toBeEnabled()
  const there = toBoard()
  expect(there.total, heaviest(there.byPath).join('\n')).toBeLessThan(800_000)
  // Decoders are large, and come only where something is decoded.
  const large = [...there.byPath].filter(([, bytes]) => bytes > 60_000).map(([path]) => path.replace(/.*\/|-[0-9a-f]{32}/g, ''))
  expect(large.filter((name) => name.endsWith('.js')).sort()).toEqual(['__common.js', 'entry.js'])
  await context.close()
})

test('what a kit opens in comes while the first screen stands, and a tap waits for no script of it', async ({ page }) => {
  const asked: string[] = []
  page.on('request', (request) => asked.push(new URL(request.url()).pathname))
  const scripts = ['_layout', 'board', 'gather'].map((name) => page.waitForResponse((answer) => new RegExp(`/${name}-[0-9a-f]+\\.js$`).test(answer.url()))) // prettier-ignore
  await page.goto('/')
  for (const script of scripts) await (await script).finished()
  const before = asked.length
  await findKit(page, 'Low Tide')
  await page.getByRole('button', { name: 'Open Low Tide', exact: true }).click()
  await expect(pad(page, 'Hull thump')).toBeVisible()
  expect(asked.slice(before).filter((path) => /\/(_layout|board|gather)-/.test(path))).toEqual([])
})

test('texts come compressed, as brotli where the browser takes it, else as gzip', async ({ page, request }) => {
  await page.goto('/')
  const script = await page.locator('script[src*="entry-"]').getAttribute('src')
  const plain = await request.get(script!, { headers: { 'accept-encoding': 'identity' } })
  for (const [asked, given] of [
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
  ] as const) {
    const answer = await request.get(script!, { headers: { 'accept-encoding': asked } })
    expect(answer.headers()['content-encoding']).toBe(given)
    expect(await answer.text()).toBe(await plain.text())
    expect(answer.headers()['cache-control']).toContain('immutable')
  }
})
