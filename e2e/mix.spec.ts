import { readWav } from '@heliaster/core/audio'
import type { Insert } from '@heliaster/core/kit'
import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import { readFile } from 'node:fs/promises'
import { unzipSync } from 'fflate'

import { fills, keptKit, openOwnDemo, pad, saved, standing, storedBytes, takenBack } from './helpers'

const press = (page: Page, name: string | RegExp) =>
  page
    .getByRole('button', { name, exact: typeof name === 'string' })
    .first()
    .click()
/** How far the lane of something is filled now, px. */
const filled = (page: Page, name: string) => page.getByRole('slider', { name: `Level of ${name}`, exact: true }).getByTestId('level').evaluate((bar) => bar.getBoundingClientRect().width) // prettier-ignore
/** A strike that is over sounds on in a bus: both lanes are looked at with each picture, from before it is struck. */
async function ringsOn(page: Page, name: string, bus: string): Promise<void> {
  const watched = page.evaluate(
    ([one, other]) =>
      new Promise<boolean>((resolve) => {
        const widthOf = (of: string) => document.querySelector(`[role="slider"][aria-label="Level of ${of}"] [data-testid="level"]`)!.getBoundingClientRect().width // prettier-ignore
        let isHeard = false
        let looks = 0
        const look = () => {
          const [own, ofBus] = [widthOf(one), widthOf(other)]
          isHeard ||= own > 10
          const rings = isHeard && own === 0 && ofBus > 10
          if (rings || looks++ > 2000) resolve(rings)
          else requestAnimationFrame(look)
        }
        look()
      }),
    [name, bus] as const,
  )
  await pad(page, name).click()
  expect(await watched).toBe(true)
}

test('a return with a hall is made, a pad sends to it and is heard in it long after its strike; solo and mute; undone', async ({
  page,
}) => {
  await openOwnDemo(page, 'mix')
  const before = await keptKit(page)
  await press(page, 'Add a return')
  await press(page, 'Settings of Return 1')
  await press(page, 'Put an effect in')
  await page.getByRole('dialog').getByRole('button', { name: 'Reverb', exact: true }).click()
  await page.getByRole('radio', { name: 'Locker' }).click()
  await press(page, 'Settings of Tarp slap')
  await press(page, 'Return 1')
  await page.getByRole('slider', { name: 'Sent to Return 1' }).press('End')
  await press(page, 'Settings of Return 1')
  await expect(page.getByText('Sent here from Tarp slap.')).toBeVisible()
  await press(page, 'Settings of Reverb')
  await page.getByRole('radio', { name: 'Sea cave' }).click()
  await expect.poll(async () => (await keptKit(page)).buses[0]!.inserts[0]).toMatchObject({ kind: 'reverb', choices: { kind: 'hall' }, values: { mix: 1, decaySeconds: 3.2 } }) // prettier-ignore
  await ringsOn(page, 'Tarp slap', 'Return 1')
  await press(page, 'Only Return 1')
  await pad(page, 'Oar, low').click()
  await expect.poll(() => filled(page, 'The whole kit')).toBe(0)
  await fills(page, 'The whole kit', () => pad(page, 'Tarp slap').click())
  await expect(page.getByText('One bus sounds alone')).toBeVisible()
  await press(page, 'Let all sound')
  await press(page, 'Mute Return 1')
  await expect(page.getByRole('button', { name: 'Return 1 is muted' })).toBeVisible()
  const changed = await keptKit(page)
  expect(changed.buses[0]).toMatchObject({ mute: true, isReturn: true })
  for (let i = 0; i < 12; i++) if (await page.getByRole('button', { name: /^Undo/ }).first().isEnabled()) await press(page, /^Undo/)
  await saved(page)
  const { buses, pads } = await keptKit(page)
  expect([buses, pads]).toEqual([before.buses, before.pads])
})

test('a compressor on the whole lowers what is loud, as its picture says; the meters read; a level is dragged by the mouse', async ({
  page,
}) => {
  await openOwnDemo(page, 'mix')
  await press(page, 'Settings of The whole kit')
  await press(page, /effect/)
  await page.getByRole('dialog').getByRole('button', { name: 'Compressor', exact: true }).click()
  await page.getByRole('radio', { name: 'Flat as the sea' }).click()
  await expect(page.getByText('takes nothing away')).toBeVisible()
  await press(page, 'Play')
  await expect(page.getByText(/takes away \d+[.]\d dB/)).toBeVisible()
  await expect(page.getByRole('button', { name: /at most -?\d+[.]\d dB true peak/i })).toBeVisible()
  await press(page, 'Stop')
  const lane = page.getByRole('slider', { name: 'Level of Oar, low', exact: true })
  const valueOf = async () => Number(await lane.getAttribute('aria-valuenow'))
  const stood = await valueOf()
  await lane.hover() // under a hand nothing changes places
  const box = await standing(lane)
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 12)
  await page.mouse.down()
  expect(await valueOf()).toBe(stood) // it does not jump to where it is touched
  await page.mouse.move(box.x + box.width / 2 - 40, box.y + box.height - 12, { steps: 5 })
  await page.mouse.up()
  await expect.poll(valueOf).toBeCloseTo(stood - 6, 0)
  await saved(page)
})

