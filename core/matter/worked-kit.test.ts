import type { Audio } from '../audio'
import { createOffline, EventType, renderOffline, toScore, withWorked, workRecipe } from '../engine'
import { applyEdit, clipsOfPad, createBand, createIds, createKit, createPad, createTurn, kitSchema, mapClips, wholeClip } from '../kit'
import type { AudioHash, Clip, Kit, KitEdit, MatterStep, Pad } from '../kit'
import { canPart, partRay, partingStart, recipeOf, workedClip, workedKit } from '.'
import { differenceDb, madeStrike, RATE } from './testing'

let seed = 3
const draw = () => (seed = (seed * 16807) % 2147483647) / 2147483647
const makeId = createIds(draw)
const HASH = 'a'.repeat(64) as AudioHash
const strike = madeStrike({ hz: 180, seconds: 0.25, noise: 0.3, seed: 5 })
const audioOf = (hash: AudioHash): Audio | undefined => (hash === HASH ? { sampleRateHz: RATE, channels: [strike] } : undefined)
const step = (kind: MatterStep['kind'], values: MatterStep['values'], more: Partial<MatterStep> = {}): MatterStep => ({ id: `s-${kind}`, kind, values, bypass: false, ...more }) // prettier-ignore

function kitOf(clip: Partial<Clip> = {}): { kit: Kit; pad: Pad; clip: Clip } {
  const info = { name: 'keel.wav', sampleRateHz: RATE, frames: strike.length, channels: 1 }
  const own = createPad(makeId, { name: 'Keel', responses: [], rootNote: 48 })
  const whole = { ...wholeClip(HASH, info), ...clip }
  const pad = { ...own, bands: [createBand(makeId, 1, [createTurn(makeId, { [own.rays[0]!.id]: whole })])] }
  return { kit: { ...createKit(makeId, 'Boat'), audio: { [HASH]: info }, pads: [pad] }, pad, clip: whole }
}

const playedMono = (kit: Kit, pad: Pad, seconds: number, note = -1, from = audioOf): Float32Array => {
  const { engine, loader } = createOffline(kit, RATE, from)
  const frames = Math.round(seconds * RATE)
  const tap = { left: new Float32Array(frames), right: new Float32Array(frames) }
  renderOffline(
    engine,
    toScore([{ frame: 0, type: EventType.strike, padSlot: loader.slotOf(pad.id), velocity: 127, note }]),
    frames,
    4096,
    { tap },
  )
  return tap.left
}

test('a kit without worked clips is itself; one with them keeps the pads that have none, and gives the same pads again', () => {
  const plain = kitOf()
  expect(workedKit(plain.kit)).toBe(plain.kit)
  const { kit, pad } = kitOf({ process: [step('time', { lengthPercent: 150 })] })
  const both = { ...kit, pads: [plain.pad, pad] }
  const worked = workedKit(both)
  expect(worked.pads[0]).toBe(plain.pad)
  expect(worked.pads[1]).not.toBe(pad)
  expect(workedKit(both).pads).toBe(worked.pads)
  expect(workedKit(worked)).toBe(worked)
})

test('what is bypassed is not worked; other settings, another key; a step is called nothing by its id', () => {
  const { kit, clip } = kitOf()
  const keyOf = (process: MatterStep[]) => workedClip(kit, { ...clip, process }).audio
  expect(keyOf([step('time', { lengthPercent: 150 }, { bypass: true })])).toBe(HASH)
  const one = keyOf([step('time', { lengthPercent: 150 })])
  expect(one).not.toBe(HASH)
  expect(keyOf([step('time', { lengthPercent: 150 }, { id: 'other' })])).toBe(one)
  expect(keyOf([step('time', { lengthPercent: 151 })])).not.toBe(one)
  expect(recipeOf(one)?.clip.audio).toBe(HASH)
})

