import type { Audio } from '../../audio/audio'
import { seeded, testIds } from '../../kit/builders'
import type { AudioHash, PadId, TieId } from '../../kit/ids'
import type { Band, Clip, Kit, Pad, Tie } from '../../kit/kit'
import { createBand, createKit, createPad, createRay, createTurn, wholeClip } from '../../kit/make'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import type { StrikeRecord } from '../strike-record'
import { EventType } from '../program/codes'
import { RulesModel } from './rules-model'
import type { RuleMove } from './rules-model'

const RATE = 48000
/** Levels of clips, each its own, and together far below the limiter. */
const LEVEL = 1 / 32768

interface RandomKit {
  readonly kit: Kit
  readonly audio: ReadonlyMap<AudioHash, Audio>
  readonly levelOf: (clip: Clip) => number
}

/** A kit whose rules are drawn by chance: bands, blends, picks, modes, limits and every kind of tie. */
export function randomRulesKit(seed: number): RandomKit {
  const random = seeded(seed)
  const pick = (most: number) => Math.floor(random() * most)
  const some = <T>(share: number, value: () => T): T[] => (random() < share ? [value()] : [])
  const makeId = testIds(seed)
  const audio = new Map<AudioHash, Audio>()
  const clip = (): Clip => {
    const frames = 200 + pick(4000)
    const hash = (audio.size + 4096).toString(16).padStart(64, '0') as AudioHash
    audio.set(hash, { sampleRateHz: RATE, channels: [new Float32Array(frames).fill((1 + audio.size) * LEVEL)] })
    return wholeClip(hash, { frames, channels: 1 })
  }
  const pads = Array.from({ length: 3 + pick(4) }, (_, place): Pad => {
    const rays = [createRay(makeId, 'Near'), ...some(0.4, () => ({ ...createRay(makeId, 'Far'), mute: random() < 0.1, onMissing: random() < 0.5 ? ('nearest' as const) : ('silent' as const), values: { delaySeconds: pick(20) / 1000 } }))] // prettier-ignore
    const edges = [...new Set([1, ...Array.from({ length: pick(4) }, () => 2 + pick(126))])].sort((a, b) => a - b)
    const bands = edges.map((from): Band => ({
      ...createBand(makeId, from, Array.from({ length: pick(5) }, () => ({ ...createTurn(makeId, Object.fromEntries(rays.flatMap((ray, i) => some(i === 0 ? 0.97 : 0.7, clip).map((one) => [ray.id, one])))) }))),
      blendVelocities: random() < 0.5 ? 0 : pick(60),
      blendLaw: random() < 0.5 ? 'power' : 'linear',
      values: random() < 0.3 ? { gainDb: -pick(12) } : {},
    })) // prettier-ignore
    const picked = (['cycle', 'random', 'shuffle'] as const)[pick(3)]
    const own = {
      responses: [],
      mode: (['oneShot', 'oneShot', 'oneShot', 'hold', 'silencer', 'loopUntilLetGo', 'loopUntilStruckAgain'] as const)[pick(7)],
      maxStrikes: 1 + pick(12),
      pick: picked,
      counter: random() < 0.5 ? ('pad' as const) : ('band' as const),
      startAgain: random() < 0.3 ? 0.05 + random() / 10 : ('never' as const),
    }
    const weighted = picked !== 'random' ? bands : bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, weight: pick(4) + 0.5 })) })) // prettier-ignore
    const isEmpty = random() < 0.12 // what it sounds is borrowed, where it is a spot or an opening of a drum
    return { ...createPad(makeId, own, 36 + place), rays, bands: isEmpty ? [] : weighted }
  })
  const kit: Kit = { ...createKit(makeId, 'Rules'), values: {}, seed, pads, ...(random() < 0.5 ? { maxStrikes: 2 + pick(20) } : {}) }
  const levelOf = ({ audio: hash }: Clip) => audio.get(hash)!.channels[0][0]
  return { kit: { ...kit, ties: randomTies(pads, random) }, audio, levelOf }
}

