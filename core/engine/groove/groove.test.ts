import { aKit, anImpulse, seeded } from '../../kit/builders'
import type { BeadId, GrooveId } from '../../kit/ids'
import type { Bead, Groove, Kit } from '../../kit/kit'
import { applyEdit } from '../../kit/kit-edit'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import type { StrikeRecord } from '../strike-record'
import { EventType } from '../program/codes'
import { DoneField } from '../program/layout'
import { doneOf } from '../memory/memory'
import { act, render } from '../render'
import { chance, hashId, Purpose } from '../strike/chance'

const RATE = 48000
const bead = (step: number, more: Partial<Bead> = {}): Bead => ({ id: `bead-${step}` as BeadId, step, velocity: 100, ...more })
const groove = (beads: Bead[][], more: Partial<Groove> = {}, pads = rig.kit.pads): Groove => ({
  id: 'groove-1' as GrooveId,
  name: '',
  lengthSteps: 16,
  stepsPerBeat: 4,
  swing: 0.5,
  strings: beads.map((list, i) => ({ padId: pads[i].id, beads: list })),
  ...more,
})
const rig = aKit(Array.from({ length: 4 }, () => ({ bands: [[anImpulse(40)], [anImpulse(40)]] })))
const BEGIN: ScoreEvent = { frame: 1000, type: EventType.groove, padSlot: 0 }

function heard(kit: Kit, seconds: number, events: ScoreEvent[] = [BEGIN], block = 4096) {
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  const records: StrikeRecord[] = []
  renderOffline(engine, toScore(events), seconds * RATE, block, (record) => records.push(record))
  const place = new Map(kit.pads.map((pad, i) => [loader.slotOf(pad.id), i]))
  return records.map(({ frame, padSlot, velocity }) => [frame, place.get(padSlot)!, velocity])
}

/** What a groove sounds, worked out lap by lap and sorted, from what docs/kit-format.md says of beads; frames from its beginning. */
function modelled(kit: Kit, given: Groove, frames: number): number[][] {
  const perBeat = (60 / kit.tempoBpm) * RATE
  const times = given.strings.flatMap((string, place) => {
    const division = string.stepsPerBeat ?? given.stepsPerBeat
    const length = string.lengthSteps === undefined ? given.lengthSteps / given.stepsPerBeat : string.lengthSteps / division
    const out: { frame: number; at: number; place: number; lap: number; bead: Bead; division: number }[] = []
    for (let lap = 0; lap * length * perBeat < frames + length * perBeat; lap++)
      for (const one of string.beads) {
        if (one.step / division >= length - 1e-9) continue
        const late = one.step % 2 === 1 ? 2 * (string.swing ?? given.swing) - 1 : 0
        const at = lap * length + (one.step + late + (one.offset ?? 0)) / division
        out.push({ frame: Math.max(0, Math.floor(at * perBeat + 0.5)), at, place, lap, bead: one, division })
      }
    return out
  })
  times.sort((a, b) => a.frame - b.frame || a.place - b.place || a.at - b.at)
  const sounded = new Map<string, boolean>()
  const occasions = new Map<string, number>()
  const out: { frame: number; order: number; strike: number[] }[] = []
  times.forEach(({ frame, place, lap, bead: one, division }, order) => {
    const { when, repeats } = one
    const occasion = occasions.get(one.id) ?? 0
    occasions.set(one.id, occasion + 1)
    const inLap = !when?.laps || when.laps.in.includes((lap % when.laps.of) + 1)
    const others = (!when?.after || sounded.get(when.after) === true) && (!when?.unless || sounded.get(when.unless) !== true)
    const lucky = chance(kit.seed, hashId(one.id) | 0, occasion, Purpose.bead) < (one.chance ?? 1)
    sounded.set(one.id, inLap && others && lucky)
    if (!sounded.get(one.id)) return
    const count = repeats?.count ?? 1
    for (let i = 0; i < count; i++) {
      const k = 64 ** -(repeats?.draw ?? 0)
      const u = i / count
      const share = u / (u + k * (1 - u))
      const later = Math.floor(share * ((repeats?.steps ?? 1) / division) * perBeat + 0.5)
      const grown = count > 1 ? one.velocity * (1 + ((repeats?.rise ?? 0) * i) / (count - 1)) : one.velocity
      const velocity = i === 0 ? one.velocity : Math.min(127, Math.max(1, Math.floor(grown + 0.5)))
      out.push({ frame: frame + later, order: order * 100 + i, strike: [frame + later, place, velocity] })
    }
  })
  return out.filter(({ frame }) => frame < frames).map(({ strike }) => strike).sort(byValue) // prettier-ignore
}

