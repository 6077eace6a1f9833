import { timedBeads } from '@heliaster/core/groove'
import type { Bead, Groove, Kit } from '@heliaster/core/kit'
import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import { readFile } from 'node:fs/promises'

import { keptKit, narrow, newKit, openOwnDemo, pad, saved, wavWithStrikes } from './helpers'
import { tableRhythm } from './rhythm-file'

const strings = (page: Page) => page.getByRole('group', { name: /^Beads: / })
const grooveIn = ({ grooves }: Kit): Groove => grooves[0]!
const beadsOn = (kit: Kit, name: string): Bead[] => {
  const padId = kit.pads.find(({ own }) => own.name === name)!.id
  return grooveIn(kit).strings.find((string) => string.padId === padId)?.beads ?? []
}

async function undo(page: Page, times: number): Promise<void> {
  for (let i = 0; i < times; i++) await page.getByRole('button', { name: /^Undo/ }).first().click()
}

test('by keys alone: a bead is made, carries chance, laps and repeats, waits for another, is moved, and undone step by step', async ({
  page,
}) => {
  await openOwnDemo(page, 'groove')
  const before = await keptKit(page)
  await strings(page).focus()
  for (let row = 0; row < 5; row++) await page.keyboard.press('ArrowDown')
  for (let step = 0; step < 2; step++) await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('checkbox', { name: 'Oar, low, step 3' })).not.toBeChecked()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('checkbox', { name: 'Oar, low, step 3, velocity 100' })).toBeChecked()
  const panel = page.getByRole('region', { name: 'Chosen beads' })
  await panel.getByRole('button', { name: 'Chance' }).click()
  await panel.getByRole('slider', { name: 'Chance' }).press('PageDown')
  await panel.getByRole('button', { name: 'Laps' }).click()
  await panel.getByRole('checkbox', { name: '3', exact: true }).click()
  await panel.getByRole('button', { name: 'After or unless' }).click()
  await panel.getByRole('button', { name: 'Choose a bead' }).click()
  await page.getByRole('dialog').getByRole('radio').first().click()
  await panel.getByRole('button', { name: 'Repeats' }).click()
  await panel.getByRole('slider', { name: 'Strikes' }).press('ArrowRight')
  await strings(page).focus()
  await page.keyboard.press('Alt+ArrowRight')
  const [bead] = beadsOn(await keptKit(page), 'Oar, low')
  expect(bead).toMatchObject({ step: 3, velocity: 100, chance: 0.9, when: { laps: { of: 4, in: [1, 3] } }, repeats: { count: 2 } })
  expect(grooveIn(before).strings.flatMap(({ beads }) => beads.map(({ id }) => id))).toContain(bead!.when!.after)
  await undo(page, 6)
  await saved(page)
  expect(grooveIn(await keptKit(page))).toEqual(grooveIn(before))
})

test('many are marked with the mouse, ramped, moved as one; a groove is copied, and the two make a song', async ({ page }) => {
  await openOwnDemo(page, 'groove')
  const before = await keptKit(page)
  const box = (await page.getByTestId('strings').boundingBox())!
  await page.mouse.move(box.x + box.width * 0.18, box.y + 22 + 88 + 4)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.95, box.y + 22 + 88 + 40, { steps: 6 })
  await page.mouse.up()
  const panel = page.getByRole('region', { name: 'Chosen beads' })
  await expect(panel.getByText(/^[4-7] beads of Hatch tick$/)).toBeVisible()
  await panel.getByRole('button', { name: 'Ramp' }).click()
  const ramp = beadsOn(await keptKit(page), 'Hatch tick').map(({ velocity }) => velocity).slice(-4) // prettier-ignore
  expect(ramp).toEqual([...ramp].sort((a, b) => a - b))
  expect(ramp[3]! - ramp[0]!).toBeGreaterThan(20)
  await page.getByRole('button', { name: 'Slack water' }).click()
  const sheet = page.getByRole('dialog', { name: 'Grooves' })
  await sheet.getByRole('button', { name: 'Add “Slack water”' }).click()
  await sheet.getByRole('button', { name: 'Copy' }).click()
  await sheet.getByRole('button', { name: 'Add “Slack water 2”' }).click()
  await sheet.getByRole('switch', { name: 'Play the song' }).click()
  await sheet.getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Song, Slack water 2' })).toBeVisible()
  const kit = await keptKit(page)
  expect(kit.song.map(({ groove }) => kit.grooves.find(({ id }) => id === groove)!.name)).toEqual(['Slack water', 'Slack water 2'])
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await undo(page, 4)
  await saved(page)
  const after = await keptKit(page)
  expect([after.song, after.grooves]).toEqual([before.song, before.grooves])
})

