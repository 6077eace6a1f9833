import { CHUNK_BYTES, KIT_VERSION } from '@heliaster/core/kit'
import { expect, test } from '@playwright/test'
import type { FileChooser, Locator, Page } from '@playwright/test'
import type { AudioHash, Kit, Source } from '@heliaster/core/kit'
import { createHash } from 'node:crypto'

/** A pad's face, wherever it is shown. */
export function pad(page: Page, name: string) {
  return page.getByRole('button', { name: new RegExp(`^${name}`) }).first()
}

/** What the engine has sounded: the status that every strike leaves, read from the lit cell in words. */
export async function openDemo(page: Page, place: string): Promise<void> {
  await page.goto(`/kit/demo-low-tide/${place}`)
  await expect(page.getByText('Low Tide').first()).toBeVisible()
}

/** The demo kit as one of this test's own: what it changes there meets no other test; `change` does before it is opened. Returns its name. */
export async function openOwnDemo(page: Page, place: string, change: (kit: Kit) => Kit = (kit) => kit): Promise<string> {
  const { doc: demo } = (await (await page.request.get('/api/kits/demo-low-tide')).json()) as { doc: Kit }
  const doc = change(demo)
  const id = `lee-shore-${Math.random().toString(36).slice(2, 12)}`
  const name = `Lee shore ${id.slice(-6)}`
  const made = await page.request.put(`/api/kits/${id}?batch=own-${id}`, { data: { ...doc, id, name } })
  expect(made.status()).toBe(201)
  await page.goto(`/kit/${id}/${place}`)
  await expect(page.getByText(name).first()).toBeVisible()
  return name
}

export async function newKit(page: Page): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: 'New kit', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Record', exact: true })).toBeVisible()
}

/** Among the kits of all tests one is found by its name: the list draws those that were scrolled to. */
export async function findKit(page: Page, name: string): Promise<void> {
  const field = page.getByRole('textbox', { name: 'Find by name' })
  await expect(field.or(page.getByRole('button', { name: `Open ${name}`, exact: true })).first()).toBeVisible()
  if (await field.isVisible()) await field.fill(name)
}

/** Chooses another kit by its name, where the kits of all tests may be choices. */
export async function chooseKit(among: Locator, name: string): Promise<void> {
  const kit = among.getByRole('radio', { name, exact: true })
  const field = among.getByRole('textbox', { name: 'Find by name' })
  await expect(async () => {
    if (await field.isVisible()) await field.fill(name)
    await kit.click({ timeout: 2000 })
    await expect(kit).toBeChecked({ timeout: 1000 })
  }).toPass()
}

export const kitIn = (page: Page): string => /kit\/([^/]+)/.exec(page.url())![1]

/** Gives the kit that is open a name of its own, as another device would: the list shows kits of other tests too. */
export async function nameKit(page: Page, name: string): Promise<void> {
  await saved(page)
  const { revision } = (await (await page.request.get(`/api/kits/${kitIn(page)}`)).json()) as { revision: number }
  const edits = [{ type: 'setKit', fields: { name } }]
  const data = { baseRevision: revision, batchId: `name-${kitIn(page)}`, version: KIT_VERSION, edits }
  expect((await page.request.post(`/api/kits/${kitIn(page)}/edits`, { data })).status()).toBe(200)
  await expect(page.getByText(name).last()).toBeVisible()
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: /^How saving stands: Saved(;|$)/ })).toBeVisible({ timeout: 90_000 })
}

/** Where something stands once nothing moves it any more. */
export async function standing(locator: Locator): Promise<{ x: number; y: number; width: number; height: number }> {
  let last = ''
  await expect.poll(async () => last === (last = JSON.stringify(await locator.boundingBox())), { intervals: [200] }).toBe(true)
  return (await locator.boundingBox())!
}

/** Presses until the page asks for a file: on a slow machine what is pressed may still move away under it. */
export async function askedForFile(page: Page, button: Locator): Promise<FileChooser> {
  const asked = page.waitForEvent('filechooser')
  let isAsked = false
  void asked.then(() => (isAsked = true))
  await expect(async () => {
    if (!isAsked) await button.click({ timeout: 5000 })
    await expect.poll(() => isAsked, { timeout: 5000 }).toBe(true)
  }).toPass()
  return asked
}