test('balance is taken as one step; stems leave as files that lie together', async ({ page }) => {
  await openOwnDemo(page, 'mix')
  const before = await keptKit(page)
  await press(page, 'Balance')
  await press(page, /^Take all \d/)
  await expect(page.getByText('Taken').first()).toBeVisible()
  await page.keyboard.press('Escape')
  const levels = async () => (await keptKit(page)).pads.map(({ own }) => own.values?.gainDb)
  await expect.poll(levels).not.toEqual(before.pads.map(({ own }) => own.values?.gainDb))
  await press(page, /^Undo/)
  await expect.poll(levels).toEqual(before.pads.map(({ own }) => own.values?.gainDb))
  await press(page, 'Who hides whom')
  await expect(
    page
      .getByRole('dialog')
      .getByText(/hides|Nothing hides/)
      .nth(1),
  ).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Ship', exact: true }).click()
  await page.getByRole('radio', { name: 'Stems' }).click()
  await page.getByRole('slider', { name: 'Laps' }).press('Home')
  await press(page, 'Make the stems')
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 100_000 }),
    page.getByRole('button', { name: /^Save .* zip$/ }).click({ timeout: 100_000 }),
  ])
  const files = unzipSync(new Uint8Array(await readFile(await download.path())))
  const wavs = Object.entries(files).filter(([path]) => path.endsWith('.wav'))
  expect(wavs.map(([path]) => path)).toEqual(
    expect.arrayContaining(['The mix.wav', 'Hull thump.wav', 'Tarp slap.wav', 'Hatch tick.wav', 'Bilge hiss.wav']),
  )
  expect(new Set(wavs.map(([, { length }]) => length)).size).toBe(1)
  await saved(page)
})

/** Lets the page believe that its output has four channels, and keeps the highest sample of each since it was asked last. */
async function withFourChannels(page: Page): Promise<() => Promise<number[]>> {
  await page.addInitScript(() => {
    const real = Object.getOwnPropertyDescriptor(BaseAudioContext.prototype, 'destination')!
    const fakes = new WeakMap<object, AudioNode>()
    const heard = ((window as unknown as { heard: number[] }).heard = [0, 0, 0, 0])
    Object.defineProperty(AudioContext.prototype, 'destination', {
      get(this: AudioContext) {
        const known = fakes.get(this)
        if (known) return known
        const fake = new GainNode(this, { channelCount: 4, channelCountMode: 'explicit', channelInterpretation: 'discrete' })
        Object.defineProperty(fake, 'maxChannelCount', { value: 4 })
        const parts = new ChannelSplitterNode(this, { numberOfOutputs: 4 })
        fake.connect(parts)
        const looks = heard.map((_, i) => {
          const look = new AnalyserNode(this, { fftSize: 4096 })
          parts.connect(look, i)
          look.connect(real.get!.call(this) as AudioNode)
          return look
        })
        const samples = new Float32Array(4096)
        const listen = () => {
          for (const [i, look] of looks.entries()) {
            look.getFloatTimeDomainData(samples)
            for (const sample of samples) heard[i] = Math.max(heard[i]!, Math.abs(sample))
          }
          requestAnimationFrame(listen)
        }
        requestAnimationFrame(listen)
        fakes.set(this, fake)
        return fake
      },
    })
  })
  return () => page.evaluate(() => (window as unknown as { heard: number[] }).heard.splice(0, 4, 0, 0, 0, 0))
}