test('strikes are recorded from pads while the groove plays, in every place; that it is on is seen, Escape ends it, one undo takes it back', async ({
  page,
}) => {
  await openOwnDemo(page, 'groove')
  const before = await keptKit(page)
  await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0)
  await page.getByRole('button', { name: 'Record from pads' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText('Recording into the groove: strike pads')).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByText('Recording into the groove: 1 strike', { exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Board' }).click()
  await expect(page.getByText('Recording into the groove: 1 strike', { exact: true })).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByText('Recording into the groove: 2 strikes')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByText(/^Recording into the groove/)).toHaveCount(0)
  const kit = await keptKit(page)
  expect(beadsOn(kit, 'Oar, high').length).toBeGreaterThanOrEqual(1)
  await page.getByRole('link', { name: 'Groove' }).click()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await undo(page, 1)
  await saved(page)
  expect(grooveIn(await keptKit(page))).toEqual(grooveIn(before))
})

test('a rhythm drummed on a table becomes pads with its groove in one sending: tempo, things and timing as they were played', async ({
  page,
}) => {
  const { bytes, strikes } = tableRhythm(41)
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles([{ name: 'cabin table.wav', mimeType: 'audio/wav', buffer: bytes }])
  await narrow(page, 'cabin table')
  await page.getByRole('link', { name: 'Groove' }).click()
  await page.getByRole('button', { name: 'From a rhythm of your own' }).click()
  await page.getByRole('radio', { name: 'cabin table' }).click()
  const sheet = page.getByRole('dialog', { name: /^Send \d+ hits to pads$/ })
  await expect(sheet.getByText(/^It goes at 9[67][.]\d+ beats a minute[.]$/)).toBeVisible()
  await expect(sheet.getByText(/^3 things were struck/)).toBeVisible()
  await sheet.getByRole('button', { name: 'Send, and open the groove' }).click()
  await page.waitForURL(/\/groove$/)
  await saved(page)
  const kit = await keptKit(page)
  expect([kit.pads.length, Math.abs(kit.tempoBpm / 97 - 1) < 0.01]).toEqual([3, true])
  const groove = grooveIn(kit)
  const beats = groove.strings.flatMap((string) => timedBeads(groove, string).map(({ beat }) => beat)).sort((a, b) => a - b) // prettier-ignore
  expect(beats).toHaveLength(strikes.length)
  // The same strikes at the same distances from each other, but for where the whole begins.
  const offs = beats.map((beat, i) => (beat * 60) / kit.tempoBpm - strikes[i]!).sort((a, b) => a - b)
  const middle = offs[offs.length >> 1]!
  expect(offs.filter((off) => Math.abs(off - middle) < 0.003).length / offs.length).toBeGreaterThanOrEqual(0.95)
  // Each bead asks for the hit that was struck there.
  const turns = new Map(kit.pads.flatMap(({ bands }) => bands.flatMap(({ turns }) => turns.map(({ id, clips }) => [id as string, Object.values(clips)[0]] as const)))) // prettier-ignore
  const own = groove.strings.flatMap((string) => timedBeads(groove, string).map(({ beat, bead }) => ({ beat, clip: turns.get(bead.turn ?? '') }))) // prettier-ignore
  const starts = own.sort((a, b) => a.beat - b.beat).map(({ clip }) => (typeof clip === 'object' ? clip.startFrame : 0))
  expect(starts).toEqual([...starts].sort((a, b) => a - b))
  expect(new Set(starts).size).toBe(strikes.length)
})

test('the groove goes out as a MIDI file, and comes back as another groove with the same strikes', async ({ page }, info) => {
  await openOwnDemo(page, 'groove')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'MIDI file in or out' }).click()
  const sheet = page.getByRole('dialog', { name: 'MIDI file in or out' })
  const [download] = await Promise.all([page.waitForEvent('download'), sheet.getByRole('button', { name: 'Save “Slack water”' }).click()])
  const path = info.outputPath('tide mill.mid')
  await download.saveAs(path)
  expect((await readFile(path)).subarray(0, 4).toString()).toBe('MThd')
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), sheet.getByRole('button', { name: 'Choose a MIDI file' }).click()])
  await chooser.setFiles(path)
  await sheet.getByRole('button', { name: 'Take “tide mill”' }).click()
  await expect(page.getByRole('button', { name: 'tide mill' })).toBeVisible()
  const kit = await keptKit(page)
  const [from, to] = [kit.grooves[0]!, kit.grooves.find(({ name }) => name === 'tide mill')!]
  const plain = (groove: Groove) => groove.strings.flatMap((string) => timedBeads(groove, string).map(({ beat, velocity }) => `${string.padId} ${beat.toFixed(2)} ${velocity}`)).sort() // prettier-ignore
  expect(plain(to)).toEqual(plain(from))
  await undo(page, 1)
  await saved(page)
})

