import { createHash } from 'node:crypto'

import type { Kit, Pad } from '../kit/kit'
import { createOffline, renderOffline, toScore } from './offline'
import { golden, goldenScores, SCORE_RATE_HZ } from './testing'
import type { GoldenScore } from './testing'

function rendered({ kit, audio, events, frames }: GoldenScore, blockFrames: number, isPlain = false) {
  const { engine, loader } = createOffline(kit, SCORE_RATE_HZ, (hash) => audio.get(hash), kit.seed, undefined, isPlain)
  expect(engine.kernel === undefined).toBe(isPlain)
  const score = toScore(events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId) })))
  const [left, right] = renderOffline(engine, score, frames, blockFrames)
  const hash = createHash('sha256').update(new Uint8Array(left.buffer)).update(new Uint8Array(right.buffer)).digest('hex')
  return { hash, left, right }
}

const scores = new Map(goldenScores.map((make) => make()).map((score) => [score.name, score]))

test.each([...scores])('%s renders as it always has', (name, score) => {
  const { hash, left, right } = rendered(score, 4096)
  const energy = left.reduce((sum, sample, i) => sum + sample ** 2 + right[i] ** 2, 0) / score.frames
  expect(energy).toBeGreaterThan(1e-4) // something is heard, not silence hashed
  expect(hash).toBe(golden[name])
  if (score.frames < 10 * SCORE_RATE_HZ) for (const block of [101, 1]) expect(rendered(score, block).hash).toBe(golden[name])
  expect(rendered(score, 128, true).hash).toBe(golden[name]) // the plain form of the kernel
})

test('every line of the golden list has its score', () => {
  expect(Object.keys(golden).sort()).toEqual([...scores.keys()].sort())
})

const withPads = (kit: Kit, change: (pad: Pad) => Partial<Pad>): Partial<Kit> => ({
  pads: kit.pads.map((pad) => ({ ...pad, ...change(pad) })),
})
const without: [name: string, part: string, change: (kit: Kit) => Partial<Kit>][] = [
  ['chokes', 'a choke', () => ({ ties: [] })],
  ['limits', 'the limit of the kit', () => ({ maxStrikes: 128 })],
  ['limits', 'the limit of a group', () => ({ ties: [] })],
  ['limits', 'the limit of a pad', (kit) => withPads(kit, ({ own }) => ({ own: { ...own, maxStrikes: 128 } }))],
  ['picks', 'the seed', () => ({ seed: 2 })],
  ['mix', 'the place of a bus', ({ buses }) => ({ buses: buses.map((bus) => ({ ...bus, values: { ...bus.values, pan: 0 } })) })],
  ['rays', 'borrowing', (kit) => withPads(kit, ({ rays }) => ({ rays: rays.map((ray) => ({ ...ray, onMissing: 'silent' })) }))],
  [
    'rays',
    'a delay',
    (kit) => withPads(kit, ({ rays }) => ({ rays: rays.map((ray) => ({ ...ray, values: { ...ray.values, delaySeconds: 0 } })) })),
  ],
]

test.each(without)('in “%s” %s is heard', (name, _part, change) => {
  const score = scores.get(name)!
  expect(rendered({ ...score, kit: { ...score.kit, ...change(score.kit) } }, 4096).hash).not.toBe(golden[name])
})
