import type { Page } from '@playwright/test'

import { aKit, aTone, seeded } from '../core/kit/builders'
import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'

const RATE = 48000
const SECONDS = 60
const STRIKES_PER_SECOND = 500
const BLOCK = 128
/** The same minute is played so often; a block is late where it is late each time, and not where another process ran. */
const RUNS = 3

/** The engine's own time for each block of 128 frames under 500 strikes a second, against the time the block lasts. */
export async function strikesInNode(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const blocks = Math.floor((SECONDS * RATE) / BLOCK)
  const runs = Array.from({ length: RUNS }, () => strikeRun(engine, blocks))
  const blockMs = (1000 * BLOCK) / RATE
  let late = 0
  let lateOnce = 0
  for (let block = 0; block < blocks; block++) {
    const times = runs.map(({ ms }) => ms[block])
    if (Math.min(...times) > blockMs) late++
    if (Math.max(...times) > blockMs) lateOnce++
  }
  const loads = runs.map(({ ms }) => ms.reduce((sum, one) => sum + one, 0) / (1000 * SECONDS))
  return {
    'engine.lateBlocksAt500': {
      value: late,
      unit: `of ${blocks} blocks took longer than they last each time, ${STRIKES_PER_SECOND} strikes a second for ${SECONDS} s (${lateOnce} in one of ${RUNS} runs)`,
    },
    'engine.loadAt500': { value: median(loads), unit: 'of one core', spread: spreadOf(loads) },
    'engine.lostEventsAt500': { value: Math.max(...runs.map(({ lost }) => lost)), unit: 'strikes' },
    'engine.heapGrowthAt500': {
      value: Math.min(...runs.map(({ grownKb }) => grownKb)),
      unit: 'kB of heap more after three quarters of a minute',
    },
  }
}

interface StrikeRun {
  /** Milliseconds that each block took. */
  readonly ms: Float32Array
  readonly lost: number
  readonly grownKb: number
}

function strikeRun(engine: Engine, blocks: number): StrikeRun {
  const { kit, audio } = aKit(Array.from({ length: 16 }, (_, i) => ({ own: { pick: 'shuffle' as const }, bands: [Array.from({ length: 4 }, () => aTone(6000, 0.01, RATE, 100 + 40 * i))] }))) // prettier-ignore
  const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
  const random = seeded(9)
  const events = Array.from({ length: SECONDS * STRIKES_PER_SECOND }, (_, i) => ({
    frame: Math.round((i * RATE) / STRIKES_PER_SECOND),
    type: engine.EventType.strike,
    padSlot: loader.slotOf(kit.pads[Math.floor(16 * random())].id),
    velocity: 1 + Math.floor(127 * random()),
  }))
  state.score = engine.toScore(events)
  const left = new Float32Array(BLOCK)
  const right = new Float32Array(BLOCK)
  const ms = new Float32Array(blocks)
  let heapBefore = 0
  for (let block = 0; block < blocks; block++) {
    if (block === blocks >> 2) heapBefore = heapBytes()
    const from = performance.now()
    engine.render(state, left, right, 0, BLOCK)
    ms[block] = performance.now() - from
  }
  return { ms, lost: state.memory.status[engine.StatusField.lostEvents], grownKb: (heapBytes() - heapBefore) / 1024 }
}

/** What is reachable, once all else was let go. */
function heapBytes(): number {
  if (!globalThis.gc) throw new Error('Memory is measured with node --expose-gc.')
  globalThis.gc()
  return process.memoryUsage().heapUsed + process.memoryUsage().arrayBuffers
}

/** Strikes come in handfuls, as fast as a page can count time. */
const HANDFUL = 10
const KEYS = 'ZXCVBNMASDFGHJKL'

/** The same in the page that is open, by its keys: late blocks as the engine counts them, and what memory grows by. */
export async function strikesInPage(page: Page): Promise<Record<string, Figure>> {
  const session = await page.context().newCDPSession(page)
  const heapMb = async () => {
    await session.send('HeapProfiler.collectGarbage')
    return (await session.send('Runtime.getHeapUsage')).usedSize / 1e6
  }
  const lateBlocks = () =>
    page.evaluate(() =>
      Math.max(0, ...performance.getEntriesByName('heliaster-late').map((mark) => (mark as PerformanceMark).detail as number)),
    )
  await play(page, SECONDS / 4)
  const [before, lateBefore] = [await heapMb(), await lateBlocks()]
  const struck = await play(page, SECONDS)
  const late = (await lateBlocks()) - lateBefore
  return {
    'page.lateBlocksAt500': {
      value: late,
      unit: `of ${Math.round((SECONDS * RATE) / BLOCK)} blocks, counted by the engine in the worklet, ${Math.round(struck / SECONDS)} strikes a second for ${SECONDS} s`,
    },
    'page.heapGrowthAt500': { value: (await heapMb()) - before, unit: 'MB of the page’s heap more after the minute' },
  }
}

/** Strikes pads by their keys; tells how many strikes there were. */
function play(page: Page, seconds: number): Promise<number> {
  return page.evaluate(
    ([letters, count, everyMs, forMs]) =>
      new Promise<number>((resolve) => {
        const from = performance.now()
        let struck = 0
        const timer = setInterval(() => {
          const due = Math.floor((performance.now() - from) / everyMs + 1) * count
          for (; struck < due; struck++) {
            const letter = letters[struck % letters.length]
            for (const type of ['keydown', 'keyup'])
              document.dispatchEvent(new KeyboardEvent(type, { code: `Key${letter}`, key: letter.toLowerCase(), bubbles: true }))
          }
          if (performance.now() - from < forMs) return
          clearInterval(timer)
          resolve(struck)
        }, everyMs)
      }),
    [KEYS, HANDFUL, (1000 * HANDFUL) / STRIKES_PER_SECOND, 1000 * seconds] as const,
  )
}
