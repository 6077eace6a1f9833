import { applyBatch, makeChange, createKit, createPad, createSource, kitKind } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, TieId } from '@heliaster/core/kit'
import { asBands, asTurns, cellsOf, proposeLevel } from '@heliaster/core/place'

import { emptyHistory, remember, stepBack, stepForward } from '../documents/history'
import { makeId } from '../documents/make-id'
import { chokeEdits, duplicateEdits, spreadEdits } from './board/pad-edits'
import { loopEdits, padsToSend, sendEdits, updateEdits } from './cut/send-hits'
import type { CutHit } from './cut/use-source-cut'
import { addPoint, movePoint, newEnvelope, removePoint } from './shape/envelope-edits'
import { velocityAt } from './shell/PadFace'

const audio = 'b'.repeat(64) as never
const info = { name: 'x.wav', sampleRateHz: 48000, frames: 48000, channels: 1 }
const clip = {
  audio,
  startFrame: 0,
  endFrame: 100,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  gainDb: 0,
  reverse: false,
  invert: false,
  channel: 'left' as const,
}

function aPad(turns: number, how: typeof asTurns = asTurns): Pad {
  const pad = createPad(makeId, { name: 'Oar' }, 40)
  return {
    ...pad,
    bands: how(
      makeId,
      pad.rays[0].id,
      Array.from({ length: turns }, () => clip),
    ),
  }
}

function aKitOf(...pads: Pad[]): Kit {
  return { ...createKit(makeId, 'K'), pads }
}

const after = (kit: Kit, edits: KitEdit[]) => {
  const { doc, refused, inverses } = makeChange(kitKind, kit, edits)
  expect(refused).toEqual([])
  expect(applyBatch(kitKind, doc, inverses).doc).toEqual(kit)
  return doc
}

function hits(count: number): CutHit[] {
  return Array.from({ length: count }, (_, i) => ({
    marker: { id: `found-${i}` as never, frame: i * 1000, origin: 'found' as const, pinned: false, kept: false },
    hit: {
      onsetFrame: i * 1000,
      secondFrames: [],
      startFrame: i * 1000,
      endFrame: i * 1000 + 900,
      seconds: 0.02,
      peakDb: -6,
      loudnessDb: -40 + i,
      centreHz: 500,
      family: 'wood' as const,
      reason: '',
      attackSeconds: 0.001,
      warnings: [],
    },
  }))
}

test('hits are sent each to a pad, as turns, or as bands, and the kit never outgrows its 128 pads', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf(aPad(1))
  const each = after(kit, sendEdits(kit, source, padsToSend(kit, source, hits(3), { way: 'pads', order: 'time' })))
  expect(each.pads.slice(1).map((pad) => [pad.own.name, pad.notes[0]])).toEqual([['Wood 1', 36], ['Wood 2', 37], ['Wood 3', 38]]) // prettier-ignore
  expect(padsToSend(kit, source, hits(200), { way: 'pads', order: 'time' })).toHaveLength(127)
  expect(padsToSend(kit, source, hits(9), { way: 'turns', order: 'time' })[0].bands[0].turns).toHaveLength(9)
  expect(padsToSend(kit, source, hits(9), { way: 'bands', order: 'time', bandCount: 3 })[0].bands).toHaveLength(3)
})

test('slices of a loop become pads of one choke group and a groove that plays them on their beats; a start settles each new pad', () => {
  const grid = { kind: 'beats' as const, tempoBpm: 120, firstSeconds: 0, beats: 0.5 }
  const source = createSource(makeId, audio, info, 'Loop', { cut: { waterLine: 0.3, minGapSeconds: 0.06, grid } })
  const kit = aKitOf(aPad(1))
  const slices = hits(4).map((item, i) => ({ ...item, marker: { ...item.marker, frame: i * 12000 } }))
  const pads = padsToSend(kit, source, slices, { way: 'loop', order: 'time', start: { maxStrikes: 2 } })
  const made = after(kit, [...sendEdits(kit, source, pads), ...loopEdits(source, slices, pads)])
  expect(made.grooves[0]).toMatchObject({ stepsPerBeat: 4, lengthSteps: 16 })
  expect(made.grooves[0].strings.map(({ beads }) => beads[0].step)).toEqual([0, 2, 4, 6])
  expect(made.ties[0]).toMatchObject({ kind: 'chokeGroup', pads: pads.map((pad) => pad.id) })
  expect(made.pads.slice(1).every((pad) => pad.own.maxStrikes === 2)).toBe(true)
  expect(made.tempoBpm).toBe(kit.tempoBpm)
  const late = slices.map((item, i) => ({ ...item, marker: { ...item.marker, frame: i * 12000 + 2900, gridFrame: i * 12000 } }))
  const taken = after(kit, [...sendEdits(kit, source, pads), ...loopEdits(source, late, pads, 'groove-own' as never, true)])
  expect(taken.tempoBpm).toBe(120)
  expect(taken.grooves[0].id).toBe('groove-own')
  expect(taken.grooves[0].strings.map(({ beads }) => beads[0].step)).toEqual([0, 2, 4, 6]) // where the grid had them
})