test.each([
  ['time', { lengthPercent: 160, pitchCents: 300 }],
  ['grains', { lengthPercent: 80 }],
  ['resonances', { movePercent: 60 }],
  ['noise', { anew: 1, lengthPercent: 200 }],
] as const)('the clip is as long as its sound comes out: %s', (kind, values) => {
  const { kit, clip } = kitOf({ startFrame: 100 })
  const made = workedClip(kit, { ...clip, process: [step(kind, values), step('time', { lengthPercent: 90 }, { id: 'next' })] })
  const result = workRecipe(recipeOf(made.audio)!, audioOf(HASH)!)
  expect(result.ok && result.audio.channels[0]!.length).toBe(made.endFrame)
  expect(made.startFrame).toBe(0)
})

test('the engine plays a worked clip as its matter was worked, after reverse, fades and level', () => {
  const { kit, pad, clip } = kitOf({ process: [step('time', { lengthPercent: 150 })], reverse: true, fadeOutSeconds: 0.05, gainDb: -6 })
  const made = workedClip(kit, clip)
  const result = workRecipe(recipeOf(made.audio)!, audioOf(HASH)!)
  if (!result.ok) throw new Error(result.message)
  const wanted = result.audio.channels[0]!.slice().reverse()
  const fade = Math.round(0.05 * RATE)
  for (let i = 0; i < fade; i++) wanted[wanted.length - 1 - i]! *= i / fade
  for (let i = 0; i < wanted.length; i++) wanted[i]! *= 10 ** (-6 / 20)
  expect(differenceDb(wanted, playedMono(kit, pad, 1))).toBeLessThan(-120)
})

test('a loop goes where its sound went; a standstill goes round until the envelope ends', () => {
  const loop = { startFrame: 10_000, endFrame: 14_000, kind: 'forward', until: 'end', crossfadeSeconds: 0.01 } as const
  const { kit, clip } = kitOf({ loop, process: [step('time', { lengthPercent: 200 })] })
  expect(workedClip(kit, clip).loop).toMatchObject({ startFrame: 20_000, endFrame: 28_000 })
  const curve = [{ seconds: 0.05, value: 100 }, { seconds: 0.1, value: 0 }] // prettier-ignore
  const still = kitOf({ process: [step('time', {}, { curve })] })
  const made = workedClip(still.kit, still.clip)
  expect(made.loop).toMatchObject({ endFrame: made.endFrame, until: 'end' })
  const heard = playedMono(still.kit, still.pad, 9)
  const level = (from: number) => heard.subarray(from * RATE, (from + 1) * RATE).reduce((sum, sample) => sum + sample * sample, 0)
  expect(Math.abs(10 * Math.log10(level(8) / level(2)))).toBeLessThan(2)
})

test('parted, both rays sound as the one did within -90 dB, and the kit is whole', () => {
  const { kit, pad } = kitOf()
  const rayId = pad.rays[0]!.id
  expect(canPart(pad, rayId)).toBe(true)
  const edits = partRay(makeId, pad, rayId, partingStart('tom'), 45)
  const after = edits.reduce((now: Kit, edit: KitEdit) => applyEdit(now, edit), kit)
  const parted = after.pads[0]!
  expect(parted.rays.map(({ name, values }) => [name, values.keyTrack])).toEqual([['Body, ringing', 1], ['Body, noise', 0]]) // prettier-ignore
  expect(clipsOfPad(parted)).toHaveLength(2)
  expect(parted.own.rootNote).toBe(45)
  expect(kitSchema.safeParse(after).success).toBe(true)
  expect(canPart(parted, rayId)).toBe(false)
  expect(differenceDb(playedMono(kit, pad, 1), playedMono(after, parted, 1))).toBeLessThan(-90)
})

test('audio of recordings is given as it is, worked sounds are worked once, and what is unknown is not there', () => {
  const given = jest.fn(audioOf)
  const { kit, clip } = kitOf({ process: [step('grains', { grainMs: 20 })] })
  const made = workedClip(kit, clip).audio
  const all = withWorked(given)
  expect(all(HASH)?.channels[0]).toBe(strike)
  const once = all(made)
  expect(once?.channels[0]?.length).toBe(strike.length)
  expect(all(made)).toBe(once)
  expect(all('b'.repeat(64) as AudioHash)).toBeUndefined()
})

