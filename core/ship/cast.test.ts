import { createOffline, EventType, renderOffline, toScore } from '../engine'
import { applyEdit, createBand, createBus, createIds, createKit, createTurn, wholeClip } from '../kit'
import type { AudioHash, BusId, Kit, KitEdit, Pad } from '../kit'
import { createPad } from '../kit'
import { castPadEdits, castStrikes, velocitiesToCast } from '.'
import type { KeptStrike } from '.'

const RATE = 48000
let seed = 7
const draw = () => (seed = (seed * 16807) % 2147483647) / 2147483647
const makeId = createIds(draw)
const hashOf = (n: number) => String(n).repeat(64).slice(0, 64) as AudioHash

const sounds = new Map([1, 2, 3].map((n) => {
  const channel = () => Float32Array.from({ length: 9000 }, (_, i) => 0.5 * (draw() - 0.5) * Math.exp(-i / (900 * n)))
  return [hashOf(n), { sampleRateHz: n === 3 ? 44100 : RATE, channels: n === 2 ? [channel(), channel()] : [channel()] }] as const
})) // prettier-ignore

function shapedKit(): { kit: Kit; pad: Pad } {
  const bus = { ...createBus('bus-room' as BusId, 'Room'), values: { gainDb: -3, pan: 0.2 } }
  const made = createPad(makeId, { name: 'Oar', pick: 'cycle', values: { gainDb: -2, pan: -0.3, tuneCents: 240, filter1CutoffHz: 2500, driveDb: 9 }, choices: { filter1Kind: 'lowPass' } }) // prettier-ignore
  const ray = { ...made.rays[0]!, bus: bus.id }
  const turn = (n: number) => createTurn(makeId, { [ray.id]: wholeClip(hashOf(n), { frames: 9000, channels: n === 2 ? 2 : 1 }) })
  const pad = { ...made, rays: [ray], bands: [createBand(makeId, 1, [turn(1), turn(2)]), createBand(makeId, 64, [turn(3)])] }
  const info = (n: number) => ({
    name: `${n}.wav`,
    sampleRateHz: sounds.get(hashOf(n))!.sampleRateHz,
    frames: 9000,
    channels: n === 2 ? 2 : 1,
  })
  const insert = { id: 'insert-a' as never, kind: 'echo' as const, values: { seconds: 0.11, feedback: 0.3 }, choices: {}, bypass: false }
  return { pad, kit: { ...createKit(makeId, 'Boat'), buses: [{ ...bus, inserts: [insert] }], pads: [pad], audio: Object.fromEntries([1, 2, 3].map((n) => [hashOf(n), info(n)])) } } // prettier-ignore
}

/** Strikes one after another, a second apart, before the kit's own effects. */
function played(
  kit: Kit,
  pad: Pad,
  velocities: readonly number[],
  audio: ReadonlyMap<AudioHash, { sampleRateHz: number; channels: Float32Array[] }>,
) {
  const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const frames = RATE * velocities.length
  const tap = { left: new Float32Array(frames), right: new Float32Array(frames) }
  const strikes = velocities.map((velocity, i) => ({ frame: i * RATE, type: EventType.strike, padSlot: loader.slotOf(pad.id), velocity }))
  renderOffline(engine, toScore(strikes), frames, 4096, { tap })
  return [tap.left, tap.right] as const
}

function cast(kit: Kit, pad: Pad, velocities: number[], withEffects: boolean) {
  const strikes = castStrikes(kit, pad.id, { velocities, withEffects }, (hash) => sounds.get(hash))
  const audio = new Map(sounds as Map<AudioHash, { sampleRateHz: number; channels: Float32Array[] }>)
  const kept = strikes.map(({ velocity, audio: made }, i): KeptStrike => {
    const hash = hashOf(4 + i)
    audio.set(hash, made)
    return { velocity, audio: hash, info: { name: `cast ${i}.wav`, sampleRateHz: made.sampleRateHz, frames: made.channels[0]!.length, channels: made.channels.length } } // prettier-ignore
  })
  const edits = castPadEdits(makeId, kit, pad, kept)
  const after = edits.reduce((now: Kit, edit: KitEdit) => applyEdit(now, edit), kit)
  return { after, audio, made: after.pads[1]! }
}

const apartDb = (a: readonly Float32Array[], b: readonly Float32Array[]) => {
  let [power, error] = [1e-30, 1e-30]
  a.forEach((side, at) => side.forEach((sample, i) => {
    power += sample * sample
    error += (sample - b[at]![i]!) ** 2
  })) // prettier-ignore
  return 10 * Math.log10(error / power)
}

test.each([true, false])('the new pad sounds as the old one within -90 dB, turn by turn, with effects: %s', (withEffects) => {
  const { kit, pad } = shapedKit()
  const velocities = [30, 63, 100, 127]
  const { after, audio, made } = cast(kit, pad, velocities, withEffects)
  const plain = withEffects ? kit : { ...kit, buses: kit.buses.map((bus) => ({ ...bus, inserts: [] })) }
  const played2 = [30, 30, 63, 63, 100, 127]
  const wanted = played(plain, pad, played2, audio)
  const got = played(after, made, played2, audio)
  // The echo of one strike rings into the next: so it does in both.
  expect(apartDb(wanted, got)).toBeLessThan(-90)
})

test('a band for each velocity, a turn for each turn, nothing that shapes it, made by casting; the kit keeps all else', () => {
  const { kit, pad } = shapedKit()
  const { after, made } = cast(kit, pad, velocitiesToCast(pad, 'bands'), false)
  expect(velocitiesToCast(pad, 'bands')).toEqual([63, 127])
  expect(velocitiesToCast(pad, 4)).toEqual([32, 64, 95, 127])
  expect(made.bands.map(({ fromVelocity, turns }) => [fromVelocity, turns.length])).toEqual([[1, 2], [64, 1]]) // prettier-ignore
  expect(made.own).toMatchObject({ name: 'Oar, cast', responses: [] })
  expect(Object.values(made.bands[0]!.turns[0]!.clips)[0]).toMatchObject({
    made: { by: 'casting', from: [hashOf(1), hashOf(2), hashOf(3)] },
  })
  expect(after.pads[0]).toBe(kit.pads[0])
})

test('a pad that is muted is cast as it would sound, and one whose rays have bands of their own by those', () => {
  const { kit, pad } = shapedKit()
  const muted = { ...pad, own: { ...pad.own, mute: true } }
  expect(cast({ ...kit, pads: [muted] }, muted, [127], false).made.bands[0]!.turns).toHaveLength(1)
  const [strike] = castStrikes({ ...kit, pads: [muted] }, pad.id, { velocities: [127], withEffects: false }, (hash) => sounds.get(hash))
  expect(strike!.audio.channels[0]!.some((sample) => Math.abs(sample) > 0.01)).toBe(true)
  const own = { ...pad, bands: [], rays: [{ ...pad.rays[0]!, source: { kind: 'clips' as const, bands: pad.bands } }] }
  expect(velocitiesToCast(own, 'bands')).toEqual([63, 127])
  const strikes = castStrikes({ ...kit, pads: [own] }, pad.id, { velocities: [63, 127], withEffects: false }, (hash) => sounds.get(hash))
  expect(strikes.map(({ velocity, turn }) => [velocity, turn])).toEqual([[63, 0], [127, 0]]) // prettier-ignore
})
