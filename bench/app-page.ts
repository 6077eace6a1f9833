import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { chromium } from '@playwright/test'
import type { BrowserContext, Page } from '@playwright/test'

export const base = process.env.HELIASTER_URL ?? 'http://localhost:8100'

const ARGS = [
  '--no-sandbox',
  '--disable-quic',
  '--disable-background-networking',
  '--autoplay-policy=no-user-gesture-required',
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
]

export interface AppPage {
  readonly folder: string
  readonly context: BrowserContext
  readonly page: Page
  close(): Promise<void>
}

/** The built application in a browser with a profile of its own. */
export async function openApp(options: { args?: string[]; folder?: string; keep?: boolean } = {}): Promise<AppPage> {
  const folder = options.folder ?? mkdtempSync(join(tmpdir(), 'heliaster-profile-'))
  const context = await chromium.launchPersistentContext(folder, {
    executablePath: '/usr/bin/chromium',
    args: [...ARGS, ...(options.args ?? [])],
    viewport: { width: 1280, height: 800 },
    permissions: ['microphone'],
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  // The loader wraps inner functions in a naming helper that the page does not have.
  await page.addInitScript('globalThis.__name = (given) => given')
  await page.addInitScript(() => {
    const tasks: PerformanceEntry[] = []
    Object.assign(window, { longTasks: tasks })
    new PerformanceObserver((list) => tasks.push(...list.getEntries())).observe({
      type: 'longtask',
      buffered: true,
    })
  })
  return {
    folder,
    context,
    page,
    async close() {
      await context.close().catch(() => undefined)
      if (!options.keep) rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** The longest task of the page since this was last asked, or begun later than a time of the page, in ms; the browser tells of those above 50. */
export function longestTask(page: Page, fromMs = 0): Promise<number> {
  return page.evaluate((from) => {
    const tasks = (window as unknown as { longTasks: PerformanceEntry[] }).longTasks.splice(0)
    return Math.max(0, ...tasks.filter(({ startTime }) => startTime >= from).map(({ duration }) => duration))
  }, fromMs)
}

export async function newKit(page: Page): Promise<void> {
  await page.goto(base)
  await page.getByRole('button', { name: 'New kit', exact: true }).click()
  await page.getByRole('button', { name: 'Record', exact: true }).waitFor()
}

/** Resident memory of all processes of a browser profile, in MB: what several of them share, as a page and its workers do, counts once. */
export function residentMb(folder: string): number {
  return (sumOverProcesses(folder, 'smaps_rollup', shareOfPages) * 1024) / 1e6
}

/** Sum over all processes of a browser profile of what a file of theirs in /proc says. */
export function sumOverProcesses(folder: string, file: string, valueOf: (text: string) => number): number {
  let sum = 0
  for (const pid of readdirSync('/proc')) {
    if (!/^\d+$/.test(pid)) continue
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(folder)) sum += valueOf(readFileSync(`/proc/${pid}/${file}`, 'utf8'))
    } catch {
      // it ended while we looked
    }
  }
  return sum
}

/** Resident kilobytes of a process, those that it shares with others by its share. */
function shareOfPages(rollup: string): number {
  return Number(/^Pss:\s+(\d+)/m.exec(rollup)![1])
}