describe('forms that strikes choose among', () => {
  const atNotes = (): { kit: Kit; pad: Pad; clip: Clip } => {
    const { kit, pad, clip } = kitOf({ process: [step('time', { sameLength: 1 })] })
    const rays = [{ ...pad.rays[0]!, values: { keyTrack: 1 } }]
    const tracked = { ...pad, rays, notes: [36, 43, 48, 60] }
    return { kit: { ...kit, pads: [tracked] }, pad: tracked, clip }
  }

  test.each([36, 43, 60])('at note %i it has the pitch of the note and the length of the root', (note) => {
    const { kit, pad, clip } = atNotes()
    const heard = playedMono(kit, pad, 1, note)
    const form = workedClip(kit, clip, { semitones: note - 48 })
    const result = workRecipe(recipeOf(form.audio)!, audioOf(HASH)!)
    expect(result.ok && differenceDb(result.audio.channels[0]!, heard)).toBeLessThan(-120)
    expect(form.endFrame).toBe(clip.endFrame)
  })

  test('a finger that plays no note plays the root; a note between two takes the nearer and is tuned the rest of the way', () => {
    const { kit, pad, clip } = atNotes()
    expect(differenceDb(strike, playedMono(kit, pad, 1).subarray(0, strike.length))).toBeLessThan(-120)
    const heard = playedMono(kit, pad, 1, 45)
    const form = workedClip(kit, clip, { semitones: 43 - 48 })
    const lengths = heard.findLastIndex((sample) => Math.abs(sample) > 1e-6) / (form.endFrame / 2 ** (2 / 12))
    expect(Math.abs(lengths - 1)).toBeLessThan(0.01)
  })

  test('resonances that stay leave the pitch to follow the note as it did', () => {
    const { kit, pad, clip } = kitOf({ process: [step('resonances', { followNote: 0 })] })
    const rays = [{ ...pad.rays[0]!, values: { keyTrack: 1 } }]
    const tracked = { ...pad, rays, notes: [48, 60] }
    const heard = playedMono({ ...kit, pads: [tracked] }, tracked, 1, 60)
    const form = workedClip(kit, clip, { semitones: 12 })
    const result = workRecipe(recipeOf(form.audio)!, audioOf(HASH)!)
    if (!result.ok) throw new Error(result.message)
    const moved = 'd'.repeat(64) as AudioHash
    const plain = mapClips(tracked, ({ process: _worked, ...one }) => ({ ...one, audio: moved }))
    const judge = playedMono({ ...kit, pads: [plain] }, plain, 1, 60, (hash) => (hash === moved ? result.audio : audioOf(hash)))
    expect(differenceDb(judge, heard)).toBeLessThan(-120)
    expect(
      differenceDb(
        judge,
        playedMono({ ...kit, pads: [plain] }, plain, 1, 60, () => audioOf(HASH)),
      ),
    ).toBeGreaterThan(-20)
  })

  test('many clips on many notes are worked for some of them, the root and the ends of the range among those', () => {
    const { kit, pad, clip } = kitOf({ process: [step('time', { sameLength: 1 })] })
    const notes = Array.from({ length: 49 }, (_, i) => 24 + i)
    const turns = Array.from({ length: 60 }, () => createTurn(makeId, { [pad.rays[0]!.id]: clip }))
    const full = { ...pad, notes, rays: [{ ...pad.rays[0]!, values: { keyTrack: 1 } }], bands: [createBand(makeId, 1, turns)] }
    const [worked] = workedKit({ ...kit, pads: [full] }).pads
    const forms = clipsOfPad(worked!).map((one) => (one as { forms?: { note?: number }[] }).forms!.map(({ note }) => note))
    expect(forms).toHaveLength(60)
    expect(forms[0]).toHaveLength(10)
    expect(forms[0]![0]).toBe(48)
    expect(Math.min(...(forms[0] as number[]))).toBeLessThan(28)
    expect(Math.max(...(forms[0] as number[]))).toBeGreaterThan(68)
  })

  test('velocity moves resonances in five steps; chance draws others, the same for the same seed', () => {
    const { kit, pad } = kitOf({ process: [step('resonances', { byVelocity: -1, byChance: 0.4 })] })
    const worked = workedKit(kit).pads[0]!
    const forms = (clipsOfPad(worked)[0] as { forms?: { octaves: number }[] }).forms!
    expect(forms.map(({ octaves }) => octaves)).toEqual([-1.4, -0.95, -0.5, -0.05, 0.4])
    const struck = (velocity: number, count: number) => {
      const { engine, loader } = createOffline(kit, RATE, audioOf)
      const tap = { left: new Float32Array(count * RATE), right: new Float32Array(count * RATE) }
      const strikes = Array.from({ length: count }, (_, i) => ({
        frame: i * RATE,
        type: EventType.strike,
        padSlot: loader.slotOf(pad.id),
        velocity,
      }))
      renderOffline(engine, toScore(strikes), count * RATE, 4096, { tap })
      return Array.from({ length: count }, (_, i) => tap.left.slice(i * RATE, (i + 1) * RATE))
    }
    const loud = struck(127, 9)
    expect(loud).toEqual(struck(127, 9))
    expect(loud.some((one) => differenceDb(loud[0]!, one) > -40)).toBe(true)
    const centre = (one: Float32Array) =>
      one.reduce((sum, sample, i) => sum + Math.abs(sample - (one[i - 1] ?? 0)), 0) / one.reduce((sum, sample) => sum + Math.abs(sample), 0)
    const mean = (all: Float32Array[]) => all.reduce((sum, one) => sum + centre(one), 0) / all.length
    expect(mean(struck(1, 5))).toBeLessThan(0.9 * mean(loud))
  })

  test('takes of fresh noise go round: none sounds like the one before it, and after all of them the first comes again', () => {
    const { kit, pad } = kitOf({ process: [step('noise', { anew: 1, takes: 3 })] })
    const { engine, loader } = createOffline(kit, RATE, audioOf)
    const tap = { left: new Float32Array(4 * RATE), right: new Float32Array(4 * RATE) }
    const strikes = [0, 1, 2, 3].map((i) => ({ frame: i * RATE, type: EventType.strike, padSlot: loader.slotOf(pad.id), velocity: 127 }))
    renderOffline(engine, toScore(strikes), 4 * RATE, 4096, { tap })
    const heard = strikes.map(({ frame }) => tap.left.slice(frame, frame + RATE))
    expect(heard[3]).toEqual(heard[0])
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ] as const)
      expect(differenceDb(heard[a]!, heard[b]!)).toBeGreaterThan(-20)
  })
})

