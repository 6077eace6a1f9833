import { createHash } from 'node:crypto'
import { pathToFileURL } from 'node:url'

import { expect, test } from '@playwright/test'

import type * as engineModule from '@heliaster/core/engine'
import { golden, goldenScores, SCORE_RATE_HZ } from '@heliaster/core/engine/testing'
import type { GoldenScore } from '@heliaster/core/engine/testing'
import type { Audio } from '@heliaster/core/audio'
import type { Kit } from '@heliaster/core/kit'
import type { FromWorklet, ToWorklet } from '../core/engine/hosts/messages'

const hashOf = (left: Float32Array, right: Float32Array) =>
  createHash('sha256').update(new Uint8Array(left.buffer)).update(new Uint8Array(right.buffer)).digest('hex')

test.describe('one engine', () => {
  test.skip(({ viewport }) => viewport?.width === 390, 'the same engine file, whatever the screen')

  test('the worklet, the worker and Node render what was always rendered, at any block size', async ({ page }) => {
    test.setTimeout(300_000) // thirteen scores, each rendered seven times
    const builder = (await import('../tools/build-engine.mjs' as string)) as { buildEngine(): Promise<string> }
    const engine = (await import(pathToFileURL(await builder.buildEngine()).href)) as typeof engineModule
    const inNode = ({ kit, audio, events, frames }: GoldenScore, blockFrames: number) => {
      const { engine: state, loader } = engine.createOffline(kit, SCORE_RATE_HZ, (hash) => audio.get(hash))
      const score = engine.toScore(events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId) })))
      return hashOf(...engine.renderOffline(state, score, frames, blockFrames))
    }
    const scores = goldenScores.map((make) => make())
    await page.goto('/')
    await page.exposeFunction('score_', (name: string) => {
      const { audio, ...score } = scores.find((one) => one.name === name)!
      const plain = [...audio].map(([hash, one]) => [hash, { ...one, channels: one.channels.map((channel) => [...channel]) }])
      return { ...score, audio: plain }
    })
    for (const score of scores) {
      const hash = golden[score.name]
      const expected = { blocks4096: hash, blocks777: hash, worker: hash, workerSmallBlocks: hash, worklet: hash, loneWorklet: hash }
      const inPage = await page.evaluate(renderInPage, { name: score.name, rate: SCORE_RATE_HZ })
      const all = { blocks4096: inNode(score, 4096), blocks777: inNode(score, 777), ...inPage }
      expect({ name: score.name, ...all }).toEqual({ name: score.name, ...expected })
    }
  })
})

/** Runs in the page: the same performance in a worker, twice, and in an audio worklet of an offline context. */
async function renderInPage({ name, rate }: { name: string; rate: number }): Promise<Record<string, string>> {
  interface Performance {
    kit: Kit
    events: { padId: string; frame: number; type: number; velocity?: number; note?: number; key?: number }[]
    audio: [string, { sampleRateHz: number; channels: number[][] }][]
    frames: number
  }
  const given = (window as unknown as { score_(name: string): Promise<Performance> }).score_(name)
  const { kit, events, audio: plain, frames } = await given
  const audio = plain.map(
    ([hash, one]) => [hash, { sampleRateHz: one.sampleRateHz, channels: one.channels.map((c) => Float32Array.from(c)) }] as [string, Audio],
  )
  const url = `/engine/${((await (await fetch('/engine/engine.json')).json()) as { file: string }).file}`
  const hash = async (left: Float32Array, right: Float32Array) => {
    const joined = new Uint8Array(left.byteLength * 2)
    joined.set(new Uint8Array(left.buffer, left.byteOffset, left.byteLength))
    joined.set(new Uint8Array(right.buffer, right.byteOffset, right.byteLength), left.byteLength)
    return [...new Uint8Array(await crypto.subtle.digest('SHA-256', joined))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  }
  const inWorker = (blockFrames: number) =>
    new Promise<string>((resolve) => {
      const worker = new Worker(url, { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<{ left: Float32Array; right: Float32Array }>) => resolve(hash(data.left, data.right))
      worker.postMessage({ id: 1, kit, audio, events, frames, sampleRateHz: rate, blockFrames })
    })
  /** Shared memory, or a copy that messages fill, as on a page that is not isolated. */
  const inWorklet = async (shares: boolean) => {
    const engine = (await import(url)) as typeof engineModule
    const memory = engine.createMemory(true)
    const told: ToWorklet[] = []
    const store = engine.createSampleStore(
      {
        createChunk: (chunk, frames) => {
          told.push({ type: 'chunk', chunk, frames, samples: undefined })
          return engine.addChunk(memory, chunk, frames)
        },
        written: (chunk, startFrame, frames) =>
          told.push({ type: 'samples', chunk, startFrame, samples: memory.chunks[chunk]!.slice(startFrame, startFrame + frames) }),
      },
      engine.MAX_CHUNKS,
    )
    const byHash = new Map(audio)
    const loader = engine.createLoader(memory, store, rate, (wanted) => byHash.get(wanted), {
      send: (event) => (shares ? engine.writeRing(memory, event) : told.push({ type: 'events', events: event }) > 0),
      arenaWritten: (offset, length) => told.push({ type: 'arena', offset, doubles: memory.arena.slice(offset, offset + length) }),
      tableMade: (table, numbers) => told.push({ type: 'table', table, numbers }),
      tablesChanged: () => told.push({ type: 'tables', directory: memory.directory.slice(), programTable: memory.programTable.slice() }),
    })
    loader.load(kit)
    const score = engine.toScore(events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId as Kit['pads'][number]['id']) })))
    const context = new OfflineAudioContext(2, frames, rate)
    await context.audioWorklet.addModule(url)
    const node = new AudioWorkletNode(context, 'heliaster-engine', {
      numberOfInputs: 0,
      outputChannelCount: [2],
      processorOptions: shares ? { memory, score } : { score, told },
    })
    node.connect(context.destination)
    let status = memory.status
    node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => (status = data.status)
    const rendered = await context.startRendering()
    if (status[engine.StatusField.hasKernel] !== 1) return 'not rendered by the kernel'
    return hash(rendered.getChannelData(0), rendered.getChannelData(1))
  }
  return {
    worker: await inWorker(4096),
    workerSmallBlocks: await inWorker(100),
    worklet: await inWorklet(true),
    loneWorklet: await inWorklet(false),
  }
}
