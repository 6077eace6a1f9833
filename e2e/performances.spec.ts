import { readFile } from 'node:fs/promises'

import { readWav } from '@heliaster/core/audio'
import { readMidiFile } from '@heliaster/core/groove/midi'
import type { Performance } from '@heliaster/core/kit'
import { isHeard, strikesOf } from '@heliaster/core/performance'
import { expect, test } from '@playwright/test'
import type { Download, Page } from '@playwright/test'
import { unzipSync } from 'fflate'

import { askedForFile, chooseKit, openDemo, openOwnDemo, pad, saved, storedBytes, takenBack } from './helpers'

const KEYS = ['z', 'c', 'x', 'c', 'z', 'v', 'x', 'b']

async function bytesOf(download: Download): Promise<Uint8Array> {
  return new Uint8Array(await readFile(await download.path()))
}

async function takenOut(page: Page, name: string): Promise<Uint8Array> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name, exact: true }).click()])
  return bytesOf(download)
}

/** Waits until every pad can sound. */
async function allArrived(page: Page): Promise<void> {
  await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0)
}

test('a passage that was played is kept afterwards, and sounds again to the last sample as it was heard', async ({ page }) => {
  await openDemo(page, 'board')
  await expect(pad(page, 'Hull thump')).toBeVisible()
  await allArrived(page)
  await page.getByRole('link', { name: 'Gather' }).click()
  await page.getByText('The pads', { exact: true }).click()
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText('Stop and cut')).toBeVisible()
  for (const key of KEYS) await page.keyboard.press(key)
  await expect(page.getByText(/^[1-9]\d* hits?$/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop and cut' }).click()
  const { name, strikes } = await takenBack(page)
  const recorded = readWav(await storedBytes(page, name))

  await page.getByRole('link', { name: 'Groove' }).click()
  await page.getByRole('button', { name: 'Performances' }).click()
  await page.getByRole('button', { name: 'Keep' }).first().click()
  await expect(page.getByText('Sounds again to the last sample as it was heard.')).toBeVisible()
  await page.getByRole('radio', { name: 'Take out' }).click()
  await page.getByRole('radio', { name: /^32 bit float/ }).click()
  const again = readWav(await takenOut(page, 'WAV'))
  if (!recorded.ok || !again.ok) throw new Error('These are no WAV files.')
  const { channels } = again.file.audio
  const { cues } = again.file
  // The recording began before the passage or within it: both are laid over each other by a strike that both know.
  const last = strikes[strikes.length - 1].frame
  const offset = last - cues[cues.length - 1].frame
  const from = Math.max(0, -offset)
  const frames = Math.min(channels[0].length, recorded.file.audio.channels[0].length - offset)
  expect(frames - from).toBeGreaterThan(4000)
  let loud = 0
  for (const [side, channel] of channels.entries()) {
    const was = recorded.file.audio.channels[side] ?? recorded.file.audio.channels[0] // alike on both sides it is kept as one
    let differs = -1
    for (let i = from; i < frames && differs < 0; i++) if (was[offset + i] !== channel[i]) differs = i
    expect([side, differs]).toEqual([side, -1])
    loud += was.subarray(offset + from, offset + frames).filter((sample) => Math.abs(sample) > 0.01).length
  }
  expect(loud).toBeGreaterThan(1000)
  await saved(page)
})

test('a performance is drawn to a grid, put on another pad, changed strike by strike, undone, and leaves as MIDI', async ({ page }) => {
  await openDemo(page, 'board')
  await allArrived(page)
  await page.goto('/kit/demo-low-tide/performances')
  await expect(page.getByText('Nothing in the last ten minutes', { exact: false })).toBeVisible()
  await expect(async () => {
    await page.keyboard.press('z')
    await expect(page.getByRole('button', { name: 'Keep' })).toBeVisible({ timeout: 2000 })
  }).toPass()
  for (const key of KEYS) await page.keyboard.press(key)
  await expect(page.getByText(/^(9|1\d) strikes in /)).toBeVisible()
  await page.getByRole('button', { name: 'Keep' }).first().click()
  const strings = page.getByRole('group', { name: /^Strikes/ })
  await expect(async () => {
    await strings.focus()
    await page.keyboard.press('ArrowRight')
    await expect(page.getByText('Hull thump, at 0.000 s')).toBeVisible({ timeout: 10_000 })
  }).toPass()
  await page.getByRole('slider', { name: 'Strength' }).press('Home')
  await strings.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Delete')
  await expect(page.getByText(/^Changed since/)).toBeVisible()
  await page.getByRole('radio', { name: 'Pads', exact: true }).click()
  await page.getByRole('button', { name: 'Put on another' }).last().click()
  await page.getByRole('radio', { name: 'Buoy bell' }).click()
  await page.getByRole('radio', { name: 'Grid', exact: true }).click()
  await page.getByRole('button', { name: 'Draw to the grid' }).click()
  await expect(page.getByText('Strikes are 0 ms off at most', { exact: false })).toBeVisible()
  await page.getByRole('radio', { name: 'Take out' }).click()
  const read = readMidiFile(await takenOut(page, 'MIDI'))
  if (!read.ok) throw new Error(read.message)
  const notes = read.notes.flatMap((entry) => ('velocity' in entry ? [entry] : []))
  expect(notes[0].velocity).toBe(1)
  expect(notes.length).toBeGreaterThanOrEqual(8) // all but the one that was removed
  for (const { ms } of notes) expect(Math.abs(ms - Math.round(ms / (60_000 / 92 / 4)) * (60_000 / 92 / 4))).toBeLessThan(0.5)
  for (let step = 0; step < 4; step++) await page.keyboard.press('Control+z')
  await expect(page.getByText('Sounds again to the last sample as it was heard.')).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.getByText('Sounds again to the last sample as it was heard.')).toBeVisible()
  await page.getByRole('button', { name: 'Hear it' }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Hear it' })).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Delete this performance' }).click()
  await expect(page.getByText(/^“.*” is deleted\.$/)).toBeVisible()
  await saved(page)
})