test('an update brings a pad the place and the repairs of its hit, and leaves the level of a pad that goes by loudness', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf(aPad(1))
  const items = hits(3)
  const sent = (way: 'turns' | 'bands') =>
    after(kit, sendEdits(kit, source, padsToSend(kit, source, items, { way, order: 'time', bandCount: 2 })))
  const [first, ...rest] = items
  const repaired = [{ ...first, marker: { ...first.marker, kept: true, clip: { gainDb: 5, reverse: true } } }, ...rest]
  const clipOf = (changed: Kit) =>
    changed.pads[1].bands.flatMap((band) => band.turns).flatMap((turn) => Object.values(turn.clips)).find((clip) => clip !== 'intendedSilence' && clip.reverse) // prettier-ignore
  const turns = sent('turns')
  expect(updateEdits(turns, source, items)).toEqual([])
  expect(clipOf(after(turns, updateEdits(turns, source, repaired)))).toMatchObject({ gainDb: 5 })
  const bands = sent('bands')
  expect(clipOf(after(bands, updateEdits(bands, source, repaired)))).toMatchObject({ gainDb: 0 })
})

test('sending onto a pad replaces its clips and keeps its settings and its ray', () => {
  const source = createSource(makeId, audio, info, 'Walk')
  const kit = aKitOf({ ...aPad(2), own: { name: 'Kept', values: { pan: 0.4 } } })
  const [pad] = after(
    kit,
    sendEdits(kit, source, padsToSend(kit, source, hits(4), { way: 'turns', order: 'time', onto: kit.pads[0].id })),
  ).pads
  expect(pad.own).toEqual({ name: 'Kept', values: { pan: 0.4 } })
  expect(pad.bands[0].turns.every((turn) => pad.rays[0].id in turn.clips)).toBe(true)
})

test('turns spread to bands and back lose no clip, and velocity’s share shrinks as bands grow', () => {
  const kit = aKitOf(aPad(5))
  const spread = after(kit, spreadEdits(kit.pads[0], cellsOf(kit.pads[0])!, 'bands'))
  expect(spread.pads[0].bands).toHaveLength(5)
  expect(spread.pads[0].own.responses![0].amount).toBe(6)
  expect(after(spread, spreadEdits(spread.pads[0], cellsOf(spread.pads[0])!, 'turns')).pads[0].bands[0].turns).toHaveLength(5)
  const set = { ...kit.pads[0], own: { responses: [{ ...spread.pads[0].own.responses![0], amount: 17 }] } }
  expect(proposeLevel(set, 4)).toEqual([])
})

test('a duplicate has ids of its own and sounds the same clips; removing a pad leaves no tie or bead of it', () => {
  const kit = aKitOf(aPad(2), aPad(1))
  const [pad, other] = kit.pads
  const copied = after(kit, duplicateEdits(kit, pad)).pads[1]
  expect(copied.id).not.toBe(pad.id)
  expect(Object.values(copied.bands[0].turns[0].clips)).toEqual(Object.values(pad.bands[0].turns[0].clips))
  expect(copied.bands[0].turns[0].clips[copied.rays[0].id]).toBeDefined()
  const tied = after(kit, chokeEdits(kit, pad, 'new'))
  const both = after(tied, chokeEdits(tied, other, tied.ties[0].id as TieId))
  expect(both.ties[0]).toMatchObject({ pads: [pad.id, other.id] })
  expect(after(both, [{ type: 'removePad', padId: pad.id }]).ties[0]).toMatchObject({ pads: [other.id] })
  const twice = after(both, duplicateEdits(both, pad))
  expect(twice.ties[0]).toMatchObject({ pads: [pad.id, other.id, twice.pads[1].id] })
})

test('a strike nearer the star’s centre is softer, and each ring gives the velocities of its band', () => {
  const single = aPad(1)
  const layered = aPad(4, asBands)
  expect(velocityAt(single, 0)).toBeLessThan(velocityAt(single, 0.6))
  expect(velocityAt(single, 1)).toBe(127)
  expect(velocityAt(layered, 1)).toBe(127)
  for (let share = 0, last = 0; share <= 1; share += 0.02) {
    const velocity = velocityAt(layered, share)
    expect(velocity).toBeGreaterThanOrEqual(last)
    last = velocity
  }
})

test('a new envelope spans the hit, its points keep their order in time, and sustain follows its point', () => {
  const envelope = newEnvelope('level', 0.48)
  expect(envelope.points[2].seconds).toBeCloseTo(0.48)
  expect(movePoint(envelope, 1, 9, 4, 'level').points[1]).toMatchObject({ seconds: envelope.points[2].seconds - 0.0001, value: 1 }) // just before the next, which can still be taken
  const [grown, index] = addPoint({ ...envelope, sustain: 1 }, 0.01, 0.9, 'level')
  expect([index, grown.sustain]).toEqual([1, 2])
  expect(removePoint(grown, 1).sustain).toBe(1)
  expect(removePoint(grown, 2).sustain).toBeUndefined()
})

test('undo and redo walk the same steps, and a new step forgets what was undone', () => {
  const step = (n: number) => ({ edits: [n], inverses: [-n] })
  let history = remember(remember<number>(emptyHistory, step(1)), step(2))
  const back = stepBack(history)!
  expect(back.edits).toEqual([-2])
  expect(stepForward(back.history)).toEqual({ edits: [2], history })
  history = remember(back.history, step(3))
  expect(stepForward(history)).toBeUndefined()
})
