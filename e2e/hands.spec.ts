import { expect, test } from '@playwright/test'
import type { Kit } from '@heliaster/core/kit'
import type { Page } from '@playwright/test'

import { findings } from './everyone'
import { keptKit, newKit, openDemo, openOwnDemo, pad, saved } from './helpers'

const part = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click()

/** What the page says it has heard last. */
const heard = (page: Page, words: RegExp) => expect(page.getByText(words).first()).toBeVisible()

test('the practice controller in a window of its own plays the kit that is open, in any place', async ({ page, context }) => {
  await openDemo(page, 'shape')
  const controller = await context.newPage()
  await controller.goto('/practice')
  await controller.getByRole('button', { name: /^Practice pad .*note 36$/ }).click()
  await controller.getByRole('slider', { name: 'Wheel' }).press('End')
  await page.bringToFront()
  await page.getByRole('button', { name: 'Hands: keys, notes and MIDI' }).click()
  await heard(page, /^Heard last: wheel at 127, channel 10, Practice controller\.$/)
  await controller.evaluate(() =>
    (globalThis as unknown as { heliasterPractice: { send(...bytes: number[]): void } }).heliasterPractice.send(0x99, 38, 77),
  )
  await heard(page, /^Heard last: note 38, 77 hard/)
  await controller.close()
})

test('ties answer the practice controller: its pedal opens a hatch and closing silences it, and why is told in words', async ({
  page,
  context,
}) => {
  await openOwnDemo(page, 'board', (kit) => {
    const [hull, slap, hatch, hiss] = kit.pads.map(({ id }) => id)
    const ties = [
      { id: 'tie-practice-opens', kind: 'openings', controller: 4, steps: [{ from: 0, pad: hatch }, { from: 64, pad: hiss }], chokeAt: 10 }, // prettier-ignore
      { id: 'tie-practice-along', kind: 'alsoStrike', from: hull, to: [{ pad: slap, chance: 1, gainDb: 0, delaySeconds: 0 }], passOn: false }, // prettier-ignore
    ] as unknown as Kit['ties']
    return { ...kit, ties }
  })
  await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0)
  const controller = await context.newPage()
  await controller.goto('/practice')
  await expect(controller.getByRole('slider', { name: 'Wheel' })).toBeVisible()
  const send = (...bytes: number[]) =>
    controller.evaluate((sent) => {
      ;(globalThis as unknown as { heliasterPractice: { send(...bytes: number[]): void } }).heliasterPractice.send(...sent)
    }, bytes)
  await send(0xb9, 4, 100)
  await send(0x99, 38, 90) // the hatch, while it is open
  await send(0xb9, 4, 0)
  await send(0x99, 38, 80) // and closed
  await send(0x99, 36, 70)
  await page.bringToFront()
  await page.getByRole('button', { name: 'Ties', exact: true }).click()
  const why = page.getByRole('button', { name: /^Why did that sound/ })
  const panel = page.getByRole('button', { name: /see and set$/ })
  await expect(why.or(panel).first()).toBeVisible()
  if (await panel.isVisible()) await panel.click()
  await why.click()
  await expect(page.getByText(/^Bilge hiss sounded .* at 90, since Hatch tick was struck/)).toBeVisible()
  await expect(page.getByText(/^Hatch tick sounded .* at 80/)).toBeVisible()
  await expect(page.getByText(/^Tarp slap sounded along with Hull thump at 70/)).toBeVisible()
  await expect(page.getByText('Controller 4 closed: Bilge hiss stopped', { exact: false })).toBeVisible()
  await controller.close()
  await saved(page)
})

test('strikes of the computer’s keys teach their curve, and the strike is drawn on it', async ({ page }) => {
  await openDemo(page, 'hands')
  await page.getByRole('radio', { name: 'Computer keys' }).click()
  await page.getByRole('button', { name: 'Teach it' }).click()
  for (const [modifier, words] of [
    ['Alt+', 'softly'],
    ['', 'at middle strength'],
    ['Shift+', 'hard'],
  ] as const)
    for (let i = 0; i < 4; i++) {
      await expect(page.getByText(`Strike ${words}, 4 times: ${i} of 4 heard.`)).toBeVisible()
      await page.keyboard.press(`${modifier}KeyX`)
    }
  await page.keyboard.press('KeyX')
  await expect(page.getByText('The last strike came as 92 and sounded as 80.')).toBeVisible()
  await page.reload() // it is kept on this device
  await page.getByRole('radio', { name: 'Computer keys' }).click()
  await page.keyboard.press('Shift+KeyX')
  await expect(page.getByText('The last strike came as 124 and sounded as 118.')).toBeVisible()
})

test('notes on the screen strike the pads that answer them', async ({ page }) => {
  await openDemo(page, 'hands')
  await part(page, 'Notes')
  await page.getByRole('slider', { name: 'Notes' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/note 36, 65\.4 Hz, strikes Hull thump\./)).toBeVisible()
})

/** A kit of three pads without sounds, at its hands. */
async function threePads(page: Page): Promise<void> {
  await newKit(page)
  await page.getByRole('link', { name: 'Board' }).click()
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Add pad' }).click()
  if (page.viewportSize()!.width < 900) await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'Hands', exact: true }).click()
  await part(page, 'Notes')
}