const byValue = (a: readonly number[], b: readonly number[]) => a[0] - b[0] || a[1] - b[1] || a[2] - b[2]

function randomGroove(random: () => number): Groove {
  const pick = (most: number) => Math.floor(random() * most)
  const ids: BeadId[] = []
  const lengthSteps = 1 + pick(16)
  const strings = [0, 1, 2, 3].map((place) => {
    const own = random() < 0.5 ? { lengthSteps: 1 + pick(12), stepsPerBeat: 1 + pick(6) } : {}
    const beads = Array.from({ length: 16 }, (_, step): Bead | undefined => {
      if (random() < 0.5) return undefined
      const id = `b${place}.${step}` as BeadId
      const some = <T>(share: number, value: () => T): T | undefined => (random() < share ? value() : undefined)
      const other = () => ids[pick(ids.length)]
      const when = { laps: some(0.2, () => ({ of: 3, in: [1, 3] })), after: ids.length > 0 ? some(0.2, other) : undefined, unless: ids.length > 0 ? some(0.2, other) : undefined } // prettier-ignore
      ids.push(id)
      return {
        id,
        step,
        velocity: 1 + pick(127),
        offset: some(0.3, () => random() - 0.5),
        chance: some(0.3, random),
        when,
        repeats: some(0.2, () => ({ count: 1 + pick(5), steps: 1 + pick(3), rise: random() * 2 - 1, draw: random() * 2 - 1 })),
      }
    }).filter((one) => one !== undefined)
    return { padId: rig.kit.pads[place].id, swing: random() < 0.3 ? 0.5 + random() / 4 : undefined, ...own, beads }
  })
  return { ...groove([]), lengthSteps, stepsPerBeat: 1 + pick(4), swing: 0.5 + random() / 4, strings }
}

test('random grooves strike the pads, on the frames and as strong as their rules say, in blocks of any size', () => {
  let strikes = 0
  for (let seed = 1; seed <= 24; seed++) {
    const random = seeded(seed)
    const given = randomGroove(random)
    const kit: Kit = { ...rig.kit, seed, tempoBpm: 60 + Math.floor(random() * 200), grooves: [given] }
    const seconds = 4
    const expected = modelled(kit, given, seconds * RATE - 1000)
    for (const block of seed % 10 === 0 ? [4096, 97] : [4096]) {
      const got = heard(kit, seconds, [BEGIN], block).map(([frame, ...rest]) => [frame - 1000, ...rest])
      expect([seed, got.sort(byValue)]).toEqual([seed, expected])
    }
    strikes += expected.length
  }
  expect(strikes).toBeGreaterThan(900)
})

