import { setTimeout as wait } from 'node:timers/promises'

import { median } from '../bench/figure'
import type { Figure } from '../bench/figure'
import { aPlace, memoryOf } from './a-place'
import { lostOf, Writer } from './writers'

const KILLS = 60
const WRITERS = 5

/** Kills of the server, of its database and of both, while five write: what was acknowledged must be there afterwards. */
export async function killsOfServer(): Promise<Record<string, Figure>> {
  const place = await aPlace()
  const writers = Array.from({ length: WRITERS }, () => new Writer(place.address))
  let running = true
  const writing = Promise.all(
    writers.map(async (writer) => {
      while (running) {
        const before = writer.acknowledged.length
        await writer.write()
        if (writer.acknowledged.length === before) await wait(50)
      }
    }),
  )
  const backMs: number[] = []
  for (let i = 0; i < KILLS; i++) {
    await wait(300 + Math.random() * 1200)
    const { server, database } = place.pids()
    const whom = [[server], [database], [database, server]][i % 3]
    const from = performance.now()
    for (const pid of whom) process.kill(pid, 'SIGKILL')
    await wait(100)
    await place.untilWell()
    backMs.push(performance.now() - from)
  }
  running = false
  await writing
  const acknowledged = writers.reduce((sum, writer) => sum + writer.acknowledged.length, 0)
  const lost = await lostOf(place.address, writers)
  await place.stop()
  return {
    'server.kills': { value: KILLS, unit: 'kills of server, database and both' },
    'server.acknowledged': { value: acknowledged, unit: 'batches acknowledged' },
    'server.lost': { value: lost, unit: 'of them lost or doubled' },
    'server.backMedian': { value: median(backMs) / 1000, unit: 's until it answers again by itself' },
    'server.backMost': { value: Math.max(...backMs) / 1000, unit: 's until it answers again by itself, at most' },
  }
}

const CLIENTS = 50
const LOAD_MS = 20_000

/** Fifty people editing at once, each a kit of their own, as fast as they are answered and a little slower. */
export async function load(): Promise<Record<string, Figure>> {
  const place = await aPlace()
  const figures: Record<string, Figure> = {}
  for (const [name, pauseMs] of [['paced', 500], ['flatOut', 0]] as const) {
    const writers = Array.from({ length: CLIENTS }, () => new Writer(place.address))
    const until = Date.now() + LOAD_MS
    await Promise.all(
      writers.map(async (writer) => {
        await wait(Math.random() * pauseMs)
        while (Date.now() < until) {
          await writer.write()
          await wait(pauseMs)
        }
      }),
    )
    const times = writers.flatMap((writer) => writer.milliseconds).sort((a, b) => a - b)
    figures[`load.${name}.p50`] = { value: times[Math.floor(times.length / 2)], unit: `ms, ${CLIENTS} clients, ${times.length} edits` }
    figures[`load.${name}.p99`] = { value: times[Math.floor(times.length * 0.99)], unit: `ms, ${CLIENTS} clients, ${times.length} edits` }
    figures[`load.${name}.lost`] = { value: await lostOf(place.address, writers), unit: 'acknowledged edits lost' }
  }
  await place.stop()
  return figures
} // prettier-ignore

const LISTED = 2000

/** Ten lists of two thousand kits at once, as ten devices that start would ask for them. */
export async function lists(): Promise<Record<string, Figure>> {
  const place = await aPlace()
  const demo = (await (await fetch(`${place.address}/api/kits`)).json()) as { items: { id: string }[] }
  const { doc } = (await (await fetch(`${place.address}/api/kits/${demo.items[0].id}`)).json()) as { doc: { id: string } }
  let next = 0
  const put = async () => {
    while (next < LISTED) {
      const kit = { ...doc, id: `kit-listed-${next++}` }
      const headers = { 'content-type': 'application/json' }
      await fetch(`${place.address}/api/kits/${kit.id}`, { method: 'PUT', headers, body: JSON.stringify(kit) })
    }
  }
  await Promise.all(Array.from({ length: 8 }, put))
  // A server that has just started, so that what the lists need is seen alone.
  process.kill(place.pids().server, 'SIGKILL')
  await wait(200)
  await place.untilWell()
  const before = memoryOf(place.pids().server)
  const listed = async () => {
    let count = 0
    let after: string | undefined
    do {
      const page = (await (await fetch(`${place.address}/api/kits${after ? `?after=${after}` : ''}`)).json()) as {
        items: unknown[]
        next?: string
      }
      count += page.items.length
      after = page.next
    } while (after)
    return count
  }
  const from = performance.now()
  await listed()
  const one = performance.now() - from
  const fromTen = performance.now()
  const counts = await Promise.all(Array.from({ length: 10 }, listed))
  const ten = performance.now() - fromTen
  const peak = memoryOf(place.pids().server)
  await place.stop()
  return {
    'lists.one': { value: one / 1000, unit: `s for a list of ${counts[0]} kits` },
    'lists.ten': { value: ten / 1000, unit: 's for ten at once' },
    'lists.serverMb': { value: peak.residentMb, unit: `MB resident after ten at once (${before.residentMb.toFixed(0)} before)` },
    'lists.serverPeakMb': { value: peak.peakMb, unit: 'MB at most' },
  }
}

/** The database stopped, hung and slow: what the server says, and what it has afterwards. */
export async function databaseAway(): Promise<Record<string, Figure>> {
  const place = await aPlace()
  const writers = [new Writer(place.address), new Writer(place.address)]
  const figures: Record<string, Figure> = {}
  const writeFor = async (ms: number) => {
    const until = Date.now() + ms
    const from = writers.reduce((sum, writer) => sum + writer.acknowledged.length, 0)
    await Promise.all(writers.map(async (writer) => { while (Date.now() < until) { await writer.write(); await wait(20) } })) // prettier-ignore
    return writers.reduce((sum, writer) => sum + writer.acknowledged.length, 0) - from
  }
  await writeFor(1000)
  const { database } = place.pids()
  // Hung: it neither answers nor goes away.
  process.kill(database, 'SIGSTOP')
  const asked = performance.now()
  const answer = await fetch(`${place.address}/api/kits`, { signal: AbortSignal.timeout(15_000) }).catch(() => undefined)
  figures['away.hungAnswer'] = {
    value: answer?.status ?? 0,
    unit: `status after ${((performance.now() - asked) / 1000).toFixed(1)} s while the database hangs`,
  }
  process.kill(database, 'SIGCONT')
  await place.untilWell()
  figures['away.afterHung'] = { value: await writeFor(2000), unit: 'edits acknowledged in 2 s after it hung' }
  // Slow: it stands still for most of the time.
  let slow = true
  const slowing = (async () => {
    while (slow) {
      process.kill(database, 'SIGSTOP')
      await wait(180)
      process.kill(database, 'SIGCONT')
      await wait(20)
    }
  })()
  figures['away.whileSlow'] = { value: await writeFor(6000), unit: 'edits acknowledged in 6 s while it runs a tenth of the time' }
  slow = false
  await slowing
  await place.untilWell()
  figures['away.lost'] = { value: await lostOf(place.address, writers), unit: 'acknowledged edits lost' }
  await place.stop()
  return figures
}
