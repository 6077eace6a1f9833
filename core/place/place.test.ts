import fc from 'fast-check'

import { renamed } from './rename'
import { hashOf, testIds } from '../kit/builders'
import type { Band, Clip, Pad } from '../kit/kit'
import { createPad, wholeClip } from '../kit/make'
import { naturalBreaks } from './natural-breaks'
import { compareNames } from './natural-order'
import { putTakes } from './put-takes'
import type { PutMode, TakeTarget } from './put-takes'
import { asBands, asTurns, byLoudness, evenEdges, loudnessEdges, suggestBands } from './place'

const clip = (i: number) => wholeClip(hashOf(i.toString(16).padStart(4, '0')), { frames: 10, channels: 1 })

test('natural breaks find the groups that are there, and every value is in one of them', () => {
  expect(naturalBreaks([-50, -49, -48, -30, -29, -10], 3)).toEqual([[0, 3], [3, 5], [5, 6]]) // prettier-ignore
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -90, max: 0 }), { minLength: 1, maxLength: 40 }),
      fc.integer({ min: 1, max: 9 }),
      (values, count) => {
        const ranges = naturalBreaks([...values].sort((a, b) => a - b), count) // prettier-ignore
        expect(ranges).toHaveLength(Math.min(count, values.length))
        expect(ranges[0][0]).toBe(0)
        expect(ranges[ranges.length - 1][1]).toBe(values.length)
        ranges.forEach(([from, to], i) => {
          expect(to).toBeGreaterThan(from)
          if (i > 0) expect(from).toBe(ranges[i - 1][1])
        })
      },
    ),
  )
})

test('even edges begin at 1 and rise, for any number of bands', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 127 }), (count) => {
      const edges = evenEdges(count)
      expect(edges[0]).toBe(1)
      expect(edges.every((edge, i) => edge <= 127 && (i === 0 || edge > edges[i - 1]))).toBe(true)
    }),
  )
})

test('by loudness, softer takes lie in softer bands and no take is lost', () => {
  const loudnessDb = [-12, -40, -39, -25, -13, -26, -41, -11, -24]
  const bands = byLoudness(testIds(), 'ray-1' as never, loudnessDb.map((db, i) => ({ clip: clip(i), loudnessDb: db })), 3) // prettier-ignore
  expect(bands.map((band) => band.turns.length)).toEqual([3, 3, 3])
  expect(bands.map((band) => band.fromVelocity)).toEqual([1, 46, 89]) // -40, -25 and -12 dB: the middle one is nearer to the loud
  expect(bands[0].turns[0].clips['ray-1']).toEqual(clip(6))
  const evened = byLoudness(testIds(), 'ray-1' as never, loudnessDb.map((db, i) => ({ clip: clip(i), loudnessDb: db })), 3, 'evened') // prettier-ignore
  expect((evened[0].turns[0].clips['ray-1'] as Clip).gainDb).toBeCloseTo(1) // the softest of three, whose mean is 1 dB above it
})

test('of more takes than a band can hold, some from everywhere are kept, in turns and by loudness', () => {
  const takes = Array.from({ length: 500 }, (_, i) => ({ clip: clip(i), loudnessDb: -i / 500 }))
  const kept = (band: Band) => band.turns.map((turn) => takes.findIndex((take) => take.clip.audio === (turn.clips['ray-1'] as Clip).audio))
  const [one] = asTurns(testIds(), 'ray-1' as never, takes.map((take) => take.clip)) // prettier-ignore
  expect(kept(one)).toHaveLength(128)
  expect(new Set(kept(one)).size).toBe(128)
  expect(Math.max(...kept(one))).toBeGreaterThan(490)
  for (const band of byLoudness(testIds(), 'ray-1' as never, takes, 2)) expect(new Set(kept(band)).size).toBe(128)
})

test('edges by loudness rise from 1, leave every band room, and are even where loudness rises evenly', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -80, max: 0, noNaN: true }), { minLength: 1, maxLength: 12 }), (levels) => {
      const edges = loudnessEdges(levels.sort((a, b) => a - b))
      expect(edges[0]).toBe(1)
      edges.forEach((edge, i) => expect((edges[i + 1] ?? 128) - edge).toBeGreaterThanOrEqual(3))
    }),
  )
  expect(loudnessEdges([-40, -30, -20, -10])).toEqual(evenEdges(4))
})

