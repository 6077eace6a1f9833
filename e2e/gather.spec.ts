import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { readWav, writeWav } from '@heliaster/core/audio'
import { expect, test } from '@playwright/test'
import type { FileChooser, Page } from '@playwright/test'

import { narrow, newKit, openDemo, saved, storedBytes, storedSource, wavWithStrikes } from './helpers'

type Files = Parameters<FileChooser['setFiles']>[0]

async function importFiles(page: Page, files: Files, button = 'Import files'): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: button }).click()])
  await chooser.setFiles(files)
}

/** Of what stands in words behind More. */
async function behindMore(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name, exact: true }).click()
}

const fixture = (ending: string) => ({
  name: `gangplank ${ending}.${ending}`,
  mimeType: 'application/octet-stream',
  buffer: readFileSync(`core/decode/fixtures/strike.${ending}`),
})

/** An MPEG-4 file that says where its sound begins by a gapless tag, and has no edit list. */
function gapless() {
  const bytes = Buffer.from(fixture('m4a').buffer)
  bytes.write('free', bytes.indexOf('edts'))
  const text = 'iTunSMPB 00000000 00000400 00000048 0000000000000BB8'
  const box = Buffer.alloc(8 + text.length)
  box.writeUInt32BE(box.length, 0)
  box.write(`free${text}`, 4)
  return { name: 'gangplank gapless.m4a', mimeType: 'audio/mp4', buffer: Buffer.concat([bytes, box]) }
}

/** Left and right of which the mean cancels. */
function opposed(): Buffer {
  const left = Float32Array.from({ length: 9600 }, (_, i) => 0.5 * Math.sin(i / 20) * Math.exp(-i / 2000))
  return Buffer.from(writeWav({ sampleRateHz: 48000, channels: [left, left.map((x) => -x)] }, { bits: 16 }))
}

test('all formats come in, stereo is asked about once, and a middle that cancels is warned of', async ({ page }) => {
  await newKit(page)
  await importFiles(page, [
    ...['aiff', 'flac', 'mp3', 'ogg', 'opus', 'oga'].map(fixture),
    { name: 'opposed.wav', mimeType: 'audio/wav', buffer: opposed() },
    { name: 'broken.flac', mimeType: 'audio/flac', buffer: fixture('flac').buffer.subarray(0, 60) },
  ])
  await expect(page.getByText('7 imported, 1 could not be read')).toBeVisible()
  await expect(page.getByText('6 files are stereo. Their clips take')).toBeVisible()
  await page.getByRole('radio', { name: 'Mid' }).click()
  await expect(page.getByText(/In “opposed” left and right cancel/)).toBeVisible()
  await page.getByRole('button', { name: 'Put the report away' }).click()
  await narrow(page, 'opposed')
  await page.getByRole('button', { name: 'More for opposed' }).click()
  await expect(page.getByText(/correlation -1\.00.*They cancel: mid would lose \d+ dB/)).toBeVisible()
  await page.getByRole('radio', { name: 'Left' }).click()
  await page.getByRole('button', { name: 'Close' }).last().click()
  await expect.poll(async () => (await storedSource(page, 'opposed')).channel).toBe('left')
  await expect.poll(async () => (await storedSource(page, 'gangplank mp3')).channel).toBe('mid')
  await page.getByRole('button', { name: 'Undo in the list of sounds' }).click()
  await expect.poll(async () => (await storedSource(page, 'opposed')).channel).toBe('mid')
  await page.getByRole('button', { name: 'Undo in the list of sounds' }).click()
  await expect.poll(async () => (await storedSource(page, 'gangplank mp3')).channel).toBe('both')
})

test('what telephones and browsers record comes in on its very frames, once decoded, beside its original', async ({ page }) => {
  await newKit(page)
  const truth = readWav(new Uint8Array(fixture('wav').buffer))
  if (!truth.ok) throw new Error(truth.message)
  const wanted = truth.file.audio.channels[0]
  await importFiles(page, [...['m4a', 'webm'].map(fixture), gapless()])
  await expect(page.getByText('3 imported')).toBeVisible()
  await expect(page.getByText(/decoded once, from MPEG-4; the samples are kept beside the original/).first()).toBeVisible()
  await saved(page)
  for (const ending of ['m4a', 'webm', 'gapless']) {
    const source = await storedSource(page, `gangplank ${ending}`)
    expect(source.info.derivedFrom).toMatch(/^[0-9a-f]{64}$/)
    const decoded = readWav(await storedBytes(page, `gangplank ${ending}`))
    if (!decoded.ok) throw new Error(decoded.message)
    const heard = decoded.file.audio.channels[0]
    const likeness = (late: number) => wanted.reduce((sum, sample, i) => sum + sample * (heard[i + late] ?? 0), 0)
    const best = Array.from({ length: 81 }, (_, i) => i - 40).reduce((a, b) => (likeness(b) > likeness(a) ? b : a))
    expect([ending, best]).toEqual([ending, 0])
  }
})