test('the same strikes on other clips: another kit answers by families and names; one strike leaves many times over, no two alike', async ({
  page,
}) => {
  // Another kit: the same pads, an octave deeper.
  const other = await openOwnDemo(page, 'board', (kit) => ({
    ...kit,
    pads: kit.pads.map((one) => ({ ...one, own: { ...one.own, values: { ...one.own.values, tuneCents: -1200 } } })),
  }))
  await openOwnDemo(page, 'performances')
  await allArrived(page)
  await expect(async () => {
    await page.keyboard.press('z')
    await expect(page.getByRole('button', { name: 'Keep' })).toBeVisible({ timeout: 2000 })
  }).toPass()
  for (const key of ['x', 'z', 'x']) await page.keyboard.press(key)
  await page.getByRole('button', { name: 'Keep' }).first().click()
  await page.getByRole('radio', { name: 'Take out' }).click()
  const here = readWav(await takenOut(page, 'WAV'))
  await page.getByRole('radio', { name: 'Another kit' }).click()
  await chooseKit(page.getByRole('main'), other)
  await expect(page.getByText('Sounds with the clips and settings of now.')).toBeVisible()
  const there = readWav(await takenOut(page, 'WAV'))
  if (!here.ok || !there.ok) throw new Error('These are no WAV files.')
  const starts = ({ cues }: typeof here.file) => cues.map(({ frame }) => frame - cues[0].frame)
  expect(starts(there.file)).toEqual(starts(here.file))
  const crossings = ({ audio }: typeof here.file) => audio.channels[0].reduce((count, sample, i, all) => count + (i > 0 && sample >= 0 !== all[i - 1] >= 0 ? 1 : 0), 0) / audio.channels[0].length // prettier-ignore
  expect(crossings(there.file)).toBeLessThan(0.8 * crossings(here.file))
  await page.getByRole('radio', { name: 'As it was played' }).click()

  const strings = page.getByRole('group', { name: /^Strikes/ })
  await strings.focus()
  await page.keyboard.press('ArrowRight')
  const times = page.getByRole('slider', { name: 'Times' })
  await times.press('Home')
  await times.press('ArrowRight')
  const zip = unzipSync(await takenOut(page, 'Take it out 3 times'))
  expect(Object.keys(zip)).toHaveLength(3)
  const draws = Object.values(zip).map((bytes) => Buffer.from(bytes).toString('base64'))
  expect(new Set(draws).size).toBe(3)
  await page.getByRole('button', { name: 'Delete this performance' }).click()
  await saved(page)
})

