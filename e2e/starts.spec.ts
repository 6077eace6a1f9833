import { expect, test } from '@playwright/test'

import { chooseKit, keptKit, openOwnDemo, pad, saved } from './helpers'

test('a kit begins like another one, takes a pad of it with its sounds and its groove by names, and a pad begins with a start', async ({
  page,
}) => {
  const name = await openOwnDemo(page, 'board')
  const from = await keptKit(page)

  // Its pads, ties and grooves, and none of its sounds.
  await page.goto('/')
  await page.getByRole('button', { name: 'Like another kit, without its sounds' }).click()
  await chooseKit(page.getByRole('dialog'), name)
  await page.getByRole('button', { name: `Begin like ${name}` }).click()
  await expect(page.getByRole('heading', { name: `${name} anew` })).toBeVisible()
  const like = await keptKit(page)
  expect(like.id).not.toBe(from.id)
  expect(like.pads.map((one) => one.own.name)).toEqual(from.pads.map((one) => one.own.name))
  expect(like.pads.flatMap((one) => one.bands.flatMap(({ turns }) => turns.flatMap(({ clips }) => Object.keys(clips))))).toEqual([])
  expect(like.grooves.map((groove) => groove.name)).toEqual(from.grooves.map((groove) => groove.name))

  // A pad of the other kit, heard first, brought with its sounds.
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'A pad of another kit' }).click()
  await chooseKit(page.getByRole('dialog'), name)
  await page.getByRole('radiogroup', { name: `Pads of ${name}` }).getByRole('radio', { name: /^Tarp slap/ }).click() // prettier-ignore
  await page.getByRole('button', { name: 'Bring Tarp slap here' }).click()
  await expect(page.getByText(`Tarp slap of ${name} is here now`, { exact: false })).toBeVisible()
  const brought = await keptKit(page)
  const slap = from.pads.find((one) => one.own.name === 'Tarp slap')!
  const here = brought.pads.at(-1)!
  const hashes = ({ bands }: typeof slap) =>
    bands.flatMap(({ turns }) =>
      turns.flatMap(({ clips }) => Object.values(clips).map((clip) => (clip === 'intendedSilence' ? clip : clip.audio))),
    )
  expect(hashes(here)).toEqual(hashes(slap))
  await pad(page, 'Tarp slap').click()

  // Its groove, by the names of its pads.
  await page.getByRole('link', { name: 'Groove' }).click()
  const sheet = async () => {
    await page.getByRole('button', { name: from.grooves[0]!.name }).first().click()
    await page.getByRole('button', { name: 'Bring a groove' }).click()
  }
  await sheet()
  const dialog = page.getByRole('dialog', { name: 'A groove of another kit' })
  await chooseKit(dialog, name)
  await dialog.getByRole('radio', { name: from.grooves[0]!.name, exact: true }).click()
  await expect(dialog.getByText('Every string has a pad here that answers it.')).toBeVisible()
  await dialog.getByRole('button', { name: 'Hear it on this kit' }).click()
  await expect(dialog.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await dialog.getByRole('button', { name: 'Bring it here' }).click()
  await expect(page.getByText(/is a groove of this kit now\.$/)).toBeVisible()
  const grooved = await keptKit(page)
  const strikes = (groove: (typeof grooved.grooves)[number]) => groove.strings.map(({ beads }) => beads.map(({ step, velocity }) => [step, velocity])) // prettier-ignore
  expect(grooved.grooves).toHaveLength(from.grooves.length + 1)
  expect(strikes(grooved.grooves.at(-1)!)).toEqual(strikes(from.grooves[0]!))

  // A pad's settings, begun like a finished pad of the kit, heard before they are taken, and one step to undo.
  await page.getByRole('link', { name: 'Board' }).click()
  await pad(page, 'Hull thump').click()
  await page.getByRole('radio', { name: 'Level', exact: true }).click()
  await page.getByRole('button', { name: 'Begin with a start' }).click()
  await page.getByRole('radiogroup', { name: 'Like a pad of this kit' }).getByRole('radio', { name: /^Tarp slap/ }).last().click() // prettier-ignore
  await page.getByRole('button', { name: 'Hear it with the start' }).click()
  await page.getByRole('button', { name: 'Begin with Tarp slap' }).click()
  const begun = (await keptKit(page)).pads[0]!
  const { name: kept, ...settings } = begun.own
  expect(kept).toBe('Hull thump')
  expect(settings).not.toEqual((({ name: _, ...rest }) => rest)(grooved.pads[0]!.own))
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await keptKit(page)).pads[0]!.own).toEqual(grooved.pads[0]!.own)
  await saved(page)
})
