import { base, openApp } from './app-page'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'

const RUNS = Number(process.env.BENCH_RUNS ?? 5)
/** A line as phones have it: each answer 100 ms after it was asked for, 32 Mbit/s down, 8 up. */
const LINE = { offline: false, latency: 100, downloadThroughput: 4e6, uploadThroughput: 1e6 }

/** A kit that is on no device yet, from the page's begin until all of its sounds have come; beside the same with each file asked for by itself. */
export async function figuresOfArriving(): Promise<Record<string, Figure>> {
  const times: number[] = []
  const ratios: number[] = []
  for (let run = 0; run < RUNS; run++) {
    const [together, each] = [await arrivedMs(true), await arrivedMs(false)]
    times.push(together)
    ratios.push(together / each)
  }
  const peer = 'each file asked for by itself'
  return {
    'arrive.allArrivedMs': { value: median(times), unit: 'ms, demo kit, 100 ms and 32 Mbit/s', spread: spreadOf(times) },
    'arrive.ratio': { value: median(ratios), unit: 'of the time', peer, spread: spreadOf(ratios) },
  }
}

async function arrivedMs(isTogether: boolean): Promise<number> {
  const app = await openApp()
  try {
    const { page } = app
    if (!isTogether) await page.route('**/api/audio/together', (route) => route.fulfill({ status: 404 }))
    const session = await page.context().newCDPSession(page)
    await session.send('Network.enable')
    await session.send('Network.emulateNetworkConditions', LINE)
    await page.goto(`${base}/kit/demo-low-tide/board`)
    await page.waitForFunction(() => performance.getEntriesByName('heliaster-all-arrived').length > 0, undefined, { timeout: 120_000 })
    return await page.evaluate(() => performance.getEntriesByName('heliaster-all-arrived')[0].startTime)
  } finally {
    await app.close()
  }
}