/**
 * A mono WAV of 16 bits with strikes at the given seconds. The test's name lies in it where nobody reads it:
 * a sound of one test, or of its first try, is here already for no other.
 */
export function wavWithStrikes(seconds: number, strikes: readonly number[], rate = 48000): Buffer {
  const frames = Math.round(seconds * rate)
  const { testId, retry } = test.info()
  const mark = Buffer.from(`${testId} ${retry}`.padEnd(64).slice(0, 64))
  const bytes = Buffer.concat([Buffer.alloc(44 + frames * 2), Buffer.from('JUNK\x40\0\0\0', 'latin1'), mark])
  bytes.write('RIFF', 0)
  bytes.writeUInt32LE(bytes.length - 8, 4)
  bytes.write('WAVEfmt ', 8)
  bytes.writeUInt32LE(16, 16)
  bytes.writeUInt16LE(1, 20)
  bytes.writeUInt16LE(1, 22)
  bytes.writeUInt32LE(rate, 24)
  bytes.writeUInt32LE(rate * 2, 28)
  bytes.writeUInt16LE(2, 32)
  bytes.writeUInt16LE(16, 34)
  bytes.write('data', 36)
  bytes.writeUInt32LE(frames * 2, 40)
  let noise = 1
  const next = () => (noise = (Math.imul(noise, 1103515245) + 12345) >>> 0) / 2147483648 - 1
  for (let i = 0; i < frames; i++) bytes.writeInt16LE(Math.round(next() * 500), 44 + i * 2)
  for (const [index, at] of strikes.entries()) {
    const from = Math.round(at * rate)
    for (let i = 0; i < 0.25 * rate && from + i < frames; i++) {
      const sample =
        (Math.sin((2 * Math.PI * (180 + 90 * index) * i) / rate) + 0.3 * next()) * Math.exp(-i / (0.03 * rate)) * (30000 + 8000 * index)
      const at = 44 + (from + i) * 2
      bytes.writeInt16LE(Math.max(-32768, Math.min(32767, Math.round(sample / 2) + bytes.readInt16LE(at))), at)
    }
  }
  return bytes
}

/** Brings a file to the server as a device does, and says by what it is called there. */
export async function keepAudio(page: Page, bytes: Buffer, name: string): Promise<AudioHash> {
  const hash = createHash('sha256').update(bytes).digest('hex') as AudioHash
  const begun = await page.request.post(`/api/audio/${hash}`, { data: { bytes: bytes.length, name } })
  if (((await begun.json()) as { state: string }).state === 'ready') return hash // another test brought the same
  for (let place = 0; place * CHUNK_BYTES < bytes.length; place++)
    await page.request.put(`/api/audio/${hash}/chunks/${place}`, { data: bytes.subarray(place * CHUNK_BYTES, (place + 1) * CHUNK_BYTES) })
  expect((await page.request.post(`/api/audio/${hash}/finish`)).status()).toBe(200)
  return hash
}

/** The demo kit as this test's own, at 120 beats a minute, with a recording of six strikes in four seconds on one of its pads. */
export async function openRecording(page: Page, name: string, place: string): Promise<void> {
  const wav = wavWithStrikes(4, [0.1, 0.7, 1.3, 1.9, 2.5, 3.1])
  const frames = 4 * 48000
  const audio = await keepAudio(page, wav, 'Six strikes.wav')
  const info = { name: 'Six strikes.wav', sampleRateHz: 48000, frames, channels: 1 }
  const clip = { audio, startFrame: 0, endFrame: frames, fadeInSeconds: 0, fadeOutSeconds: 0, gainDb: 0, reverse: false, invert: false, channel: 'left' as const } // prettier-ignore
  const filled = (one: Kit['pads'][number]) => ({ ...one, bands: one.bands.slice(0, 1).map((band) => ({ ...band, turns: band.turns.slice(0, 1).map((turn) => ({ ...turn, clips: { [one.rays[0]!.id]: clip } as typeof turn.clips })) })) }) // prettier-ignore
  await openOwnDemo(page, place, (kit) => ({ ...kit, tempoBpm: 120, audio: { ...kit.audio, [audio]: info }, pads: kit.pads.map((one) => (one.own.name === name ? filled(one) : one)) })) // prettier-ignore
}

