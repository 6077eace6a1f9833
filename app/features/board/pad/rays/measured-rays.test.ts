/** @jest-environment node */
import { createRay } from '@heliaster/core/kit'
import type { Clip, Kit, Pad } from '@heliaster/core/kit'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad, audio } from '../../../../testing/a-kit'
import { addedByRays } from './added-by-rays'
import { bottomGained } from './compare-polarity'
import { measureLineUp } from './line-up'

let mockDraw: (pad: Pad) => number[]
const mockLag = jest.fn()
jest.mock('../../../../audio/engine/draw', () => ({
  drawStrike: async (_kit: Kit, pad: Pad) => {
    const left = Float32Array.from(mockDraw(pad))
    return { left, right: left }
  },
}))
jest.mock('../../../../audio/files/audio-files', () => ({ decodedAudio: async (hash: string) => ({ audio: hash }) }))
jest.mock('../../../../audio/workers/workers', () => ({ coreWork: () => ({ lag: (...given: unknown[]) => mockLag(...given) as unknown }) }))

const tone = (hz: number, amplitude: number) =>
  Array.from({ length: 48_000 }, (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / 48_000))
const rayOf = (name: string) => createRay(makeId, name)
/** As many turns as asked, each with a clip on every one of two rays but those left out. */
function twoRays(turns: number, isMissing: (turn: number, ray: number) => boolean = () => false): Pad {
  const pad = aPad(turns)
  const other = rayOf('Far')
  const bands = pad.bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn, i) => {
      const clip = { ...(Object.values(turn.clips)[0] as Clip), startFrame: i }
      const clips = [pad.rays[0]!.id, other.id].flatMap((id, ray) => (isMissing(i, ray) ? [] : [[id, clip] as const]))
      return { ...turn, clips: Object.fromEntries(clips) }
    }),
  }))
  return { ...pad, rays: [pad.rays[0]!, { ...other, source: pad.rays[0]!.source }], bands }
}

beforeEach(() => jest.clearAllMocks())

test('flipping a ray that stands against another gives back the bottom it took', async () => {
  const pad = { ...aPad(1), rays: [rayOf('Near'), rayOf('Far')] }
  const far = pad.rays[1]!.id
  mockDraw = ({ rays }) => tone(60, rays[1]!.invert ? 0.8 : 0.4)
  expect(await bottomGained(aKitOf(pad), pad, far)).toBeCloseTo(20 * Math.log10(2), 6)
  mockDraw = ({ rays }) => tone(60, rays[1]!.invert ? 0.4 : 0.8)
  expect(await bottomGained(aKitOf(pad), pad, far)).toBeCloseTo(-20 * Math.log10(2), 6)
})

test('what lies high is no bottom', async () => {
  const pad = { ...aPad(1), rays: [rayOf('Near'), rayOf('Far')] }
  const low = tone(60, 0.5)
  const high = tone(4000, 0.5)
  mockDraw = ({ rays }) => low.map((sample, i) => sample + (rays[1]!.invert ? high[i]! : 0))
  expect(Math.abs(await bottomGained(aKitOf(pad), pad, pad.rays[1]!.id))).toBeLessThan(0.05)
})

test('a silent pad has nothing to compare, whichever way its ray stands', async () => {
  const pad = { ...aPad(1), rays: [rayOf('Near')] }
  const ask = (of: (flipped: boolean) => number) => {
    mockDraw = ({ rays }) => tone(60, of(rays[0]!.invert))
    return bottomGained(aKitOf(pad), pad, pad.rays[0]!.id)
  }
  await expect(ask(() => 0)).rejects.toThrow('makes no sound')
  await expect(ask((flipped) => (flipped ? 0 : 1))).rejects.toThrow('makes no sound')
  await expect(ask((flipped) => (flipped ? 1 : 0))).rejects.toThrow('makes no sound')
})

test('how much rays add is told over the first alone, and a first that is silent says so by name', async () => {
  const pad = { ...aPad(1), rays: [rayOf('Near'), rayOf('Far')] }
  mockDraw = ({ rays }) => tone(1000, rays.filter((ray) => !ray.mute).length * 0.2)
  expect(await addedByRays(aKitOf(pad), pad)).toBeCloseTo(20 * Math.log10(2), 3)
  mockDraw = ({ rays }) => (rays[1]!.mute ? tone(1000, 0) : tone(1000, 0.2))
  await expect(addedByRays(aKitOf(pad), pad)).rejects.toThrow(/^Near makes no sound/)
})

test('rays of one cell are measured against the first, over all cells that have both', async () => {
  mockLag.mockResolvedValue({ seconds: 0.002, correlation: 0.9 })
  const pad = twoRays(4, (turn, ray) => (turn === 1 && ray === 0) || (turn === 2 && ray === 1))
  const lines = await measureLineUp(pad)
  expect(lines.map(({ ray, cells }) => [ray.name, cells])).toEqual([[pad.rays[0]!.name, 1], ['Far', 2]])
  const asked = mockLag.mock.calls as [string, Clip, string, Clip][]
  expect(asked.map(([a, one, b, other]) => [a, one.startFrame, b, other.startFrame])).toEqual([[audio, 0, audio, 0], [audio, 3, audio, 3]])
}) // prettier-ignore

test('of very many cells a dozen are listened to; a lag that cannot be told counts for nothing', async () => {
  mockLag.mockImplementation(async (_a, { startFrame }: Clip) => (startFrame === 0 ? undefined : { seconds: 0.002, correlation: 0.9 }))
  const lines = await measureLineUp(twoRays(60))
  expect(mockLag).toHaveBeenCalledTimes(12)
  expect(lines[1]!.cells).toBe(11)
})

test('one ray alone, and rays with cells of their own, are measured against nothing', async () => {
  expect(await measureLineUp(aPad(3))).toEqual([])
  const pad = twoRays(3)
  const own = { ...pad.rays[1]!, source: { kind: 'clips' as const, bands: [] } }
  expect(await measureLineUp({ ...pad, rays: [pad.rays[0]!, own] })).toEqual([])
  expect(mockLag).not.toHaveBeenCalled()
  const silent = twoRays(2, () => true)
  expect((await measureLineUp(silent)).map(({ cells }) => cells)).toEqual([0, 0])
})
