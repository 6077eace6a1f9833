import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import type { Kit } from '@heliaster/core/kit'

import { keptKit, newKit, openDemo, pad, wavWithStrikes } from './helpers'

/** Eighteen strikes of a plank, seen by two microphones, of three levels and three takes; one is missing, one is strange. */
function plankFiles() {
  const files: { name: string; mimeType: string; buffer: Buffer }[] = []
  for (const [m, microphone] of ['close', 'far'].entries())
    for (const level of [1, 2, 3])
      for (const take of [1, 2, 3]) {
        if (microphone === 'far' && level === 3 && take === 2) continue
        const at = 0.03 + 0.004 * m + 0.0001 * (3 * level + take)
        files.push({ name: `plank_${microphone}_v${level}_rr${take}.wav`, mimeType: 'audio/wav', buffer: wavWithStrikes(0.4, [at]) })
      }
  return [...files, { name: 'plank_close_v1.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(0.4, [0.05]) }]
}

/** Soft strikes alone, where it is not the cells that are looked at. */
const softFiles = () => plankFiles().filter(({ name }) => name.includes('_v1_'))

async function putPlank(page: Page, files = plankFiles()): Promise<void> {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles(files)
  await page.getByRole('button', { name: 'Put on pads' }).click()
}

test('files find their places by name in three taps; what is missing or strange is said before anything moves', async ({ page }) => {
  await putPlank(page)
  await expect(page.getByText(/^1 of 18 cells has no file: far\./)).toBeVisible()
  await expect(page.getByText('plank_close_v1: Its name does not say which take it is', { exact: false })).toBeVisible()
  await expect(page.getByText('2 microphones: close, far; 3 bands; 3 turns each')).toBeVisible()
  await page.getByRole('button', { name: 'Put 17 of 18 there' }).click()
  await expect(page.getByText('17 files are on Plank.')).toBeVisible()
  await expect(pad(page, 'Plank')).toBeVisible()
  const kit = await keptKit(page)
  expect(kit.buses.map((bus) => bus.name)).toEqual(['close', 'far'])
  expect(kit.pads[0].rays.map((ray) => [ray.name, ray.microphone, ray.bus])).toEqual([
    ['Close', true, kit.buses[0].id],
    ['Far', true, kit.buses[1].id],
  ])
  expect(kit.pads[0].bands.map((band) => band.turns.map((turn) => Object.keys(turn.clips).length))).toEqual([[2, 2, 2], [2, 2, 2], [2, 1, 2]]) // prettier-ignore
  await page.keyboard.press('Control+z')
  await expect(page.getByText('No pads yet')).toBeVisible()
  expect((await keptKit(page)).buses).toEqual([])
})

test('cells are swapped by a drag, bands merged, and rays lined up, each one step back', async ({ page }) => {
  await putPlank(page)
  await page.getByRole('button', { name: 'Put 17 of 18 there' }).click()
  const cell = (band: number, turn: number) => page.getByRole('button', { name: `Hear band ${band}, turn ${turn}`, exact: true })
  const turnIds = async () => (await keptKit(page)).pads[0].bands.map((band) => band.turns.map((turn) => turn.id))
  await expect(cell(1, 1)).toBeVisible()
  const before = await turnIds()
  await cell(1, 1).dragTo(cell(2, 3), { steps: 5 })
  await expect.poll(turnIds).toEqual([[before[1][2], before[0][1], before[0][2]], [before[1][0], before[1][1], before[0][0]], before[2]]) // prettier-ignore
  await page.keyboard.press('Control+z')
  await expect.poll(turnIds).toEqual(before)
  await cell(1, 1).focus()
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(cell(2, 2)).toBeFocused()
  await expect.poll(async () => (await turnIds())[1]).toEqual([before[1][1], before[1][0], before[1][2]])
  await page.keyboard.press('Control+z')
  await expect.poll(turnIds).toEqual(before)
  await cell(3, 1).click()
  await page.getByRole('slider', { name: 'Band 3 begins at velocity' }).press('ArrowRight')
  await expect.poll(async () => (await keptKit(page)).pads[0].bands[2].fromVelocity).toBe(87)
  await page.getByRole('radio', { name: '2 rays' }).click()
  await page.getByRole('button', { name: 'Measure how the rays line up' }).click()
  await expect(page.getByText(/^Far arrives 4\.\d\d ms after Close/)).toBeVisible()
  await page.getByRole('button', { name: 'Line them up' }).click()
  await expect
    .poll(async () => (await keptKit(page)).pads[0].rays.map((ray) => Math.round((ray.values.delaySeconds ?? 0) * 1e3)))
    .toEqual([4, 0])
  await page.getByRole('button', { name: 'Only Far', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Far sounds alone' })).toHaveAttribute('aria-pressed', 'true')
  expect((await keptKit(page)).pads[0].rays.map((ray) => ray.mute)).toEqual([false, false]) // alone now, not in the kit
})

test('several pads are edited as one, a mixed value is said to be, and settings are taken from another', async ({ page }) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).click()
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Add pad' }).click()
  await page.getByRole('radio', { name: 'Level', exact: true }).click()
  await page.getByRole('slider', { name: 'Pan' }).press('PageUp')
  await pad(page, 'Pad 1').click()
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Pad 1')
  await expect(page.getByRole('radio', { name: 'Level', exact: true })).toBeChecked() // what is shown of a pad stays from pad to pad
  await page.getByRole('button', { name: 'Several pads' }).click()
  await page.getByRole('radio', { name: 'All', exact: true }).first().click()
  await expect(page.getByText('Pan (mixed)')).toBeVisible()
  await page.getByRole('dialog', { name: 'Edit 3 pads' }).getByRole('slider', { name: 'Level' }).press('PageDown')
  await page.getByRole('checkbox', { name: 'Pad 3' }).click()
  await page.getByRole('radiogroup', { name: 'Take settings from' }).getByText('Pad 3').click()
  await page.getByRole('button', { name: 'Give these 2 the settings of Pad 3' }).click()
  const { pads } = await keptKit(page)
  expect(pads.map(({ own }) => [own.values?.gainDb, own.values?.pan])).toEqual([[-1, 0.1], [-1, 0.1], [-1, 0.1]]) // prettier-ignore
})

test('a file shown in its cell teaches what names mean; one cell, one ray and two pads get other clips', async ({ page }) => {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  const files = [1, 2, 3].flatMap((take) => [1, 2].map((level) => ({ take, level })))
  await chooser.setFiles(
    files.map(({ take, level }) => ({
      name: `gunwale ${take} ${level}.wav`,
      mimeType: 'audio/wav',
      buffer: wavWithStrikes(0.35, [0.02 + 0.0007 * (10 * take + level)]),
    })),
  )
  await page.getByRole('button', { name: 'Put on pads' }).click()
  await page.getByRole('button', { name: 'Another name' }).click()
  await page.getByRole('textbox', { name: 'Band of this file' }).fill('2')
  await page.getByRole('textbox', { name: 'Band of this file' }).press('Enter')
  await expect(page.getByText('2 bands; 3 turns each')).toBeVisible()
  await page.getByRole('button', { name: 'Put all 6 there' }).click()
  const names = async (place = 0) => {
    const { pads, audio } = await keptKit(page)
    const nameOf = (clip: unknown) => audio[(clip as { audio: keyof typeof audio }).audio].name.replace('.wav', '')
    return pads[place].bands.map((band) => band.turns.map((turn) => Object.values(turn.clips).map(nameOf).join()))
  }
  const placed = [['gunwale 1 1', 'gunwale 2 1', 'gunwale 3 1'], ['gunwale 1 2', 'gunwale 2 2', 'gunwale 3 2']] // prettier-ignore
  await expect.poll(names).toEqual(placed)

  await page.getByRole('button', { name: 'Hear band 1, turn 1', exact: true }).click()
  await page.getByRole('button', { name: 'Another file' }).click()
  await page.getByRole('textbox', { name: 'Find by name' }).last().fill('gunwale 3 1')
  await page.getByRole('checkbox', { name: 'gunwale 3 1' }).click()
  await page.getByRole('button', { name: 'Put it into the cell' }).click()
  await expect.poll(async () => (await names())[0][0]).toBe('gunwale 3 1')
  await expect(page.getByText('5 more are named like it', { exact: false })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect.poll(names).toEqual(placed)

  await page.getByRole('button', { name: 'Add pad' }).click()
  await page.getByRole('button', { name: 'Several pads' }).click()
  await page.getByRole('radio', { name: 'All', exact: true }).click()
  await page.getByRole('button', { name: 'Swap their clips' }).click()
  await expect.poll(() => names(1)).toEqual(placed)
  expect((await keptKit(page)).pads.map(({ own, notes }) => [own.name, ...notes])).toEqual([['Gunwale', 36], ['Pad 2', 37]]) // prettier-ignore
})

test('a ray goes round by itself and comes back', async ({ page }) => {
  await putPlank(page)
  await page.getByRole('button', { name: 'Put 17 of 18 there' }).click()
  await page.getByRole('radio', { name: '2 rays' }).click()
  const before = (await keptKit(page)).pads[0]
  await page.getByRole('button', { name: 'Settings of Far' }).click()
  await page.getByRole('switch', { name: 'Bands and turns of its own' }).click()
  const sourceOf = (of: Kit, ray: number) => of.pads[0].rays[ray].source as { bands?: { turns: unknown[] }[] }
  const ownTurns = async () => sourceOf(await keptKit(page), 1).bands?.map(({ turns }) => turns.length)
  await expect.poll(ownTurns).toEqual([3, 3, 2])
  await page.getByRole('radio', { name: 'Shuffle' }).click()
  await page.getByRole('radio', { name: 'Cells' }).click()
  await page.getByRole('radio', { name: 'Far', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Hear band 3, turn 3', exact: true })).toHaveCount(0)
  for (let step = 0; step < 2; step++) await page.keyboard.press('Control+z')
  await expect.poll(async () => (await keptKit(page)).pads[0]).toEqual(before)
})

test('a bus of one microphone is renamed and removed', async ({ page }) => {
  await putPlank(page, softFiles())
  await page.getByRole('button', { name: 'Put all 6 there' }).click()
  await expect(pad(page, 'Plank')).toBeVisible()
  await page.getByRole('link', { name: 'Mix', exact: true }).click()
  await page.getByRole('button', { name: /^Settings of far/ }).click()
  await page.getByRole('textbox', { name: 'Name of the bus' }).fill('Quay')
  await page.getByRole('textbox', { name: 'Name of the bus' }).press('Enter')
  await expect(page.getByRole('button', { name: 'Settings of Quay' })).toBeVisible()
  await page.getByRole('button', { name: 'Remove Quay' }).click()
  await page.getByRole('button', { name: 'Remove it all the same' }).click()
  await expect(page.getByRole('button', { name: 'Settings of Quay' })).toHaveCount(0)
  const { buses, pads } = await keptKit(page)
  expect([buses.map(({ name }) => name), pads[0].rays.map(({ bus }) => bus)]).toEqual([['close'], [buses[0].id, undefined]])
})

test('a file dropped on a cell that has one asks, and becomes one more turn', async ({ page }) => {
  await putPlank(
    page,
    plankFiles().filter(({ name }) => /_v[12]_/.test(name)),
  )
  await page.getByRole('button', { name: 'Put all 12 there' }).click()
  await page.getByRole('radio', { name: '2 rays' }).click()
  await page.getByRole('radio', { name: 'Cells' }).click()

  const bytes = [...wavWithStrikes(0.3, [0.011])]
  const dataTransfer = await page.evaluateHandle((given) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([new Uint8Array(given)], 'plank dropped.wav', { type: 'audio/wav' }))
    return transfer
  }, bytes)
  await page.getByRole('radio', { name: 'Close', exact: true }).click()
  const cell = page.getByRole('button', { name: 'Hear band 1, turn 2', exact: true })
  const box = (await cell.boundingBox())!
  await cell.dispatchEvent('drop', { dataTransfer, clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 })
  await expect(page.getByText('“plank dropped” was dropped on a cell that has one.')).toBeVisible()
  await page.getByRole('button', { name: 'Add it as one more turn of the band' }).click()
  await expect.poll(async () => (await keptKit(page)).pads[0].bands.map(({ turns }) => turns.length)).toEqual([4, 3])
})

test('ties are drawn from pad to pad by mouse and by keys, set in words, and told of as they act', async ({ page }) => {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).click()
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Add pad' }).click()
  await page.getByRole('button', { name: 'Ties', exact: true }).click()
  const from = (name: string, word: string) => page.getByRole('button', { name: `Tie from ${name}: ${word}`, exact: true })
  await from('Pad 1', 'silences').dragTo(from('Pad 2', 'silences'), { steps: 5 })
  await expect(page.getByRole('button', { name: 'A strike on Pad 1 silences Pad 2 within 8 ms.' })).toBeVisible()
  await page.getByRole('radio', { name: 'Strikes along' }).click()
  await from('Pad 2', 'strikes along').focus()
  await page.keyboard.press('Space')
  await expect(page.getByText('Over no other place.')).toBeAttached()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('Over Pad 3.')).toBeAttached()
  await page.keyboard.press('Space')
  const along = page.getByRole('button', { name: 'A strike on Pad 2 strikes Pad 3 along; it is not passed on.' })
  await along.click()
  await page.getByRole('slider', { name: 'Delay of Pad 3' }).press('ArrowRight')
  await page.getByRole('switch', { name: 'They strike on' }).click()
  const [one, two, three] = (await keptKit(page)).pads
  await expect
    .poll(async () => (await keptKit(page)).ties)
    .toMatchObject([
      { kind: 'choke', from: one.id, to: [two.id] },
      { kind: 'alsoStrike', from: two.id, to: [{ pad: three.id, delaySeconds: 0.0001 }], passOn: true },
    ])
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Add pad' })).toBeVisible()
  await pad(page, 'Pad 2').click()
  await page.getByRole('button', { name: 'Ties', exact: true }).click()
  await page.getByRole('button', { name: /^Why did that sound/ }).click()
  await expect(page.getByText(/^Pad 3 was struck along with Pad 2 at \d+, and nothing of it sounds: nothing is on it\.$/)).toBeVisible()
})

test('a loop lies in parts on pads of its own, and its borders are drawn', async ({ page }) => {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles({ name: 'mooring loop.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(2, [0.01, 0.51, 1.01, 1.51]) })
  await page.getByRole('button', { name: 'More for mooring loop' }).first().click()
  await page.getByRole('radio', { name: '4', exact: true }).click()
  await page.getByRole('button', { name: 'Lay 4 parts on new pads' }).click()
  await pad(page, 'mooring loop 3').click()
  await page.getByRole('button', { name: 'Ties', exact: true }).click()
  await page.getByRole('button', { name: /^One recording lies in 4 parts on 4 pads/ }).click()
  await page.getByRole('slider', { name: 'Border behind part 2' }).press('Shift+ArrowRight')
  const parts = async () => {
    const [tie] = (await keptKit(page)).ties
    return tie.kind === 'parts' ? tie.parts.map(({ startFrame, endFrame }) => [startFrame, endFrame]) : []
  }
  await expect.poll(parts).toEqual([[undefined, undefined], [undefined, 48480], [48480, undefined], [undefined, undefined]]) // prettier-ignore
  await page.getByRole('button', { name: 'Done' }).click()
  await page.keyboard.press('Control+z')
  await expect.poll(parts).toEqual(Array.from({ length: 4 }, () => [undefined, undefined]))
})

test('a walk through a kit sounds each cell as it is reached, goes on where it was left, and ends in what is to be recorded anew', async ({
  page,
}) => {
  await openDemo(page, 'board')
  const walk = async () => {
    await page.getByRole('button', { name: 'More', exact: true }).click()
    await page.getByRole('button', { name: 'Walk through every cell' }).click()
  }
  await walk()
  await expect(page.getByText(/^Cell 1 of \d+$/)).toBeVisible()
  await expect(page.getByText('band 1 of 5 (velocity 1 to 25), turn 1 of 6')).toBeVisible()
  await page.keyboard.press('r')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Cell 3 of \d+$/)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.reload()
  await expect(pad(page, 'Hull thump')).toBeVisible()
  await walk()
  await expect(page.getByText(/^Cell 3 of \d+$/)).toBeVisible()
  await page.getByRole('button', { name: 'To the list' }).click()
  await page.getByRole('button', { name: 'Record Hull thump, band 1 of 5 (velocity 1 to 25), turn 1 of 6' }).click()
  await expect(
    page
      .getByRole('heading', { name: /^Record onto / })
      .or(page.getByText(/^Record onto /))
      .first(),
  ).toBeVisible()
})

test('files named by spot and opening become one drum: one face, a table with its holes, a controller that opens it', async ({ page }) => {
  await newKit(page)
  const names = ['bow closed', 'bow open', 'edge closed', 'cup open']
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles(
    names.map((name, i) => ({ name: `hatch ${name}.wav`, mimeType: 'audio/wav', buffer: wavWithStrikes(0.42, [0.02 + 0.003 * i]) })),
  )
  await page.getByRole('button', { name: 'Put on pads' }).click()
  await page.getByRole('radio', { name: 'Own pads' }).click()
  await expect(page.getByText('3 spots and 2 openings. 2 are missing: cup closed, edge open.')).toBeVisible()
  await page.getByRole('switch', { name: 'Hatch as one drum' }).click()
  await page.getByRole('button', { name: 'Put all 4 there' }).click()
  const face = page.getByRole('group', { name: 'Hatch, 3 spots, 2 openings' })
  await expect(face.getByRole('button')).toHaveCount(3)
  await face.getByRole('button').first().click()
  await page.getByRole('radio', { name: 'Drum', exact: true }).click()
  const cup = page.getByRole('button', { name: 'Cup, Closed: Cup closed, empty, sounds as Cup open' })
  await expect(cup).toBeVisible()
  await page.getByRole('textbox', { name: 'Open from' }).fill('90')
  await page.getByRole('textbox', { name: 'Open from' }).press('Enter')
  await page.getByRole('button', { name: 'Edge, Open: Edge open, empty, sounds as Edge closed' }).click()
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Hatch edge open')
  const { ties, pads } = await keptKit(page)
  expect(ties.map((tie) => (tie.kind === 'openings' ? tie.steps.map(({ from }) => from) : tie.kind)).sort()).toEqual([[0, 90], [0, 90], [0, 90], 'spots']) // prettier-ignore
  expect(pads).toHaveLength(6)
})
