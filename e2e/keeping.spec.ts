import { createKit, createPad } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { asFirstKit, testIds } from '@heliaster/core/kit/testing'
import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

import { findKit, kitIn, nameKit, newKit, pad, saved } from './helpers'

async function addPad(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Add pad' }).click()
}

test('two tabs of one browser with the same kit come to the same, and keep it after a reload', async ({ page, context }) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).click()
  await saved(page)
  const other = await context.newPage()
  await other.goto(page.url())
  for (let i = 0; i < 3; i++) {
    await addPad(page)
    await addPad(other)
  }
  for (const tab of [page, other]) {
    await expect(tab.getByRole('button', { name: /^Pad \d/ })).toHaveCount(6)
    await saved(tab)
  }
  await page.reload()
  await expect(page.getByRole('button', { name: /^Pad \d/ })).toHaveCount(6)
  const onServer = (await (await page.request.get(`/api/kits/${kitIn(page)}`)).json()) as { doc: { pads: unknown[] } }
  expect(onServer.doc.pads).toHaveLength(6)
})

test('a second device sees a change and a deletion without a reload', async ({ page, browser, baseURL }) => {
  await newKit(page)
  const name = `Kit of two devices ${Date.now()}`
  await nameKit(page, name)
  await page.getByRole('link', { name: 'Board' }).click()
  await saved(page)
  const second = await (await browser.newContext({ baseURL })).newPage()
  await second.goto(page.url())
  await expect(second.getByRole('button', { name: 'Add pad' })).toBeVisible()
  await addPad(page)
  await expect(pad(second, 'Pad 1')).toBeVisible()
  await page.goto('/')
  await page.getByRole('button', { name: `More for ${name}` }).click()
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  await expect(second.getByText('This kit is not here')).toBeVisible()
  await second.context().close()
})

test('a device that cannot write says that a change is not kept, keeps it in sight and sends it all the same', async ({ page }) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).click()
  await saved(page)
  await page.evaluate(() => {
    const put = () => {
      throw new DOMException('No room.', 'QuotaExceededError')
    }
    Object.assign(window, { heldAdd: IDBObjectStore.prototype.add, heldPut: IDBObjectStore.prototype.put })
    IDBObjectStore.prototype.add = put
    IDBObjectStore.prototype.put = put
  })
  await page.context().route('**/api/**', (route) => route.abort())
  await addPad(page)
  await page.getByRole('button', { name: /^How saving stands: 1 change not kept yet/ }).click()
  await expect(page.getByText('1 change is in this page alone.')).toBeVisible()
  await expect(page.getByText(/This device has no room for it/)).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as a file' }).click()
  expect((await download).suggestedFilename()).toMatch(/[.]json$/)
  await page.context().unroute('**/api/**')
  await expect(page.getByText('1 change is in this page alone.')).toHaveCount(0, { timeout: 15_000 })
  const onServer = (await (await page.request.get(`/api/kits/${kitIn(page)}`)).json()) as { doc: { pads: unknown[] } }
  expect(onServer.doc.pads).toHaveLength(1)
})

test('a kit that cannot be read is set apart, and the list and the other kits go on', async ({ page }) => {
  await newKit(page)
  await saved(page)
  const id = kitIn(page)
  await page.evaluate(
    (kitId) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open('heliaster')
        open.onsuccess = () => {
          const change = open.result.transaction('documents', 'readwrite')
          const store = change.objectStore('documents')
          store.get(`kit:${kitId}`).onsuccess = ({ target }) => {
            const row = (target as IDBRequest<{ doc: object; revision: number }>).result
            store.put({ ...row, revision: row.revision + 100, doc: { ...row.doc, version: 99 } })
          }
          change.oncomplete = () => {
            open.result.close()
            resolve()
          }
          change.onerror = () => reject(change.error)
        }
      }),
    id,
  )
  await page.reload()
  await expect(page.getByText('This kit cannot be read')).toBeVisible()
  await page.getByRole('button', { name: /^How saving stands/ }).click()
  await expect(page.getByText('A kit is set apart because it cannot be read.')).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save it as a file' }).click()
  expect((await download).suggestedFilename()).toBe(`${id}.json`)
  await page.goto('/')
  await findKit(page, 'Low Tide')
  await expect(page.getByRole('button', { name: 'Open Low Tide', exact: true })).toBeVisible()
})

test('while the server cannot give audio, a pad says that it will come, and not to import it again', async ({ page }) => {
  await page
    .context()
    .route('**/api/audio/**', (route) =>
      route.fulfill({ status: 503, json: { error: { code: 'databaseAway', message: 'The database does not answer.' } } }),
    )
  await page.goto('/')
  await findKit(page, 'Low Tide')
  await page.getByRole('button', { name: 'Open Low Tide', exact: true }).click()
  await expect(page.getByText(/the server cannot give it just now/).first()).toBeVisible()
  await expect(page.getByText(/Import the file again/)).toHaveCount(0)
})

test('audio that comes damaged from the server is not taken for the real one', async ({ page }) => {
  await page.context().route('**/api/audio/**', (route) => route.fulfill({ status: 200, body: Buffer.from('RIFF not what it was') }))
  await page.goto('/')
  await findKit(page, 'Low Tide')
  await page.getByRole('button', { name: 'Open Low Tide', exact: true }).click()
  await expect(page.getByText(/came damaged from the server/).first()).toBeVisible()
})

test('a kit and changes that an older page has left are taken over, and sound and read as they were meant', async ({ page, request }) => {
  await newKit(page)
  await saved(page)
  const made = createPad(testIds(41), { name: 'Old oar' }, 36)
  const kit = { ...createKit(testIds(40), 'Left by an older page'), pads: [made] }
  expect((await request.put(`/api/kits/${kit.id}`, { data: asFirstKit(kit) })).status()).toBe(201)
  const filter = (field: string, value: unknown) => ({ type: 'set', at: ['pads', made.id, 'own', 'shape', 'filter', field], value })
  const edits = [filter('type', 'lowPass'), filter('resonance', 0.5), { type: 'set', at: ['name'], value: 'Changed by an older page' }]
  await page.evaluate(
    async (waiting) => {
      const request = indexedDB.open('heliaster')
      const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
      const transaction = db.transaction('outbox', 'readwrite')
      transaction.objectStore('outbox').add(waiting)
      await new Promise((resolve) => (transaction.oncomplete = resolve))
      db.close()
    },
    { key: `kit:${kit.id}`, kind: 'kit', docId: kit.id, type: 'edits', batchId: 'batch-of-an-older-page', edits, version: 1 },
  )
  await page.reload()
  const doc = async () => ((await (await request.get(`/api/kits/${kit.id}`)).json()) as { doc: Kit }).doc
  await expect.poll(async () => (await doc()).name).toBe('Changed by an older page')
  expect((await doc()).pads[0].own).toMatchObject({ choices: { filter1Kind: 'lowPass' }, values: { filter1Damping: 2 - 1.95 * 0.5 } })
  await saved(page)
  await page.goto(`/kit/${kit.id}/board`)
  await expect(page.getByText('Changed by an older page')).toBeVisible()
  await expect(pad(page, 'Old oar')).toBeVisible()
})
