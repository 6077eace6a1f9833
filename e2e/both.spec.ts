import { createHash } from 'node:crypto'
import { pathToFileURL } from 'node:url'

import { expect, test } from '@playwright/test'

import type * as engineModule from '@heliaster/core/engine'
import { golden, goldenScores, SCORE_RATE_HZ } from '@heliaster/core/engine/testing'
import type { GoldenScore } from '@heliaster/core/engine/testing'

import { renderInPage } from './render-in-page'

const hashOf = (left: Float32Array, right: Float32Array) =>
  createHash('sha256').update(new Uint8Array(left.buffer)).update(new Uint8Array(right.buffer)).digest('hex')

test.describe('one engine', () => {
  test.skip(({ viewport }) => viewport?.width === 390, 'the same engine file, whatever the screen')

  test('the worklet, the worker and Node render what was always rendered, at any block size', async ({ page }) => {
    test.setTimeout(300_000) // thirteen scores, each rendered five times; Node's other sizes of blocks are tried by the engine's own tests
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
      const expected = { inNode: hash, worker: hash, workerSmallBlocks: hash, worklet: hash, loneWorklet: hash }
      const inPage = await page.evaluate(renderInPage, { name: score.name, rate: SCORE_RATE_HZ })
      const all = { inNode: inNode(score, 777), ...inPage }
      expect({ name: score.name, ...all }).toEqual({ name: score.name, ...expected })
    }
  })
})