test('forty takes over 40 dB ask for several bands, equal ones for one', () => {
  expect(suggestBands(Array.from({ length: 40 }, (_, i) => -40 + i))).toBe(8)
  expect(suggestBands(Array.from({ length: 30 }, () => -20))).toBe(1)
  expect(suggestBands([])).toBe(0)
})

test('in order, each clip has a band of its own; names sort as people count', () => {
  expect(asBands(testIds(), 'ray-1' as never, [clip(0), clip(1)]).map((band) => band.fromVelocity)).toEqual([1, 65])
  expect(['hit 10', 'hit 2', 'Hit 1'].sort(compareNames)).toEqual(['Hit 1', 'hit 2', 'hit 10'])
})

test('many names by one pattern', () => {
  const things = ['keel 1', 'keel 10', ''].map((name) => ({ name, family: 'kick', tag: 'hull' }))
  const plan = { pattern: '{name}', find: '', replace: '', firstNumber: 1 }
  expect(renamed(things, plan)).toEqual(['keel 1', 'keel 10', ''])
  expect(renamed(things, { ...plan, pattern: '{tag}-{family}_{nn}', firstNumber: 9 })).toEqual([
    'hull-kick_09',
    'hull-kick_10',
    'hull-kick_11',
  ])
  expect(renamed(things, { ...plan, find: 'keel', replace: 'deck', pattern: '{name} {what}' })).toEqual([
    'deck 1 {what}',
    'deck 10 {what}',
    '{what}',
  ])
})

test('recorded takes become the turns of a pad, a band, a cell or a ray, and nothing else moves', () => {
  const makeId = testIds()
  const clips = [1, 2, 3, 4].map((n) => wholeClip(hashOf(String(n)), { frames: 10 * n, channels: 1 }))
  const empty = createPad(makeId, { name: 'Hull' }, 36)
  const rayId = empty.rays[0].id
  const names = (bands: readonly Band[] | undefined) =>
    bands?.map((band) => [band.fromVelocity, ...band.turns.map((turn) => (turn.clips[rayId] as Clip).endFrame / 10)])
  const put = (pad: Pad, target: TakeTarget, groups: Clip[][], mode: PutMode = 'add') => putTakes(makeId, pad, target, groups, mode)
  const guided = put(empty, { kind: 'pad' }, [[clips[0]], [clips[1], clips[2]], [clips[3]]])
  expect(names(guided.bands)).toEqual([
    [1, 1],
    [43, 2, 3],
    [86, 4],
  ])
  const pad = { ...empty, bands: guided.bands! }
  const band = { kind: 'band', bandId: pad.bands[1].id } as const
  expect(names(put(pad, band, [[clips[0]]]).bands)).toEqual([
    [1, 1],
    [43, 2, 3, 1],
    [86, 4],
  ])
  expect(names(put(pad, band, [[clips[0]]], 'replace').bands)).toEqual([
    [1, 1],
    [43, 1],
    [86, 4],
  ])
  expect(names(put(pad, { kind: 'turn', turnId: pad.bands[1].turns[1].id }, [[clips[0], clips[1]]]).bands)).toEqual([
    [1, 1],
    [43, 2, 1],
    [86, 4],
  ])
  expect(names(put(pad, { kind: 'pad' }, [clips]).bands)).toEqual([[1, 1, 2, 3, 4]])
  const single = { ...empty, bands: put(empty, { kind: 'pad' }, [clips.slice(0, 2)]).bands! }
  expect(names(put(single, { kind: 'pad' }, [clips.slice(2)]).bands)).toEqual([[1, 1, 2, 3, 4]])
  const ray = put(pad, { kind: 'ray', rayId }, [clips.slice(0, 2)])
  expect(ray.bands).toBeUndefined()
  expect(ray.rays![0].source).toMatchObject({ kind: 'clips', bands: [{ turns: [{}, {}] }] })
})

test('clips in order become any number of bands: none is lost or moved, and no band has two turns more than another', () => {
  for (let files = 1; files <= 20; files++)
    for (let wanted = 0; wanted <= 24; wanted++) {
      const all = Array.from({ length: files }, (_, i) => clip(i))
      const bands = asBands(testIds(1), 'near' as never, all, wanted)
      expect(bands).toHaveLength(Math.min(files, Math.max(1, wanted)))
      expect(bands.flatMap(({ turns }) => turns.map(({ clips }) => clips['near' as never]))).toEqual(all)
      const counts = bands.map(({ turns }) => turns.length)
      expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(1)
      expect(bands.map(({ fromVelocity }) => fromVelocity)).toEqual(evenEdges(bands.length))
    }
})
