import { createOffline, EventType, renderOffline, toScore } from '../engine'
import { createBand, createKit, createPad, createTurn, wholeClip } from '../kit'
import type { AudioHash, Kit, OwnSettings, Pad, PadId, Tie, TieId } from '../kit'
import { testIds } from '../kit/testing'
import { whyStoppedWords } from '.'

const RATE = 48000
const makeId = testIds(41)
const hash = 'b'.repeat(64) as AudioHash
const audio = { sampleRateHz: RATE, channels: [new Float32Array(RATE).fill(0.01)] }
const padOf = (name: string, own: OwnSettings = {}): Pad => {
  const pad = createPad(makeId, { name, responses: [], ...own })
  return { ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0]!.id]: wholeClip(hash, { frames: RATE, channels: 1 }) })])] } // prettier-ignore
}
const [bow, half, oar, rope] = [padOf('Bow'), padOf('Half open'), padOf('Oar', { mode: 'hold' }), padOf('Rope')]
const ties: Tie[] = [
  { id: 'tie-o' as TieId, kind: 'openings', controller: 4, steps: [{ pad: bow.id, from: 0 }, { pad: half.id, from: 64 }], chokeAt: 3 },
  { id: 'tie-l' as TieId, kind: 'choke', from: rope.id, to: [oar.id], fadeSeconds: 0.01, on: 'letGo' },
  { id: 'tie-p' as TieId, kind: 'choke', from: rope.id, to: [half.id], fadeSeconds: 0.01, on: 'pressure' },
] // prettier-ignore
const kit: Kit = { ...createKit(makeId, 'Stops'), pads: [bow, half, oar, rope], ties }

test('what was done is one sentence each; what stops nothing says nothing', () => {
  expect(whyStoppedWords(kit, { type: 'stop' })).toEqual(['Everything was stopped by hand.'])
  expect(whyStoppedWords(kit, { type: 'stop', padId: bow.id })).toEqual(['Bow was stopped by hand.'])
  expect(whyStoppedWords(kit, { type: 'letGo', padId: bow.id })).toEqual([])
  expect(whyStoppedWords(kit, { type: 'letGo', padId: oar.id })).toEqual(['Oar was let go of: what it held ends.'])
  expect(whyStoppedWords(kit, { type: 'letGo', padId: rope.id })).toEqual(['Rope was let go of, and that silenced Oar.'])
  expect(whyStoppedWords(kit, { type: 'press', padId: rope.id, before: 0.5, value: 0.6 })).toEqual(['Rope was pressed, and that silenced Half open.']) // prettier-ignore
  expect(whyStoppedWords(kit, { type: 'press', padId: rope.id, before: 0.6, value: 0.9 })).toEqual([])
  expect(whyStoppedWords(kit, { type: 'control', control: 4, before: 90, value: 3 })).toEqual(['Controller 4 closed: Half open stopped, Bow may sound.']) // prettier-ignore
  for (const [control, before, value] of [[4, 3, 0], [4, 90, 4], [5, 90, 0]] as const) expect(whyStoppedWords(kit, { type: 'control', control, before, value })).toEqual([]) // prettier-ignore
  expect(whyStoppedWords(kit, { type: 'letGo', padId: 'gone' as PadId })).toEqual([])
})

test('the engine stops what the words say, and nothing where they say nothing', () => {
  /** Whether a pad that was struck still sounds a while after something was done. */
  const sounds = (pad: Pad, done: { type: number; padSlot?: Pad; note?: number; velocity?: number }, held?: Pad) => {
    const { engine, loader } = createOffline(kit, RATE, () => audio)
    const slotOf = (one?: Pad) => (one ? loader.slotOf(one.id) : -1)
    const score = toScore([
      { frame: 0, type: EventType.controller, padSlot: -1, note: 4, velocity: 90 },
      ...[pad, ...(held ? [held] : [])].map((one, i) => ({
        frame: 1,
        type: EventType.strike,
        padSlot: slotOf(one),
        velocity: 90,
        key: i + 1,
      })),
      { frame: 4800, key: 0, note: -1, velocity: 0, ...done, padSlot: slotOf(done.padSlot) },
    ])
    const [left] = renderOffline(engine, score, 24000, 512)
    return left.subarray(20000).some((sample) => Math.abs(sample) > 1e-6)
  }
  expect(sounds(half, { type: EventType.stopAll })).toBe(false)
  expect(sounds(half, { type: EventType.stopPad, padSlot: half })).toBe(false)
  expect(sounds(half, { type: EventType.release, padSlot: half })).toBe(true)
  expect(sounds(oar, { type: EventType.release, padSlot: oar })).toBe(false)
  expect(sounds(half, { type: EventType.controller, note: 4, velocity: 3 })).toBe(false)
  expect(sounds(half, { type: EventType.controller, note: 4, velocity: 4 })).toBe(true)
})
