import type { Page } from '@playwright/test'

import { base, openApp } from './app-page'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'
import { SLOW_DOWN, throttle } from './slow'

const DEMO = `${base}/kit/demo-low-tide`
const STEPS = 24

/** What a person does in two minutes, at a quarter of the speed: pads struck and chosen, panels, sheets, places, keys, undo. */
export async function interactions(): Promise<Record<string, Figure>> {
  const app = await openApp()
  try {
    const { page } = app
    await page.addInitScript(observeInteractions)
    await openBoard(page)
    await throttle(page)
    await page.evaluate(() => (window as unknown as { interactions: Map<number, number> }).interactions.clear())
    for (const pad of ['Hull thump', 'Tarp slap', 'Hatch tick', 'Oar, low', 'Buoy bell']) {
      await padOf(page, pad).click()
      for (const part of ['Playing', 'Level', 'Cells']) await page.getByRole('radio', { name: part, exact: true }).first().click()
      for (const key of ['z', 'x', 'c']) await page.keyboard.press(key)
    }
    for (const mode of ['Arrange pads', 'Done', 'Ties', 'Done', 'Several pads']) await press(page, mode)
    await page.getByRole('dialog').waitFor()
    await page.keyboard.press('Escape')
    for (const place of ['Shape', 'Groove', 'Mix', 'Gather', 'Cut', 'Board']) {
      await page.getByRole('link', { name: place }).click()
      await page.waitForURL(new RegExp(`/${place.toLowerCase()}$`))
    }
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
    const durations = await page.evaluate(() => [...(window as unknown as { interactions: Map<number, number> }).interactions.values()])
    const { at, least, most } = sharesOf(durations)
    return {
      'light.interactionP75Ms': {
        value: at(0.75),
        unit: `ms until the next picture, of ${durations.length} interactions at ${SLOW_DOWN} times slow-down`,
        spread: [least, most],
      },
      'light.interactionP95Ms': { value: at(0.95), unit: 'ms' },
    }
  } finally {
    await app.close()
  }
}

interface Drag {
  readonly name: string
  readonly place: string
  /** What has to be pressed before the slider is there. */
  readonly before?: (page: Page) => Promise<void>
  readonly slider: string
}

const drags: readonly Drag[] = [
  { name: 'shape', place: 'shape', slider: 'Drive' },
  { name: 'board', place: 'board', before: (page) => page.getByRole('radio', { name: 'Level', exact: true }).first().click(), slider: 'Level' }, // prettier-ignore
  { name: 'mix', place: 'mix', slider: 'Level of Hull thump' },
]

/** From a finger's move on a slider until the picture that follows it, at a quarter of the speed, against the browser's own slider. */
export async function moves(): Promise<Record<string, Figure>> {
  const app = await openApp()
  const figures: Record<string, Figure> = {}
  try {
    const { page } = app
    await page.addInitScript(observeMoves)
    await openBoard(page)
    await throttle(page)
    for (const drag of drags) {
      await page.getByRole('link', { name: new RegExp(`^${drag.place}$`, 'i') }).click()
      await padOf(page, 'Hull thump').click()
      await drag.before?.(page)
      const ours = await drawn(page, drag.slider)
      await page.getByRole('button', { name: /^Undo/ }).first().click() // other figures hear the kit as it was
      await page.evaluate(showOwnSlider)
      const own = await drawn(page, 'The browser’s own')
      await page.evaluate(() => document.getElementById('own')!.remove())
      figures[`light.move.${drag.name}Ms`] = { value: median(ours), unit: `ms at ${SLOW_DOWN} times slow-down`, spread: spreadOf(ours) }
      figures[`light.move.${drag.name}AgainstOwn`] = {
        value: median(own) / median(ours),
        unit: 'times as quick',
        peer: 'the browser’s own slider on the same page',
      }
    }
    return figures
  } finally {
    await app.close()
  }
}

async function openBoard(page: Page): Promise<void> {
  await page.goto(`${DEMO}/board`)
  await padOf(page, 'Hull thump').waitFor()
  await page.waitForTimeout(5000) // what opening a kit takes is over
}

const padOf = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}`) }).first() // prettier-ignore

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).last().click() // prettier-ignore

/** Drags a slider by and by, and gives the milliseconds of each move. */
async function drawn(page: Page, name: string): Promise<number[]> {
  const slider = page.getByRole('slider', { name, exact: true })
  await slider.scrollIntoViewIfNeeded()
  const box = (await slider.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.evaluate(() => void ((window as unknown as { moves: number[] }).moves.length = 0))
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let step = 1; step <= STEPS; step++) await page.mouse.move(x + (step / STEPS) * box.width * 0.4, y)
  await page.mouse.up()
  return await page.evaluate(() => [...(window as unknown as { moves: number[] }).moves])
}

function sharesOf(values: readonly number[]) {
  const sorted = [...values].sort((a, b) => a - b)
  return {
    at: (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))],
    least: sorted[0],
    most: sorted[sorted.length - 1],
  }
}

/** Runs in the page: the longest event of each interaction, as the browser measures them; those below 16 ms count as 16. */
function observeInteractions(): void {
  const interactions = new Map<number, number>()
  Object.assign(window, { interactions })
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries() as (PerformanceEntry & { interactionId: number })[])
      if (entry.interactionId > 0)
        interactions.set(entry.interactionId, Math.max(interactions.get(entry.interactionId) ?? 16, entry.duration))
  }).observe({ type: 'event', durationThreshold: 16, buffered: true } as PerformanceObserverInit)
}

/** Runs in the page: from each move of a pressed pointer until the picture after it has been drawn. */
function observeMoves(): void {
  const moves: number[] = []
  Object.assign(window, { moves })
  const look = ({ buttons, timeStamp }: PointerEvent) => {
    if (buttons === 0) return
    requestAnimationFrame(() => {
      const { port1, port2 } = new MessageChannel()
      port1.onmessage = () => moves.push(performance.now() - timeStamp)
      port2.postMessage(0)
    })
  }
  addEventListener('pointermove', look, { capture: true, passive: true })
}

/** Runs in the page: a slider of the browser over all else. */
function showOwnSlider(): void {
  const own = Object.assign(document.createElement('input'), { id: 'own', type: 'range' })
  own.setAttribute('aria-label', 'The browser’s own')
  Object.assign(own.style, { position: 'fixed', left: '40%', top: '40%', width: '300px', zIndex: '9999' })
  document.body.append(own)
}