test('an import is cancelled: what is in stays, the rest is counted, and the import is begun again', async ({ page }) => {
  await newKit(page)
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-many-'))
  const paths = Array.from({ length: 24 }, (_, i) => join(folder, `ratline ${i + 1}.wav`))
  paths.forEach((path, i) => writeFileSync(path, wavWithStrikes(8, [0.1 + i / 1000])))
  try {
    await importFiles(page, paths)
    await page.getByRole('button', { name: 'Cancel' }).click()
    const report = page.getByText(/^\d+ imported, \d+ not read, since it was cancelled$/)
    await expect(report).toBeVisible()
    const [taken, left] = (await report.textContent())!.match(/\d+/g)!.map(Number)
    expect(taken + left).toBe(24)
    expect(left).toBeGreaterThan(0)
    await page.getByRole('button', { name: 'Put the report away' }).click()
    await importFiles(page, paths)
    const again = taken > 0 ? `${left} imported, ${taken} ${taken === 1 ? 'was' : 'were'} here already` : `${left} imported`
    await expect(page.getByText(again, { exact: true })).toBeVisible()
  } finally {
    rmSync(folder, { recursive: true })
  }
  // Other tests look at the same list.
  await page.getByRole('textbox', { name: 'Find by name' }).fill('ratline')
  await page.getByRole('button', { name: 'Select', exact: true }).click()
  await page.getByRole('button', { name: 'All 24 shown' }).click()
  await behindMore(page, 'Delete')
  await page.getByRole('button', { name: 'Delete 24 sounds' }).click()
  await expect(page.getByText('No sound is like this.')).toBeVisible()
  await saved(page)
})

test('a folder comes in with its name as a tag, and only its audio files', async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-folder-'))
  try {
    mkdirSync(join(folder, 'capstan'))
    for (const n of [1, 2, 10]) writeFileSync(join(folder, 'capstan', `pawl ${n}.wav`), wavWithStrikes(1, [0.1 * n > 0.9 ? 0.3 : 0.1 * n]))
    writeFileSync(join(folder, 'capstan', 'notes.txt'), 'not audio')
    await newKit(page)
    await importFiles(page, folder, 'Import a folder')
    await expect(page.getByText('3 imported', { exact: true })).toBeVisible()
    await page.getByRole('textbox', { name: 'Find by name' }).fill('capstan')
    await expect(page.getByRole('button', { name: /^Cut pawl/ })).toHaveText([/^pawl 1/, /^pawl 2/, /^pawl 10/])
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})

test('many are selected by search, renamed with a preview, tagged, judged and deleted, each undone in one step', async ({ page }) => {
  await openDemo(page, 'gather')
  const find = page.getByRole('textbox', { name: 'Find by name' })
  const undo = page.getByRole('button', { name: 'Undo in the list of sounds' })
  await find.fill('keel d5')
  await page.getByRole('button', { name: 'Select', exact: true }).click()
  await page.getByRole('button', { name: 'All 6 shown' }).click()
  await page.getByRole('button', { name: 'Rename', exact: true }).click()
  await page.getByRole('textbox', { name: 'Pattern' }).fill('slip {nn}')
  await expect(page.getByLabel('The new names')).toContainText('slip 06')
  await page.getByRole('button', { name: 'Rename 6 sounds' }).click()
  await find.fill('slip')
  await expect(page.getByText('6 of 6 selected')).toBeVisible()
  await page.getByRole('button', { name: 'Tag', exact: true }).click()
  await page.getByRole('textbox', { name: 'New tag' }).fill('hard')
  await page.getByRole('textbox', { name: 'New tag' }).press('Enter')
  await expect(page.getByRole('checkbox', { name: 'hard' })).toBeChecked()
  await page.getByRole('button', { name: 'Close' }).last().click()
  await behindMore(page, 'Pass')
  await expect(page.getByRole('button', { name: /^Select slip/ })).toHaveCount(6)
  await behindMore(page, 'Delete')
  await expect(page.getByText(/^Some of these are used by .*“Low Tide” \(6 clips\).* The pads keep sounding/)).toBeVisible()
  await page.getByRole('button', { name: 'Delete 6 sounds' }).click()
  await expect(page.getByText('No sound is like this.')).toBeVisible()
  await undo.click()
  await expect(page.getByRole('button', { name: /^Select slip/ })).toHaveCount(6)
  for (let i = 0; i < 3; i++) await undo.click()
  await find.fill('keel d5')
  await expect(page.getByRole('button', { name: /^Select hull-thump_keel_d5/ })).toHaveCount(6)
  await saved(page)
})