test('a pad learns its note from the practice controller; usual notes are shown before they are given, and are one step to undo', async ({
  page,
}) => {
  await threePads(page)
  await pad(page, 'Pad 2').click()
  await page.getByRole('button', { name: 'Learn its note' }).click()
  await page.evaluate(() => {
    const channel = new BroadcastChannel('heliaster-practice')
    channel.postMessage([0x90, 99, 80])
    channel.close()
  })
  await expect(page.getByText(/^Pad 2 answers note 99/)).toBeVisible()
  await page.getByRole('button', { name: 'Usual notes for all pads' }).click()
  const sheet = page.getByRole('dialog', { name: 'Usual notes' })
  const lines = sheet.getByRole('listitem')
  await expect(lines).toHaveCount(3)
  const before = await lines.allTextContents()
  await sheet.getByRole('button', { name: 'Use these notes' }).click()
  await page.getByRole('button', { name: 'Usual notes for all pads' }).click()
  await expect(sheet.getByRole('button', { name: 'All as usual' })).toBeDisabled()
  await sheet.getByRole('button', { name: 'Close', exact: true }).last().click()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await page.getByRole('button', { name: 'Usual notes for all pads' }).click()
  await expect(lines).toHaveText(before)
})

test('a tiller moves every pad, is led by a controller that it has learnt, lies in every place, and is kept', async ({ page }) => {
  await threePads(page)
  await part(page, 'Tillers')
  await page.getByRole('button', { name: 'Add a tiller' }).click()
  await page.getByRole('textbox', { name: 'Name of the tiller' }).fill('Fog')
  await page.getByRole('textbox', { name: 'Name of the tiller' }).press('Enter')
  await page.getByRole('button', { name: 'Let it move something' }).click()
  await page.getByRole('radio', { name: 'Level', exact: true }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('list', { name: 'What Fog moves' }).getByRole('listitem')).toHaveCount(3)
  expect(await findings(page)).toEqual([])
  await page.getByRole('button', { name: 'Learn its controller' }).click()
  const wheel = (value: number) =>
    page.evaluate((given) => {
      const channel = new BroadcastChannel('heliaster-practice')
      channel.postMessage([0xb0, 7, given])
      channel.close()
    }, value)
  await wheel(1)
  await expect(page.getByText('Controller 7 of this device leads it.')).toBeVisible()
  await page.getByRole('link', { name: 'Board' }).click()
  const fog = page.getByRole('region', { name: 'Tillers' }).getByRole('slider', { name: 'Fog' })
  await expect(fog).toBeVisible()
  await wheel(127)
  await expect(fog).toHaveAttribute('aria-valuenow', '100')
  await expect.poll(async () => (await keptKit(page)).tillers[0]?.value).toBe(1)
  await page.reload()
  await expect(fog).toHaveAttribute('aria-valuenow', '100')
})

test('how much strikes differ is measured as they come, anew when they are to be steady', async ({ page }) => {
  await openDemo(page, 'hands')
  await part(page, 'Timing')
  const told = page.getByText(/^The last \d+ strikes differ by [\d.]+ ms/)
  const strikeUntilTold = () =>
    expect
      .poll(async () => {
        await page.keyboard.press('KeyX')
        return told.count()
      })
      .toBe(1)
  await strikeUntilTold()
  await page.getByRole('switch', { name: 'Steady' }).click()
  await expect(page.getByText('Strike a few times: here stands how much they differ.')).toBeVisible()
  await strikeUntilTold() // the switch has the focus, and the keys play on
})

test('speaker and microphone are measured by chirps that go round', async ({ page }) => {
  await page.addInitScript(() => {
    // What goes to the speaker comes back 80 ms later from a microphone.
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode | AudioParam, ...ways: number[]) => AudioNode
    const airs = new Map<BaseAudioContext, { delay: DelayNode; out: MediaStreamAudioDestinationNode }>()
    const airOf = (context: AudioContext) => {
      const known = airs.get(context)
      if (known) return known
      const air = { delay: new DelayNode(context, { delayTime: 0.08, maxDelayTime: 1 }), out: context.createMediaStreamDestination() }
      connect.call(air.delay, air.out)
      airs.set(context, air)
      return air
    }
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode | AudioParam, ...ways: number[]) {
      if (to instanceof AudioDestinationNode) connect.call(this, airOf(this.context as AudioContext).delay)
      return connect.call(this, to, ...ways)
    } as typeof AudioNode.prototype.connect
    Object.defineProperty(navigator.mediaDevices, 'getUserMedia', {
      value: () => Promise.resolve([...airs.values()][0].out.stream),
    })
  })
  await openDemo(page, 'hands')
  await part(page, 'Timing')
  await page.getByRole('button', { name: 'Measure speaker and microphone' }).click()
  const said = page.getByText(/^From the speaker back/)
  await expect(said).toBeVisible()
  const ms = Number(/microphone ([\d.]+) ms/.exec((await said.textContent())!)![1])
  expect(ms).toBeGreaterThanOrEqual(80)
  expect(ms).toBeLessThan(200) // the browser's own stream adds its part
})