/** The bytes that this device keeps of a sound on the list, by its name. */
export async function storedBytes(page: Page, name: string): Promise<Uint8Array> {
  const base64 = await page.evaluate(
    async (audio) => {
      const open = <T>(request: IDBRequest<T>) =>
        new Promise<T>((resolve, reject) => {
          request.onsuccess = () => resolve(request.result)
          request.onerror = () => reject(request.error)
        })
      const db = await open(indexedDB.open('heliaster'))
      const kept = await open(db.transaction('audio').objectStore('audio').get(audio))
      db.close()
      const bytes = new Uint8Array(await new Response(kept.bytes).arrayBuffer())
      let text = ''
      for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192))
      return btoa(text)
    },
    (await storedSource(page, name, true)).audio,
  )
  return new Uint8Array(Buffer.from(base64, 'base64'))
}

/**
 * The document of a sound on the list, as this device keeps it once all that waits for the server has gone. Another device
 * may have given the same name: with `isAudioHere` it is the one that has its audio on this one.
 */
export async function storedSource(page: Page, name: string, isAudioHere = false): Promise<Source> {
  let found: Source | undefined
  await expect(async () => {
    found = await page.evaluate(
      async ([wanted, mustBeHere]) => {
        const open = <T>(request: IDBRequest<T>) =>
          new Promise<T>((resolve, reject) => {
            request.onsuccess = () => resolve(request.result)
            request.onerror = () => reject(request.error)
          })
        const db = await open(indexedDB.open('heliaster'))
        // What a device keeps of a document is what the server has; what waits for it is made on that.
        const waiting = await open(db.transaction('outbox').objectStore('outbox').count())
        const stored = await open(db.transaction('documents').objectStore('documents').getAll())
        const audio = new Set(await open(db.transaction('audio').objectStore('audio').getAllKeys()))
        db.close()
        const docs = stored.filter((one) => one.kind === 'source' && one.doc.name === wanted && !one.hidden).map((one) => one.doc)
        return waiting > 0 ? undefined : (docs.find((doc) => audio.has(doc.audio)) ?? (mustBeHere ? undefined : docs[0]))
      },
      [name, isAudioHere] as const,
    )
    expect(found, `“${name}” in this device’s store`).toBeDefined()
  }).toPass({ timeout: 30_000 })
  return found!
}

/** The open kit as the server has it. */
export async function keptKit(page: Page): Promise<Kit> {
  await saved(page)
  const id = page.url().split('/kit/')[1].split('/')[0]
  return page.evaluate(async (kitId) => ((await (await fetch(`/api/kits/${kitId}`)).json()) as { doc: Kit }).doc, id)
}

/** Narrows the list of sounds to a name: what other tests bring in meanwhile moves no row to another place. */
export async function narrow(page: Page, name: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Find by name' }).fill(name)
  await expect(page.getByRole('button', { name: /^Cut / }).first()).toContainText(name)
}

/** The lane of the mix of something is looked at with each picture, from before something is done until it is filled. */
export async function fills(page: Page, name: string, act: () => Promise<void>): Promise<void> {
  const watched = page.evaluate(
    (of) =>
      new Promise<boolean>((resolve) => {
        let looks = 0
        const look = () => {
          const isFilled = document.querySelector(`[role="slider"][aria-label="Level of ${of}"] [data-testid="level"]`)!.getBoundingClientRect().width > 10 // prettier-ignore
          if (isFilled || looks++ > 2000) resolve(isFilled)
          else requestAnimationFrame(look)
        }
        look()
      }),
    name,
  )
  await act()
  expect(await watched).toBe(true)
}

/** What was just recorded of the pads, once it lies in Cut: its name, and the strikes of the one with audio on this device; other tests name theirs alike. */
export async function takenBack(page: Page) {
  await expect(page).toHaveURL(/\/cut/)
  const name = (await page.getByText(/^Taken back \d+$/).first().textContent())! // prettier-ignore
  const { strikes = [] } = await storedSource(page, name, true)
  return { name, strikes }
}