/** A performance as the server has it. */
async function keptPerformance(page: Page, name: string): Promise<Performance> {
  await saved(page)
  const { items } = await page.evaluate(async () => (await (await fetch('/api/performances')).json()) as { items: { doc: Performance }[] }) // prettier-ignore
  return items.find(({ doc }) => doc.name === name)!.doc
}

/** A film of two seconds, drawn and recorded by the browser itself. */
async function aFilm(page: Page): Promise<Buffer> {
  const base64 = await page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    ;[canvas.width, canvas.height] = [160, 90]
    const pen = canvas.getContext('2d')!
    const recorder = new MediaRecorder(canvas.captureStream(25), { mimeType: 'video/webm' })
    const parts: Blob[] = []
    recorder.ondataavailable = ({ data }) => parts.push(data)
    recorder.start()
    for (const begun = performance.now(); performance.now() - begun < 2000;) {
      pen.fillStyle = `hsl(${(performance.now() / 5) % 360} 40% 50%)`
      pen.fillRect(0, 0, 160, 90)
      await new Promise((resolve) => requestAnimationFrame(resolve))
    }
    const ended = new Promise((resolve) => (recorder.onstop = resolve))
    recorder.stop()
    await ended
    const bytes = new Uint8Array(await new Blob(parts).arrayBuffer())
    return btoa(bytes.reduce((text, byte) => text + String.fromCharCode(byte), ''))
  })
  return Buffer.from(base64, 'base64')
}