test('an edit while it plays is heard from the next bead on, and neither loses nor doubles one', () => {
  const given = groove([[bead(0), bead(4), bead(8), bead(12)]])
  const kit: Kit = { ...rig.kit, tempoBpm: 120, grooves: [given] }
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  const frames: number[] = []
  const play = (until: number) => {
    const from = doneOf(engine.memory, DoneField.strikes)
    while (engine.frame < until) render(engine, new Float32Array(100), new Float32Array(100), 0, 100)
    return doneOf(engine.memory, DoneField.strikes) - from
  }
  act(engine, toScore([{ ...BEGIN, frame: 0 }]))
  frames.push(play(24000 * 2)) // beats 0 and 1; that of 48000 is yet to come
  const more = { ...kit, grooves: [{ ...given, strings: [{ ...given.strings[0], beads: [...given.strings[0].beads, bead(10)] }] }] }
  loader.load(more)
  frames.push(play(24000 * 4)) // beats 2, 2.5 and 3
  loader.load({ ...more, tempoBpm: 240 })
  frames.push(play(24000 * 6)) // four beats in half the time, and the new one
  expect(frames).toEqual([2, 3, 5])
  act(engine, toScore([{ frame: 0, type: EventType.stopGroove, padSlot: 0 }]))
  expect(play(24000 * 8)).toBe(0)
})

test('a song plays its grooves one after the other, each so many laps, and begins anew', () => {
  const grooves = [
    groove([[bead(0)]], { lengthSteps: 4 }),
    { ...groove([[], [bead(0), bead(2)]], { lengthSteps: 4 }), id: 'groove-2' as GrooveId },
  ]
  const song = [{ id: 'a', groove: grooves[0].id, laps: 2 }, { id: 'b', groove: grooves[1].id, laps: 1 }] // prettier-ignore
  const kit: Kit = { ...rig.kit, tempoBpm: 120, grooves, song }
  const pads = heard(kit, 3.2).map(([frame, pad]) => [(frame - 1000) / 24000, pad])
  expect(pads).toEqual([[0, 0], [1, 0], [2, 1], [2.5, 1], [3, 0], [4, 0], [5, 1], [5.5, 1], [6, 0]]) // prettier-ignore
})

test('what is set on a bead is of its strike alone: level, turn, band and clip', () => {
  const [pad] = rig.kit.pads
  const [low, high] = pad.bands
  const [clip] = Object.values(high.turns[0].clips)
  const beads = [
    bead(0),
    bead(2, { locks: [{ param: 'gainDb', value: -20, mode: 'add' }] }),
    bead(4, { locks: [{ param: 'gainDb', value: -40, mode: 'set' }] }),
    bead(6, { band: low.id }),
    bead(8, { turn: low.turns[0].id }),
    bead(10, { clip: { ...(clip as Exclude<typeof clip, 'intendedSilence'>), gainDb: -6.020599913279624 } }),
    bead(12),
  ]
  const quiet = { ...pad, own: { ...pad.own, values: { gainDb: -10 } } }
  const kit: Kit = { ...rig.kit, pads: [quiet], tempoBpm: 120, grooves: [groove([beads])] }
  const { engine } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  const bands: number[] = []
  const [left] = renderOffline(engine, toScore([{ ...BEGIN, frame: 0 }]), 90000, 512, ({ band }) => bands.push(band))
  const dB = [0, 2, 4, 6, 8, 10, 12].map((step) => Math.round(20 * Math.log10(left[step * 6000] / 0.5)))
  expect(dB).toEqual([-10, -30, -40, -10, -10, -16, -10])
  expect(bands.slice(0, 7)).toEqual([1, 1, 1, 0, 0, 1, 1])
})

test('the feel of another groove is laid over by its shares', () => {
  const feel = { ...groove([[bead(0, { velocity: 20 }), bead(4, { offset: 0.5, velocity: 60 })]]), id: 'feel' as GrooveId }
  const given = groove([[bead(0), bead(4), bead(8)]], { feel: { grooveId: feel.id, timing: 0.5, level: 1 } })
  const kit: Kit = { ...rig.kit, tempoBpm: 120, grooves: [given, feel] }
  expect(heard(kit, 1.5).map(([frame, , velocity]) => [frame - 1000, velocity])).toEqual([[0, 20], [24000 + 1500, 60], [48000, 100]]) // prettier-ignore
})