test('a bus leaves by the second pair of an output with four channels, and comes back to the mix', async ({ page }) => {
  const heard = await withFourChannels(page)
  await openOwnDemo(page, 'mix')
  await press(page, 'Add a bus')
  await press(page, 'Settings of Tarp slap')
  await page.getByRole('radio', { name: 'Bus 1', exact: true }).click()
  await press(page, 'Outputs')
  await expect(page.getByText('4 channels')).toBeVisible()
  await page.getByRole('dialog').getByRole('radio', { name: 'Outputs 3 and 4' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  const strikeUntil = async (isRight: (peaks: number[]) => boolean) => {
    await expect
      .poll(async () => {
        await heard()
        await pad(page, 'Tarp slap').click()
        await expect.poll(async () => Math.max(...(await page.evaluate(() => (window as unknown as { heard: number[] }).heard)))).toBeGreaterThan(0.01) // prettier-ignore
        return isRight(await heard())
      })
      .toBe(true)
  }
  await strikeUntil(([left, right, third, fourth]) => third! > 0.01 && fourth! > 0.01 && left! < 1e-4 && right! < 1e-4)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Settings of Bus 1' })).toBeVisible()
  await strikeUntil(([left, , third]) => third! > 0.01 && left! < 1e-4)
  await press(page, 'Settings of Bus 1')
  await page.getByRole('radio', { name: 'With the mix' }).click()
  await strikeUntil(([left, , third]) => left! > 0.01 && third! < 1e-4)
})

test('a pad that goes on sounds as long as it is held, led by the finger, and ends when it is let go', async ({ page }) => {
  await openOwnDemo(page, 'board')
  await pad(page, 'Keel drop').click()
  await page.getByRole('radio', { name: 'Playing', exact: true }).click()
  await press(page, 'Let it go on while held')
  await saved(page)
  expect((await keptKit(page)).pads.find(({ own }) => own.name === 'Keel drop')!.own).toMatchObject({ mode: 'hold', values: { rollSeconds: 0.04 } }) // prettier-ignore
  await page.goto(page.url().replace('/board', '/mix'))
  const face = pad(page, 'Keel drop')
  await face.scrollIntoViewIfNeeded()
  await expect(page.getByRole('slider', { name: 'Level of Keel drop', exact: true })).toBeVisible()
  const box = (await face.boundingBox())!
  const width = () => page.getByRole('slider', { name: 'Level of Keel drop', exact: true }).getByTestId('level').evaluate((bar) => bar.getBoundingClientRect().width) // prettier-ignore
  // Its clip is over in a fraction of a second: it is seen to sound in many more pictures than that.
  const seen = page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        let [sounding, looks] = [0, 0]
        const look = () => {
          const bar = document.querySelector('[role="slider"][aria-label="Level of Keel drop"] [data-testid="level"]')!
          if (bar.getBoundingClientRect().width > 10) sounding++
          if (sounding >= 240 || looks++ > 2400) resolve(sounding)
          else requestAnimationFrame(look)
        }
        look()
      }),
  )
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.4)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.1, box.y + box.height * 0.1, { steps: 20 })
  expect(await seen).toBeGreaterThanOrEqual(240)
  await page.mouse.up()
  await expect.poll(width).toBe(0)
})

test('the wheel is let move a filter of the whole kit; what is recorded of the pads is duller where it was turned', async ({
  page,
  context,
}) => {
  const filter = { id: 'insert-sea-fog', kind: 'equaliser', values: { band1Hz: 18000 }, choices: { band1Kind: 'lowPass' }, bypass: false } as unknown as Insert // prettier-ignore
  await openOwnDemo(page, 'mix', (kit) => ({ ...kit, inserts: [filter] }))
  await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0)
  await page.getByRole('button', { name: 'Settings of The whole kit' }).press('Enter')
  await page.getByRole('button', { name: 'Let something move it' }).press('Enter')
  await page.getByRole('radio', { name: 'Band 1 frequency' }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).press('Enter')
  await page.getByRole('slider', { name: 'The wheel moves band 1 frequency' }).press('Home')
  expect((await keptKit(page)).responses).toMatchObject([{ from: { kind: 'wheel' }, to: [{ scope: 'insert', id: 'insert-sea-fog', param: 'band1Hz' }], amount: -7200 }]) // prettier-ignore

  const controller = await context.newPage()
  await controller.goto('/practice')
  await page.bringToFront()
  await page.getByRole('link', { name: 'Gather' }).click()
  await page.getByText('The pads', { exact: true }).click()
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText('Stop and cut')).toBeVisible()
  await page.keyboard.press('c')
  await expect(page.getByText('1 hit', { exact: true })).toBeVisible()
  await controller.getByRole('slider', { name: 'Wheel' }).press('End')
  await page.keyboard.press('c')
  await expect(page.getByText('2 hits', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Stop and cut' }).click()
  const { name, strikes } = await takenBack(page)
  const read = readWav(await storedBytes(page, name))
  if (!read.ok) throw new Error(read.message)
  const [side] = read.file.audio.channels
  const brightness = strikes.map(({ frame }) => {
    const hit = side.subarray(frame, frame + 4000)
    const slopes = hit.reduce((sum, sample, i) => sum + (i > 0 ? (sample - hit[i - 1]!) ** 2 : 0), 0)
    return slopes / hit.reduce((sum, sample) => sum + sample * sample, 1e-12)
  })
  expect(brightness).toHaveLength(2)
  expect(brightness[1]).toBeLessThan(0.2 * brightness[0]!)
  await controller.close()
  await saved(page)
})