test('a performance runs with a film of one’s own, and what is taken out begins on its clock', async ({ page }) => {
  await openDemo(page, 'performances')
  await allArrived(page)
  await expect(async () => {
    await page.keyboard.press('b')
    await expect(page.getByRole('button', { name: 'Keep' })).toBeVisible({ timeout: 2000 })
  }).toPass()
  await page.getByRole('button', { name: 'Keep' }).first().click()
  const firstName = await page.getByRole('textbox', { name: 'Name of the performance' }).inputValue()
  await page.getByRole('radio', { name: 'Picture', exact: true }).click()
  const chooser = await askedForFile(page, page.getByRole('button', { name: 'Choose a film' }))
  const filmName = `slipway ${Date.now()}.webm`
  await chooser.setFiles({ name: filmName, mimeType: 'video/webm', buffer: await aFilm(page) })
  const film = page.getByLabel('The film', { exact: true })
  await expect.poll(() => film.evaluate((one: HTMLVideoElement) => one.videoWidth)).toBe(160)
  await page.getByRole('textbox', { name: 'The film starts at' }).fill('01:00:00:00')
  await page.getByRole('button', { name: 'Set', exact: true }).click()
  for (let picture = 0; picture < 5; picture++) await page.getByRole('button', { name: 'A picture on' }).click()
  await expect(page.getByLabel('Timecode')).toHaveText('01:00:00:05')
  await page.getByRole('button', { name: 'It begins on this picture' }).click()
  await expect(page.getByText('What is heard begins at 01:00:00:05.')).toBeVisible()
  await page.getByRole('button', { name: 'Hear it' }).click()
  await expect.poll(() => film.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(0.3)
  await expect(page.getByRole('button', { name: 'Hear it' })).toBeVisible({ timeout: 60_000 }) // it has died away
  await page.getByRole('textbox', { name: 'Name of the mark' }).fill('Launch')
  await page.getByRole('button', { name: 'Mark this picture' }).click()
  await page.getByRole('button', { name: 'A picture back' }).click()
  await page.getByRole('button', { name: 'Go to Launch' }).click()
  // Another pass to the same film, on a line of its own: struck while the film runs, heard with the first one.
  const stood = await film.evaluate((one: HTMLVideoElement) => one.currentTime)
  await page.getByRole('button', { name: 'Play a pass from this picture' }).click()
  await expect(page.getByText(/^The film runs, and what you play is kept/)).toBeVisible()
  await expect.poll(() => film.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(stood + 0.3) // it runs
  await page.keyboard.press('v')
  await page.getByRole('button', { name: 'End the pass' }).click()
  const kept = page.getByText(/^Kept as “.+”, a line of its own with 1 strike[.]$/)
  await expect(kept).toBeVisible()
  const passName = /“(.+)”/.exec((await kept.textContent())!)![1]!
  await expect(page.getByRole('list', { name: 'Lines of this film' }).getByRole('checkbox')).toHaveCount(2)
  await page.getByRole('button', { name: 'Hear these lines from here' }).click()
  await page.getByRole('button', { name: 'Stop the film' }).click()
  // Each line leaves as a file of its own.
  const files: Download[] = []
  page.on('download', (file) => files.push(file))
  await page.getByRole('button', { name: 'A WAV for each line' }).click()
  await expect.poll(() => files.length, { timeout: 60_000 }).toBe(2)
  const marks: string[] = []
  for (const file of files) {
    const line = readWav(await bytesOf(file))
    if (!line.ok) throw new Error(line.message)
    expect(line.file.startFrame).toBeGreaterThanOrEqual(line.file.audio.sampleRateHz * 3600)
    expect(line.file.audio.channels[0].some((sample) => sample > 0.01)).toBe(true)
    marks.push(...line.file.cues.map(({ label }) => label ?? ''))
  }
  expect(marks).toHaveLength(2) // one strike in each line
  await saved(page)
  const pass = await keptPerformance(page, passName)
  const struckAt = pass.events.flatMap((event) =>
    event.type === 'strike' ? [pass.picture!.offsetSeconds + event.frame / pass.sampleRateHz] : [],
  )
  expect(pass.picture!.film).toBe(filmName)
  expect(struckAt).toHaveLength(1)
  // The film was seen at 0.3 s and more; it stands from its clock by 0.08 s at most before it is put right.
  expect(struckAt[0]).toBeGreaterThan(0.3 - 0.08)
  // Punched in: what is struck while the film runs stands in this line, in place of what was there.
  await page.getByRole('slider', { name: 'Place in the film' }).press('Home')
  await expect(page.getByLabel('Timecode')).toHaveText('01:00:00:00')
  await page.getByRole('radio', { name: 'Into this line, in place of what is there' }).click()
  await page.getByRole('button', { name: 'Play a pass from this picture' }).click()
  await expect(page.getByText(/^The film runs, and what you play is kept/)).toBeVisible()
  await expect.poll(() => film.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(0.3)
  await page.keyboard.press('z')
  await page.keyboard.press('x')
  await page.getByRole('button', { name: 'End the pass' }).click()
  await expect(page.getByText('2 strikes stand in this line now, in place of what was there.')).toBeVisible()
  const heardPads = (of: Performance) => of.events.flatMap((event) => (event.type === 'strike' && isHeard(of, event) ? [event.padId] : []))
  await expect.poll(async () => heardPads(await keptPerformance(page, firstName))).toHaveLength(2)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => strikesOf(await keptPerformance(page, firstName)).length).toBe(1)

  await page.getByRole('radio', { name: 'Take out' }).click()
  const read = readWav(await takenOut(page, 'WAV'))
  if (!read.ok) throw new Error(read.message)
  expect(read.file.startFrame).toBe(read.file.audio.sampleRateHz * (3600 + 5 / 25))
  await page.getByRole('button', { name: 'Delete this performance' }).click()
  await page.getByRole('button', { name: `Open ${passName}` }).click()
  await page.getByRole('button', { name: 'Delete this performance' }).click()
  await saved(page)
})