test('the groove stops with what it holds, and an edit of a groove keeps the others of the kit as they are', () => {
  const held = aKit([{ own: { mode: 'loopUntilLetGo' }, bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(4000).fill(0.25)] }]] }])
  const kit: Kit = { ...held.kit, grooves: [groove([[bead(0)]], {}, held.kit.pads)] }
  const { engine } = createOffline(kit, RATE, (hash) => held.audio.get(hash))
  const stop: ScoreEvent = { frame: 20000, type: EventType.stopGroove, padSlot: 0 }
  const [left] = renderOffline(engine, toScore([{ ...BEGIN, frame: 0 }, stop]), 30000)
  expect([left[19000], left[21000]]).toEqual([0.25, 0])
  const removed = applyEdit(kit, { type: 'removeGroove', grooveId: kit.grooves[0].id })
  expect(heard({ ...removed, pads: [] }, 1)).toEqual([])
})

test('a lane leads the level of the kit or a bus through the lap, in blocks of any size, and lets go of it at the end', () => {
  const steady = aKit([{ bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(2 * RATE).fill(0.25)] }]] }])
  const lane = { id: 'lane', address: { scope: 'kit' as const, param: 'gainDb' }, points: [{ step: 4, value: -20, bend: 0 }, { step: 8, value: 0, bend: 0 }] } // prettier-ignore
  const given = groove([[]], { lengthSteps: 16, lanes: [lane] }, steady.kit.pads)
  const kit: Kit = { ...steady.kit, tempoBpm: 120, values: { gainDb: -6 }, grooves: [given] }
  const play = (block: number) => {
    const { engine } = createOffline(kit, RATE, (hash) => steady.audio.get(hash))
    const events = [
      { ...BEGIN, frame: 0 },
      { frame: 0, type: EventType.strike, padSlot: 0, velocity: 127 },
      { frame: 60000, type: EventType.stopGroove, padSlot: 0 },
    ]
    return renderOffline(engine, toScore(events), 90000, block)[0]
  }
  const left = play(4096)
  const dB = [12000, 24000 + 12000, 50000, 80000].map((frame) => Math.round(10 * 20 * Math.log10(left[frame] / 0.25)) / 10 + 0)
  // before its first point it stands there; half way between two it is between them (5 ms late); after, at the last; then the fader's
  expect([dB[0], dB[2], dB[3]]).toEqual([-20, 0, -6])
  expect(dB[1]).toBeCloseTo(-10.2, 1)
  expect(left.every((sample, i) => i === 0 || Math.abs(sample - left[i - 1]) < 0.002)).toBe(true)
  expect(play(101)).toEqual(left)
})

test('begun on a beat, a groove sounds from there on as one that began so much earlier', () => {
  const beads = [[0, 3, 4, 7, 10, 15].map((step) => bead(step))]
  const kit = { ...rig.kit, grooves: [groove(beads)] }
  const whole = heard(kit, 12, [{ ...BEGIN, frame: 0 }])
  const perBeat = (60 / kit.tempoBpm) * RATE
  for (const beat of [0, 0.5, 1, 2.75, 4, 5.2]) {
    const from = Math.round(beat * perBeat)
    const late = heard(kit, 3, [{ ...BEGIN, frame: 0, velocity: beat }]).map(([frame]) => frame)
    const expected = whole.map(([frame]) => frame - from).filter((frame) => frame >= 0)
    expect(late.length).toBeGreaterThan(4)
    late.forEach((frame, i) => expect(Math.abs(frame - expected[i])).toBeLessThanOrEqual(1))
  }
})

test('a song that is begun late begins in the section on which that beat lies', () => {
  const first = groove([[bead(0)]], { id: 'groove-a' as GrooveId })
  const second = groove([[], [bead(2)]], { id: 'groove-b' as GrooveId })
  const song = [first, second].map(({ id }, i) => ({ id: `part-${i}`, groove: id, laps: 2 }))
  const kit = { ...rig.kit, grooves: [first, second], song }
  const places = (beat: number) => heard(kit, 5, [{ ...BEGIN, frame: 0, velocity: beat }]).map(([, place]) => place)
  expect(places(0)[0]).toBe(0)
  expect(places(8)[0]).toBe(1)
  expect(places(16)[0]).toBe(0)
})