test('a new groove of the kit moves at one tap, and another ready one is heard before it is taken', async ({ page }) => {
  await openOwnDemo(page, 'groove')
  await expect(pad(page, 'Hull thump')).toBeVisible()
  await page.getByRole('button', { name: 'Slack water' }).click()
  await page.getByRole('dialog', { name: 'Grooves' }).getByRole('button', { name: 'New', exact: true }).click()
  await page.getByRole('dialog', { name: 'Grooves' }).getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'Making way' }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Ready grooves' }).click()
  await page.getByRole('button', { name: 'Hear Slow swell' }).click()
  await expect(page.getByRole('button', { name: 'Stop Slow swell' })).toBeVisible()
  expect((await keptKit(page)).grooves.map(({ name }) => name)).toEqual(['Slack water', 'Groove 1'])
  await page.getByRole('dialog', { name: 'Ready grooves' }).getByRole('button', { name: 'Close', exact: true }).click()
  await undo(page, 2)
  await saved(page)
})

test('a song of one’s own goes beside the groove at its own tempo, which the kit takes, and is never part of the kit', async ({ page }) => {
  await openOwnDemo(page, 'groove')
  const before = await keptKit(page)
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'A song beside it' }).click()
  const strikes = Array.from({ length: 24 }, (_, beat) => 0.25 + 0.6 * beat)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Choose a file' }).click()])
  await chooser.setFiles({ name: 'ebb song.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(15, strikes) })
  const found = page.getByText(/^“ebb song.*” goes at .* beats a minute\.$/)
  await expect(found).toBeVisible()
  expect(Number(/goes at ([\d.]+)/.exec((await found.textContent())!)![1])).toBeCloseTo(100, 0)
  const first = page.getByRole('slider', { name: 'Its first beat' })
  const beatsOff = async () => {
    const off = (Number(await first.getAttribute('aria-valuenow')) - 0.25) / 0.6
    return Math.abs(off - Math.round(off)) * 600
  }
  expect(await beatsOff()).toBeLessThan(15) // ms from a strike
  await page.getByRole('button', { name: 'A beat later' }).click()
  expect(await beatsOff()).toBeLessThan(15)
  await page.getByRole('button', { name: /^The kit takes / }).click()
  await expect(page.getByRole('button', { name: /^The kit takes / })).toBeHidden()
  await page.getByRole('button', { name: 'Close', exact: true }).last().click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  const after = await keptKit(page)
  expect(after.tempoBpm).toBeCloseTo(100, 0)
  expect(after.audio).toEqual(before.audio)
  await page.reload() // it was of this page alone
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'A song beside it' }).click()
  await expect(page.getByRole('button', { name: 'Choose a file' })).toBeVisible()
})

test('the timing of another groove is laid over by a share, and a lap with its draws is set down as plain beads', async ({ page }) => {
  await openOwnDemo(page, 'groove', (kit) => {
    const [groove] = kit.grooves
    const late = { ...groove!, swing: 0.5, id: 'groove-late-shore' as Groove['id'], name: 'Late', strings: groove!.strings.map((string) => ({ ...string, beads: string.beads.map((bead) => ({ ...bead, id: `late-${bead.id}` as Bead['id'], offset: 0.3 })) })) } // prettier-ignore
    const drawn = { ...groove!, swing: 0.5, strings: groove!.strings.map((string) => ({ ...string, beads: string.beads.map((bead) => ({ ...bead, chance: 0.5 })) })) } // prettier-ignore
    return { ...kit, grooves: [drawn, late] }
  })
  await page.getByRole('radiogroup', { name: 'Timing and level of' }).getByRole('radio', { name: 'Late' }).click()
  await page.getByRole('slider', { name: 'Its timing' }).press('End')
  const [felt, late] = (await keptKit(page)).grooves
  expect(felt!.feel).toMatchObject({ grooveId: late!.id, timing: 1 })
  for (const string of felt!.strings) for (const { bead, beat } of timedBeads(felt!, string, late!)) expect(beat * felt!.stepsPerBeat - bead.step).toBeCloseTo(0.3, 6) // prettier-ignore

  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'Set a lap down as plain beads' }).click()
  await expect(page.getByText(/^Lap \d+ is set down as plain beads\.$/)).toBeVisible()
  const down = grooveIn(await keptKit(page))
  const beads = down.strings.flatMap((string) => string.beads)
  const all = felt!.strings.flatMap((string) => string.beads).length
  expect(beads.length).toBeGreaterThan(0)
  expect(beads.length).toBeLessThan(all) // half of them fell out
  expect(beads.filter(({ chance }) => chance !== undefined && chance < 1)).toEqual([])
  await undo(page, 1)
  await expect.poll(async () => grooveIn(await keptKit(page)).strings.flatMap((string) => string.beads).length).toBe(all)
  await saved(page)
})
