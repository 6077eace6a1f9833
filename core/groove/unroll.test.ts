/** @jest-environment node */
import { createOffline, EventType, renderOffline, toScore } from '../engine'
import type { StrikeRecord } from '../engine'
import { aKit, anImpulse, testIds } from '../kit/builders'
import type { Kit } from '../kit/kit'
import { grooveBeats, stepBeat } from '../kit/groove-time'
import { setDown } from './set-down'
import { randomGroove } from './testing/random-groove'
import { copyOfGroove } from './timing'
import { unrolled } from './unroll'

const RATE = 48000
const rig = aKit(Array.from({ length: 4 }, () => ({ bands: [[anImpulse(40)]] })))
const padIds = rig.kit.pads.map(({ id }) => id)

/** What the engine strikes in the first frames of a kit's song or first groove, by pads. */
function struck(kit: Kit, frames: number, sampleRateHz = RATE) {
  const { engine, loader } = createOffline(kit, sampleRateHz, (hash) => rig.audio.get(hash))
  const records: StrikeRecord[] = []
  renderOffline(engine, toScore([{ frame: 0, type: EventType.groove, padSlot: 0 }]), frames, 4096, (record) => records.push(record))
  const place = new Map(kit.pads.map(({ id }) => [loader.slotOf(id), id as string]))
  return records.map(({ frame, padSlot, velocity }) => `${frame} ${place.get(padSlot)} ${velocity}`).sort()
}

const said = (kit: Kit, what: Parameters<typeof unrolled>[1], beats: number, sampleRateHz = RATE) =>
  unrolled(kit, what, beats, sampleRateHz).map(({ frame, padId, velocity }) => `${frame} ${padId} ${velocity}`).sort() // prettier-ignore

test('the plain list and the engine strike the same, on the same frames, in random grooves and songs', () => {
  let strikes = 0
  for (let seed = 31; seed <= 60; seed++) {
    const grooves = [randomGroove(seed, padIds), randomGroove(seed + 500, padIds, 'other')]
    const isSong = seed % 2 === 0
    const song = isSong ? grooves.map(({ id }, i) => ({ id: `s${i}`, groove: id, laps: 1 + ((seed >> i) % 3) })) : []
    const kit: Kit = { ...rig.kit, seed, tempoBpm: 61.7 + seed * 2.3, grooves, song }
    const seconds = 5
    const beats = (seconds * kit.tempoBpm) / 60
    const list = said(kit, isSong ? 'song' : grooves[0].id, beats)
    expect([seed, struck(kit, Math.floor(beats * (60 / kit.tempoBpm) * RATE + 0.5))]).toEqual([seed, list])
    strikes += list.length
  }
  expect(strikes).toBeGreaterThan(800)
})

test('a lap set down as plain beads sounds in every lap as it did in that one', () => {
  let kept = 0
  for (let seed = 3; seed <= 40; seed++) {
    const groove = { ...randomGroove(seed, padIds), lengthSteps: 16, stepsPerBeat: 4 }
    const even = { ...groove, strings: groove.strings.map(({ lengthSteps: _l, stepsPerBeat: _d, ...string }) => string) }
    const kit: Kit = { ...rig.kit, seed, tempoBpm: 120, grooves: [even] }
    const lap = 2 + (seed % 3)
    const plain = setDown(kit, even, lap)
    expect(plain.strings.flatMap(({ beads }) => beads).filter(({ chance, when }) => chance !== undefined || when)).toEqual([])
    const first = (list: readonly { readonly beat: number; readonly velocity: number; readonly padId: string; readonly lap: number; readonly repeat: number }[], of: number) =>
      list.filter((one) => one.lap === of && one.repeat === 0).map((one) => `${one.padId} ${(one.beat - of * grooveBeats(even)).toFixed(5)} ${one.velocity}`).sort() // prettier-ignore
    const then = first(unrolled(kit, even.id, 40), lap)
    const now = unrolled({ ...kit, grooves: [plain] }, plain.id, 40)
    for (const other of [1, 4]) expect(first(now, other)).toEqual(then)
    kept += then.length
  }
  expect(kept).toBeGreaterThan(300)
})

test('strings of other lengths are set down as long as the groove', () => {
  const groove = { ...randomGroove(5, padIds), lengthSteps: 16, stepsPerBeat: 4, strings: [{ padId: padIds[0], lengthSteps: 3, stepsPerBeat: 4, beads: [{ id: 'b' as never, step: 0, velocity: 90 }] }] } // prettier-ignore
  const kit: Kit = { ...rig.kit, grooves: [groove] }
  const steps = (lap: number) => setDown(kit, groove, lap).strings[0].beads.map(({ step }) => step)
  expect([steps(0), steps(1)]).toEqual([[0, 3, 6, 9, 12, 15], [2, 5, 8, 11, 14]]) // prettier-ignore
})

test('a copy of a groove plays the same with beads of its own; by chance it may draw otherwise', () => {
  const groove = { ...randomGroove(12, padIds) }
  const sure = { ...groove, strings: groove.strings.map((string) => ({ ...string, beads: string.beads.map(({ chance: _c, ...bead }) => bead) })) } // prettier-ignore
  const copy = copyOfGroove(testIds(4), sure, 'Again')
  const kit: Kit = { ...rig.kit, grooves: [sure, copy] }
  expect(said(kit, copy.id, 20)).toEqual(said(kit, sure.id, 20))
  const ids = new Set(sure.strings.flatMap(({ beads }) => beads.map(({ id }) => id)))
  for (const { beads } of copy.strings) for (const { id, when } of beads) for (const one of [id, when?.after, when?.unless]) expect(one && ids.has(one)).toBeFalsy() // prettier-ignore
})

test('for half an hour every step lies within half a frame of its formula, at odd tempi and swings', () => {
  for (const [tempoBpm, swing] of [
    [20, 0.5],
    [97.3, 0.611],
    [133.33, 2 / 3],
    [400, 0.75],
  ] as const) {
    const groove = { ...randomGroove(1, padIds), lengthSteps: 16, stepsPerBeat: 4, swing, strings: [{ padId: padIds[0], beads: Array.from({ length: 16 }, (_, step) => ({ id: `b${step}` as never, step, velocity: 100 })) }] } // prettier-ignore
    const kit: Kit = { ...rig.kit, tempoBpm, grooves: [groove] }
    const framesPerBeat = (60 / tempoBpm) * RATE
    const list = unrolled(kit, groove.id, 30 * tempoBpm, RATE)
    expect(Math.abs(list.length - 4 * 30 * tempoBpm)).toBeLessThanOrEqual(1)
    const farthest = Math.max(...list.map(({ frame, lap }, i) => Math.abs(frame - (lap * 4 + stepBeat(groove, {}, i % 16)) * framesPerBeat))) // prettier-ignore
    expect(farthest).toBeLessThanOrEqual(0.5 + 1e-6)
  }
})

test('a song of half an hour is played strike by strike as the plain list says', () => {
  const grooves = [randomGroove(71, padIds), randomGroove(72, padIds, 'other')]
  const song = [2, 3].map((laps, i) => ({ id: `s${i}`, groove: grooves[i].id, laps }))
  const kit: Kit = { ...rig.kit, seed: 5, tempoBpm: 123.4, grooves, song }
  const beats = 30 * kit.tempoBpm
  const rate = 8000 // a frame is coarser, and the half hour as long
  const list = said(kit, 'song', beats, rate)
  expect(list.length).toBeGreaterThan(5000)
  expect(struck(kit, Math.floor(beats * (60 / kit.tempoBpm) * rate + 0.5), rate)).toEqual(list)
})
