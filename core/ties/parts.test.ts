import fc from 'fast-check'

import { applyEdit, createKit, kitSchema, filledPad, wholeClip } from '../kit'
import type { AudioHash, Kit } from '../kit'
import { testIds } from '../kit/testing'
import { evenAgain, laidInParts, onOtherPad, partSpans, SHORTEST_PART_FRAMES, splitPart, withBorder, withoutPart } from '.'
import type { PartsTie } from '.'

const makeId = testIds(44)
const audio = 'c'.repeat(64) as AudioHash

function laid(count: number, frames: number, kit: Kit = createKit(makeId, 'Parts')) {
  const info = { name: 'rope.wav', sampleRateHz: 48000, frames, channels: 1 }
  const made = laidInParts(makeId, kit, { name: 'Rope', clip: wholeClip(audio, info), audio, info }, count)
  const next = made.edits.reduce(applyEdit, kit)
  return { kit: next, pads: made.pads, tie: next.ties.find((tie): tie is PartsTie => tie.kind === 'parts') }
}

type Step = readonly [kind: 'border' | 'split' | 'join' | 'even' | 'pad', place: number, at: number]
const steps: fc.Arbitrary<Step[]> = fc.array(
  fc.tuple(fc.constantFrom('border', 'split', 'join', 'even', 'pad'), fc.nat(40), fc.nat(200_000)),
  { maxLength: 30 },
)

function stepped(tie: PartsTie, kit: Kit, [kind, where, at]: Step): PartsTie {
  const place = where % tie.parts.length
  if (kind === 'border') return withBorder(tie, place, at)
  if (kind === 'split') return splitPart(makeId, tie, place)
  if (kind === 'join') return withoutPart(tie, place)
  return kind === 'even' ? evenAgain(tie) : onOtherPad(tie, place, kit.pads[at % kit.pads.length]!.id)
}

test('even parts lie one after another over the whole, each on a pad of its own that sounds it', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 32 }), fc.integer({ min: 64, max: 500_000 }), (count, frames) => {
      const { kit, pads, tie } = laid(count, frames)
      expect(pads).toHaveLength(Math.min(count, Math.floor(frames / SHORTEST_PART_FRAMES)))
      const spans = partSpans(tie!)
      expect([spans[0]!.startFrame, spans.at(-1)!.endFrame]).toEqual([0, frames])
      spans.slice(1).forEach(({ startFrame }, i) => expect(startFrame).toBe(spans[i]!.endFrame))
      const lengths = spans.map(({ startFrame, endFrame }) => endFrame - startFrame)
      expect(Math.max(...lengths) - Math.min(...lengths)).toBeLessThanOrEqual(1)
      pads.forEach((pad, i) => {
        const [clip] = filledPad(kit, pad).bands[0]!.turns.flatMap((turn) => Object.values(turn.clips))
        expect(clip).toMatchObject(spans[i]!)
      })
    }),
  )
})

test('whatever is drawn, parted and joined: nothing of the recording is lost or sounds twice, and no part is too short', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 8 }), steps, (count, list) => {
      const { kit, tie } = laid(count, 100_000)
      const drawn = list.reduce((now, step) => stepped(now, kit, step), tie!)
      const spans = partSpans(drawn)
      expect([spans[0]!.startFrame, spans.at(-1)!.endFrame]).toEqual([0, 100_000])
      spans.slice(1).forEach(({ startFrame }, i) => expect(startFrame).toBe(spans[i]!.endFrame))
      for (const { startFrame, endFrame } of spans) expect(endFrame - startFrame).toBeGreaterThanOrEqual(SHORTEST_PART_FRAMES / 2)
      expect(new Set(drawn.parts.map(({ id }) => id)).size).toBe(drawn.parts.length)
      const next = applyEdit(kit, { type: 'putTie', tie: drawn })
      expect(kitSchema.safeParse(next).error).toBeUndefined()
      for (const pad of kit.pads)
        expect(filledPad(next, pad).bands.flatMap(({ turns }) => turns)).toHaveLength(
          drawn.parts.filter((part) => part.pad === pad.id).length,
        )
    }),
  )
})

test('a border that is drawn moves alone, and even parts come back', () => {
  const { tie } = laid(4, 80_000)
  const drawn = withBorder(tie!, 1, 50_000)
  expect(partSpans(drawn).map(({ endFrame }) => endFrame)).toEqual([20_000, 50_000, 60_000, 80_000])
  expect(partSpans(withBorder(drawn, 1, 99_999)).map(({ endFrame }) => endFrame)[1]).toBe(60_000 - SHORTEST_PART_FRAMES)
  expect(evenAgain(drawn)).toEqual(tie)
})

test('a full kit takes no parts, one that is nearly full as many as it has room for', () => {
  const full = laid(32, 100_000)
  const more = [1, 2].reduce(({ kit }) => laid(32, 100_000, kit), full)
  expect(laid(40, 100_000, more.kit).pads).toHaveLength(32)
  const brim = laid(40, 100_000, more.kit)
  expect(laid(8, 100_000, brim.kit)).toMatchObject({ pads: [], kit: brim.kit })
})