test('the list is worked from the keyboard: arrows hear, keep, pass and favour', async ({ page }) => {
  await openDemo(page, 'gather')
  await page.getByRole('textbox', { name: 'Find by name' }).fill('deck d3')
  const list = page.getByRole('group', { name: 'Sounds' })
  await list.focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('+')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('*')
  await page.keyboard.press('-')
  await expect(page.getByRole('button', { name: 'hull-thump_deck_d3_t01 is kept; change' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'hull-thump_deck_d3_t02 is passed; change' })).toBeVisible()
  await page.getByRole('button', { name: /^(Order|Narrowed)$/ }).click()
  await page.getByRole('radio', { name: 'Favourites' }).click()
  await page.getByRole('button', { name: 'Close' }).last().click()
  await expect(page.getByRole('button', { name: /^Cut hull/ })).toHaveCount(1)
  await page.getByRole('button', { name: /^(Order|Narrowed)$/ }).click()
  await page.getByRole('button', { name: 'Show all sounds' }).click()
  await page.getByRole('button', { name: 'Close' }).last().click()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
})

test('takes are heard by arrows, kept or passed; all passed leave in one step and come back in one', async ({ page }) => {
  await newKit(page)
  await importFiles(page, [
    { name: 'eight tries.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(5, [0.2, 0.8, 1.4, 2, 2.6, 3.2, 3.8, 4.4]) },
  ])
  await narrow(page, 'eight tries')
  await page.getByRole('button', { name: 'Cut eight tries' }).click()
  await expect(page.getByRole('button', { name: 'Send 8 hits to pads' })).toBeEnabled()
  for (const key of ['Backspace', 'Enter', 'Backspace', 'Backspace']) {
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press(key)
  }
  await expect(page.getByText('1 kept, 3 passed, 4 open')).toBeVisible()
  await page.getByRole('button', { name: 'Pass the rest' }).click()
  await page.getByRole('button', { name: 'Remove 7 passed' }).click()
  await expect(page.getByRole('button', { name: 'Send 1 hit to pads' })).toBeEnabled()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('1 kept, 7 passed')).toBeVisible()
})

test('a sound goes out as it is and its changed version comes back, clips keeping their places; one undo', async ({ page }) => {
  await newKit(page)
  const original = wavWithStrikes(2, [0.3, 1.1])
  await importFiles(page, [{ name: 'bollard.wav', mimeType: 'audio/wav', buffer: original }])
  await narrow(page, 'bollard')
  await page.getByRole('button', { name: 'Cut bollard' }).click()
  await page.getByRole('button', { name: 'Send 2 hits to pads' }).click()
  await page.getByRole('button', { name: 'Send to the Board' }).click()
  await page.getByRole('link', { name: 'Gather' }).click()
  await page.getByRole('button', { name: 'More for bollard' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take out to another program' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('bollard.wav')
  const out = readFileSync(await download.path())
  expect(out.equals(original)).toBe(true)
  const read = readWav(new Uint8Array(out))
  const audio = read.ok ? read.file.audio : { sampleRateHz: 0, channels: [] }
  const changed = writeWav({ ...audio, channels: [audio.channels[0].map((x) => x * 0.25)] }, { bits: 24 })
  await importFiles(
    page,
    [{ name: 'bollard quieter.wav', mimeType: 'audio/wav', buffer: Buffer.from(changed) }],
    'Take its changed version back',
  )
  await expect(page.getByText('“bollard” has its changed version. 2 clips on pads now read it.')).toBeVisible()
  await expect.poll(async () => (await storedSource(page, 'bollard')).info.name).toBe('bollard quieter.wav')
  await page.getByRole('button', { name: 'Close' }).last().click()
  await page.getByRole('button', { name: 'Undo in the list of sounds' }).click()
  await expect.poll(async () => (await storedSource(page, 'bollard')).info.name).toBe('bollard.wav')
  await saved(page)
})