function randomTies(pads: readonly Pad[], random: () => number): Tie[] {
  const pick = (most: number) => Math.floor(random() * most)
  const one = (): PadId => pads[pick(pads.length)].id
  const some = (): PadId[] => {
    const chosen = pads.filter(() => random() < 0.5).map(({ id }) => id)
    return chosen.length > 0 ? chosen : [one()]
  }
  const reach = () => {
    const pad = pads[pick(pads.length)]
    return random() < 0.5 ? { rays: pad.rays.slice(0, 1).map(({ id }) => id) } : { bands: pad.bands.slice(0, 2).map(({ id }) => id) }
  }
  const fadeSeconds = () => (random() < 0.3 ? 0 : random() / 20)
  return Array.from({ length: pick(9) }, (_, i): Tie => {
    const id = `tie-${i}` as TieId
    const kinds: (() => Tie)[] = [
      () => ({ id, kind: 'choke', from: one(), to: some(), fadeSeconds: fadeSeconds(), ...(random() < 0.3 ? { on: 'letGo' as const } : {}), ...(random() < 0.3 ? { reach: reach() } : {}) }),
      () => ({ id, kind: 'chokeGroup', name: '', pads: some(), fadeSeconds: fadeSeconds(), ...(random() < 0.5 ? { maxStrikes: 1 + pick(6) } : {}), ...(random() < 0.3 ? { itself: true } : {}) }),
      () => ({ id, kind: 'limit', name: '', pads: some(), maxStrikes: 1 + pick(6) }),
      () => ({ id, kind: 'alsoStrike', from: one(), to: some().map((pad) => ({ pad, chance: random() < 0.5 ? 1 : random(), gainDb: -pick(9), delaySeconds: random() < 0.3 ? 0 : random() / 30 })), passOn: random() < 0.4 }),
      () => ({ id, kind: 'takeTurns', pads: some(), pick: (['cycle', 'random', 'shuffle'] as const)[pick(3)] }),
      () => ({ id, kind: 'spots', name: '', spots: some().map((pad) => ({ pad, name: '' })) }),
      () => ({ id, kind: 'openings', controller: 4, steps: some().map((pad, at) => ({ from: 20 * at + pick(15), pad })), ...(random() < 0.5 ? { chokeAt: 10 } : {}) }),
    ] // prettier-ignore
    return kinds[pick(kinds.length)]()
  })
}

/** What someone with fast fingers does on a kit: strikes, some let go again, a controller now and then. */
export function randomMoves(kit: Kit, count: number, random: () => number): RuleMove[] {
  const moves: RuleMove[] = []
  let frame = 3
  for (let i = 0; i < count; i++) {
    frame += Math.floor(random() * 120)
    const number = Math.floor(random() * kit.pads.length)
    const key = i + 1
    moves.push({ frame, kind: 'strike', number, value: 1 + Math.floor(random() * 127), key })
    if (random() < 0.6) moves.push({ frame: frame + Math.floor(random() * 3000), kind: 'letGo', number, value: 0, key: random() < 0.05 ? 0 : key }) // prettier-ignore
    if (random() < 0.03) moves.push({ frame, kind: 'controller', number: 4, value: Math.floor(random() * 128), key: 0 })
    if (random() < 0.003) moves.push({ frame, kind: 'stopAll', number: 0, value: 0, key: 0 })
  }
  return moves.map((move, i) => ({ move, i })).sort((a, b) => a.move.frame - b.move.frame || a.i - b.i).map(({ move }) => move) // prettier-ignore
}

const types = { strike: EventType.strike, letGo: EventType.release, controller: EventType.controller, stopAll: EventType.stopAll } as const

/**
 * Plays a random kit by the engine and by the model and says where they part: in the pad, the cells or the frame of a
 * strike, in what it silences, or in what sounds on a frame. Undefined where they agree; `strikes` is how many there were.
 */
export function compareRules(seed: number, count: number): { readonly strikes: number; readonly fault?: string } {
  const { kit, audio, levelOf } = randomRulesKit(seed)
  const moves = randomMoves(kit, count, seeded(seed + 1_000_000))
  const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const events = moves.map(({ frame, kind, number, value, key }): ScoreEvent => {
    const isControl = kind === 'controller'
    return { frame, type: types[kind], padSlot: isControl ? 0 : loader.slotOf(kit.pads[number].id), ...(isControl ? { note: number } : {}), velocity: value, key } // prettier-ignore
  })
  const records: StrikeRecord[] = []
  const frames = moves[moves.length - 1].frame + 9000
  const [left] = renderOffline(engine, toScore(events), frames, 512, (record) => records.push(record))
  const placeOf = new Map(kit.pads.map((pad, place) => [loader.slotOf(pad.id), place]))
  const model = new RulesModel(kit, RATE, levelOf, moves)
  for (let frame = 0; frame < frames; frame += 37) {
    const expected = model.levelAt(frame)
    if (Math.abs(left[frame] - expected) > 1e-5) return { strikes: model.strikes.length, fault: `seed ${seed}, frame ${frame}: ${left[frame]} sounds for ${expected}` } // prettier-ignore
  }
  const placesOf = (slots: readonly number[]) => slots.map((slot) => placeOf.get(slot)!).sort((a, b) => a - b)
  const told = (...parts: readonly (readonly (number | undefined)[])[]) => parts.map((part) => part.join(' ')).join(', ')
  for (const [i, { frame, pad, band, turn, above, choked, struck, room }] of model.strikes.entries()) {
    const got = records[i] as StrikeRecord | undefined
    const expected = told([frame, pad, band, turn, above], choked, [struck], room)
    const found = got && told([got.frame, placeOf.get(got.padSlot), got.band, got.turn, got.aboveBand], placesOf(got.chokedSlots), [placeOf.get(got.struckSlot)], placesOf(got.roomSlots)) // prettier-ignore
    if (found !== expected) return { strikes: i, fault: `seed ${seed}, strike ${i}: ${found} for ${expected}` }
  }
  return records.length === model.strikes.length
    ? { strikes: records.length }
    : { strikes: records.length, fault: `seed ${seed}: ${records.length} strikes for ${model.strikes.length}` }
}