test('led by another clock, however it trembles, every bead sounds once, in its order, within the tremble of its place', () => {
  for (let seed = 1; seed < 12; seed++) {
    const random = seeded(seed)
    const bpm = 70 + 90 * random()
    const perBeat = (60 / bpm) * RATE
    const kit = { ...rig.kit, grooves: [groove([[0, 4, 6, 9, 12].map((step) => bead(step)), [2, 10].map((step) => bead(step))])] }
    const tremble = 400
    const leads = Array.from({ length: 100 }, (_, i): ScoreEvent => {
      const beat = (i + 1) / 6
      const off = Math.round(tremble * (2 * random() - 1))
      return { frame: Math.round(1000 + beat * perBeat) + off, type: EventType.leadGroove, padSlot: 0, velocity: beat, key: perBeat }
    })
    const seconds = Math.floor((16 * perBeat) / RATE)
    const sounded = heard(kit, seconds, [BEGIN, ...leads])
    const length = 4
    const expected = Array.from({ length: 5 }, (_, lap) => [0, 2, 4, 6, 9, 10, 12].map((step) => 1000 + (lap * length + step / 4) * perBeat)).flat() // prettier-ignore
    expect(sounded.length).toBeGreaterThan(20)
    sounded.forEach(([frame], i) => expect(Math.abs(frame - expected[i])).toBeLessThanOrEqual(tremble + 1))
  }
})

test('an engine that has seen many edits strikes as one that begins with the last of them', () => {
  for (let seed = 1; seed <= 6; seed++) {
    const random = seeded(seed * 13)
    let kit: Kit = { ...rig.kit, seed, tempoBpm: 150, grooves: [randomGroove(random)] }
    const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
    for (let edit = 0; edit < 12; edit++) {
      const [given] = kit.grooves
      const at = Math.floor(random() * 4)
      const strings = given.strings.map((string, i) => (i === at ? { ...string, beads: string.beads.map((one) => ({ ...one, velocity: 1 + Math.floor(random() * 127) })) } : string))
      const timing = edit % 4 === 0 ? { swing: 0.5 + random() / 4, stepsPerBeat: 1 + Math.floor(random() * 4) } : {}
      kit = { ...kit, grooves: [{ ...given, ...timing, strings }] }
      loader.load(kit)
      render(engine, new Float32Array(64), new Float32Array(64), 0, 64)
    }
    const records: StrikeRecord[] = []
    const from = engine.frame
    renderOffline(engine, toScore([{ ...BEGIN, frame: from }]), 3 * RATE, 4096, (record) => records.push(record))
    const fresh = heard(kit, 3, [{ ...BEGIN, frame: 0 }]).map(([frame, , velocity]) => [frame, velocity])
    const first = records[0]!.frame - fresh[0]![0]
    expect(records.map(({ frame, velocity }) => [frame - first, velocity]).slice(0, 30)).toEqual(fresh.slice(0, 30))
  }
}) // prettier-ignore

test('beads that are gone give their places back: however many there were, the next ones sound', () => {
  const beads = (batch: number) => Array.from({ length: 1000 }, (_, i) => ({ id: `batch-${batch}.${i}` as BeadId, step: i, velocity: 100 }))
  const kitOf = (batch: number): Kit => ({ ...rig.kit, tempoBpm: 240, grooves: [groove([beads(batch)], { lengthSteps: 1024 })] })
  const { engine, loader } = createOffline(kitOf(0), RATE, (hash) => rig.audio.get(hash))
  for (let batch = 1; batch <= 20; batch++) {
    loader.load(kitOf(batch))
    render(engine, new Float32Array(64), new Float32Array(64), 0, 64)
  }
  const records: StrikeRecord[] = []
  renderOffline(engine, toScore([{ ...BEGIN, frame: engine.frame }]), RATE, 4096, (record) => records.push(record))
  expect(records).toHaveLength(16)
})
