import type { Page } from '@playwright/test'

import { countBytes } from '../e2e/count-bytes'
import { base, longestTask, openApp, sumOverProcesses } from './app-page'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'
import { interactions, moves } from './hands'
import { SLOW_DOWN, throttle } from './slow'

const RUNS = Number(process.env.BENCH_RUNS ?? 5)
const DEMO = `${base}/kit/demo-low-tide`

/** How light the page is: what it brings, when it can be used on a slow processor, how it answers, and what it costs when silent. */
export async function figuresOfLight(): Promise<Record<string, Figure>> {
  return {
    ...(await bytesByFile()),
    ...(await usable()),
    ...(await interactions()),
    ...(await moves()),
    ...(await whilePlaying()),
    ...(await silent()),
  }
}

/** What comes over the wire, compressed as it is, until the first screen can be used; the heaviest files by name. */
async function bytesByFile(): Promise<Record<string, Figure>> {
  const app = await openApp()
  try {
    const counted = await countBytes(app.page)
    await app.page.goto(base)
    await app.page.getByRole('button', { name: 'New kit', exact: true }).waitFor()
    const { total, byPath } = counted()
    const heaviest = [...byPath].sort(([, a], [, b]) => b - a)
    const figures: Record<string, Figure> = { 'light.firstScreenKb': { value: total / 1000, unit: 'KB over the wire' } }
    for (const [path, count] of heaviest.slice(0, 8)) figures[`light.file.${nameOf(path)}`] = { value: count / 1000, unit: 'KB' }
    return figures
  } finally {
    await app.close()
  }
}

const nameOf = (path: string) => path.replace(/.*\//, '').replace(/-[0-9a-f]{32}/, '') || 'index.html'

/** The frame of the page without the application: its styles, its faces, and one word. */
async function emptyPage(page: Page): Promise<void> {
  await page.route(`${base}/empty`, async (route) => {
    const frame = await (await route.fetch({ url: base })).text()
    const body = frame
      .replace(/<script[\s\S]*?<\/script>/g, '')
      .replace('<div id="root"></div>', '<div id="root"><button>New kit</button></div>')
    await route.fulfill({ contentType: 'text/html', body })
  })
}

/** From asking for the page until its button can be pressed and a picture of it has been drawn, at a quarter of the speed. */
async function usable(): Promise<Record<string, Figure>> {
  const times: number[] = []
  const ratios: number[] = []
  for (let run = 0; run < RUNS; run++) {
    const app = await openApp()
    try {
      const { page } = app
      await emptyPage(page)
      await throttle(page)
      const timed = async (address: string) => {
        const from = Date.now()
        await page.goto(address, { waitUntil: 'commit' })
        await page.getByRole('button', { name: 'New kit', exact: true }).waitFor()
        await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))))
        return Date.now() - from
      }
      const empty = await timed(`${base}/empty`)
      const ours = await timed(base)
      times.push(ours)
      ratios.push(empty / ours)
    } finally {
      await app.close()
    }
  }
  return {
    'light.usableAtQuarterSpeedMs': { value: median(times), unit: `ms at ${SLOW_DOWN} times slow-down`, spread: spreadOf(times) },
    'light.usableAgainstEmpty': {
      value: median(ratios),
      unit: 'times as quick',
      peer: 'an empty page of the same frame',
      spread: spreadOf(ratios),
    },
  }
}

/** The longest task of the page while a groove plays in the place where it is seen, and on the board. */
async function whilePlaying(): Promise<Record<string, Figure>> {
  const app = await openApp()
  try {
    const { page } = app
    await page.goto(`${DEMO}/groove`)
    await page.getByRole('button', { name: 'Play' }).click()
    await page.waitForTimeout(3000) // it has begun
    await longestTask(page)
    await page.waitForTimeout(20_000)
    const inGroove = await longestTask(page)
    await page.getByRole('link', { name: 'Board' }).click()
    await page.waitForTimeout(2000)
    await longestTask(page)
    await page.waitForTimeout(20_000)
    return {
      'light.grooveLongestTaskMs': { value: inGroove, unit: 'ms in 20 s of Groove (0: none above 50)' },
      'light.boardLongestTaskMs': { value: await longestTask(page), unit: 'ms in 20 s of the Board with the groove (0: none above 50)' },
    }
  } finally {
    await app.close()
  }
}

/** Processor time of the whole browser while a kit is open and nothing sounds: at first, and once the context sleeps. */
async function silent(): Promise<Record<string, Figure>> {
  const app = await openApp()
  try {
    const { page, folder } = app
    await page.addInitScript(keepContext)
    await page.goto(`${DEMO}/board`)
    await page
      .getByRole('button', { name: /^Hull thump/ })
      .first()
      .click()
    await page.waitForTimeout(8000) // what opening takes and what was struck are over
    const awake = await coreShare(page, folder)
    await page.waitForTimeout(35_000)
    const asleep = await coreShare(page, folder)
    const wakeMs = await page.evaluate(strikeAsleep)
    await page.goto('about:blank')
    await page.waitForTimeout(3000)
    const blank = await coreShare(page, folder)
    return {
      'light.silentAwakePercent': { value: 100 * awake, unit: '% of a core, silent for less than 30 s' },
      'light.silentAsleepPercent': { value: 100 * asleep, unit: '% of a core, silent for longer' },
      'light.wakeMs': { value: wakeMs, unit: 'ms from a key to the first block of a context that slept' },
      'light.blankPercent': { value: 100 * blank, unit: '% of a core, the same browser with an empty page' },
    }
  } finally {
    await app.close()
  }
}

/** Runs in the page: the context that sounds can be looked at. */
function keepContext(): void {
  const Own = AudioContext
  window.AudioContext = class extends Own {
    constructor(options?: AudioContextOptions) {
      super(options)
      Object.assign(window, { heard: this })
    }
  }
}

/** Runs in the page: from a struck key until the context, which must sleep, has gone on by a block. */
async function strikeAsleep(): Promise<number> {
  const { heard } = window as unknown as { heard: AudioContext }
  if (heard.state !== 'suspended') throw new Error(`The context is ${heard.state} and should sleep.`)
  const stood = heard.currentTime
  const from = performance.now()
  document.dispatchEvent(new KeyboardEvent('keydown', { code: 'KeyZ', key: 'z', bubbles: true }))
  while (heard.currentTime === stood) await new Promise((resolve) => setTimeout(resolve, 0))
  return performance.now() - from
}

const TICKS_PER_SECOND = 100

/** Share of one core that all processes of a browser profile took in 15 s. */
async function coreShare(page: Page, folder: string): Promise<number> {
  const ticks = () => sumOverProcesses(folder, 'stat', ticksOf)
  const from = Date.now()
  const before = ticks()
  await page.waitForTimeout(15_000)
  return (ticks() - before) / TICKS_PER_SECOND / ((Date.now() - from) / 1000)
}

/** Time in the process and in the kernel for it, in ticks: the fourteenth and fifteenth of its fields, counted from behind its name. */
function ticksOf(stat: string): number {
  const fields = stat.replace(/.*\) /, '').split(' ')
  return Number(fields[11]) + Number(fields[12])
}