test('parts of a recording that is worked lie where they went; beads play worked clips of their own', () => {
  const process = [step('time', { lengthPercent: 200 })]
  const { kit, pad, clip } = kitOf()
  const parted: Pad = { ...createPad(makeId, { name: 'Second half', responses: [] }), bands: [] }
  const tie = { id: 'tie-parts' as never, kind: 'parts' as const, name: 'Parts', clip: { ...clip, process }, parts: [{ id: 'one', pad: pad.id }, { id: 'two', pad: parted.id }] } // prettier-ignore
  const bead = { id: 'bead' as never, step: 0, velocity: 127, clip: { ...clip, process } }
  const groove = { id: 'groove' as never, name: 'G', strings: [{ id: 'string' as never, padId: pad.id, beads: [bead] }] }
  const both = { ...kit, pads: [pad, parted], ties: [tie], grooves: [groove] } as unknown as Kit
  const worked = workedKit(both)
  expect(workedKit(both).grooves).toBe(worked.grooves)
  expect(workedKit(worked).ties).toBe(worked.ties)
  expect(worked.pads).toBe(both.pads)
  expect(worked.grooves[0]!.strings[0]!.beads[0]!.clip!.audio).toBe(workedClip(kit, { ...clip, process }).audio)

  const result = workRecipe(recipeOf(workedClip(kit, { ...clip, process }).audio)!, audioOf(HASH)!)
  if (!result.ok) throw new Error(result.message)
  const [whole] = result.audio.channels
  const half = Math.round(whole!.length / 2)
  const heard = playedMono({ ...both, grooves: [] }, parted, half / RATE)
  const expected = whole!.subarray(half, 2 * half)
  expect(differenceDb(heard.subarray(0, expected.length - 4), expected.subarray(0, expected.length - 4))).toBeLessThan(-90)
})
