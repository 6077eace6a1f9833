import type { Audio } from '../audio/audio'
import { joined, soundingFrames } from '../audio/join'
import { createOffline, EventType, renderOffline, toScore } from '../engine'
import type { AudioHash } from '../kit/ids'
import type { Clip, Kit, Pad, Ray, Turn } from '../kit/kit'
import { parameters, usualValues, valueOf } from '../kit/parameters'
import { insertsOf, padSettings, settled, shapeOf } from '../kit/resolve'
import type { PadSettings } from '../kit/resolve'

export type AudioOf = (audio: AudioHash) => Audio | undefined

/** One ray of one cell, as a strike finds it. */
export interface DrawnCell {
  readonly kit: Kit
  readonly pad: Pad
  readonly ray: Ray
  readonly clip: Clip
  readonly bandGainDb: number
  /** The hardest strike of its band, 1..127. */
  readonly velocity: number
  readonly note: number
}

/** Whether a ray's shape changes its clips at all. */
export function isShaped(kit: Kit, pad: Pad, ray: Ray): boolean {
  const { values, choices, envelopes } = shapeOf(padSettings(kit, pad), ray)
  const { level, pitch } = envelopes
  const isFiltered = choices.filter1Kind !== 'off' || choices.filter2Kind !== 'off'
  if (values.crush > 0 || values.width !== parameters.width.usual || values.lowCutHz > parameters.lowCutHz.usual) return true
  if (values.driveDb > 0 || values.driveAfterDb > 0) return true
  if (values.attackDb !== 0 || values.tailDb !== 0) return true
  if (values.endSeconds > 0 || values.fadeInSeconds > 0 || values.fadeOutSeconds > 0) return true
  return isFiltered || values.startSeconds > 0 || level.points.length > 0 || pitch.points.length > 0
}

/** Rendered this far under full scale, so that the limiter never acts, and raised again afterwards. */
const HEADROOM_DB = -100
const LONGEST_SECONDS = 600
const SLICE_SECONDS = 1

/**
 * A cell as it sounds on its own: level, place, tuning, delay, shape and what velocity does are all in the samples. What is
 * left to chance stands in its middle; a pad that is held or goes round is drawn once through.
 */
export function drawCell(cell: DrawnCell, audioOf: AudioOf): Audio | undefined {
  const { kit, pad, ray, clip, bandGainDb, velocity, note } = cell
  const settings = padSettings(kit, pad)
  const own: PadSettings = {
    ...settings,
    values: { ...settings.values, gainDb: settings.values.gainDb + valueOf(kit, 'gainDb') },
    mode: 'oneShot',
    mute: false,
    responses: settings.responses.filter(({ from }) => from.kind !== 'chance'),
  }
  return drawSolo({ kit, pad, own, ray: { ...ray, mute: false }, clip, bandGainDb, velocity, note }, audioOf)
}

/**
 * A clip as its ray's shape makes it sound, tuned by `cents`: envelopes, filter and start are in the samples; level, place,
 * delay and velocity are not. Samples may pass full scale.
 */
export function drawShape(kit: Kit, pad: Pad, ray: Ray, clip: Clip, cents: number, audioOf: AudioOf): Audio | undefined {
  const flatten = { values: { gainDb: 0, pan: 0, tuneCents: cents, delaySeconds: 0 }, responses: [], mode: 'oneShot' as const, mute: false }
  const own = settled(padSettings(kit, pad), flatten)
  const { bus: _bus, ...rest } = ray
  const { gainDb: _g, pan: _p, tuneCents: _t, keyTrack: _k, delaySeconds: _d, ...values } = ray.values
  const plain: Ray = { ...rest, values, mute: false, invert: false }
  const flat = { ...clip, gainDb: 0, invert: false }
  const { bus: _padBus, ...ownRest } = own
  return drawSolo({ kit, pad, own: ownRest, ray: plain, clip: flat, bandGainDb: 0, velocity: 127, note: 60 }, audioOf)
}

function drawSolo(cell: DrawnCell & { readonly own: PadSettings }, audioOf: AudioOf): Audio | undefined {
  const audio = audioOf(cell.clip.audio)
  if (!audio) return undefined
  const rate = audio.sampleRateHz
  const { engine, loader } = createOffline(soloKit(cell), rate, audioOf)
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(cell.pad.id), velocity: cell.velocity, note: cell.note }
  const slices: [Float32Array, Float32Array][] = []
  const frames = SLICE_SECONDS * rate
  do slices.push(renderOffline(engine, slices.length === 0 ? toScore([strike]) : new Float64Array(0), frames))
  while (slices.length < LONGEST_SECONDS && engine.strikes.active.includes(1))
  const raise = 10 ** (-HEADROOM_DB / 20)
  const [left, right] = [0, 1].map((side) => joined(slices.map((slice) => slice[side])).map((sample) => sample * raise))
  const end = soundingFrames([left, right])
  const alike = left.every((sample, i) => sample === right[i])
  return { sampleRateHz: rate, channels: (alike ? [left] : [left, right]).map((channel) => channel.slice(0, end)) }
}

/** What stands in the mix works on all that goes there together, and is in no file of a single hit: a sentence each. */
export function leftOutOfHits(kit: Kit): string[] {
  const hasEffects = insertsOf(kit).some(({ bypass }) => !bypass)
  const areShaped = kit.buses.some((bus) => valueOf(bus, 'width') !== usualValues.width || valueOf(bus, 'lowCutHz') > usualValues.lowCutHz)
  return [
    ...(hasEffects ? ['effects of buses and of the whole kit, and what is sent to returns, are left out.'] : []),
    ...(areShaped ? ['width and low cut of buses are left out.'] : []),
  ]
}

/** A kit of one pad with one ray and one clip, without effects and without what is sent. */
function soloKit({ kit, pad, own, ray, clip, bandGainDb }: DrawnCell & { readonly own: PadSettings }): Kit {
  const turn: Turn = { id: 'turn-drawn' as never, weight: 1, clips: { [ray.id]: onceThrough(clip, own, ray) } }
  const band = {
    id: 'band-drawn' as never,
    fromVelocity: 1,
    blendVelocities: 0,
    blendLaw: 'power' as const,
    values: { gainDb: bandGainDb },
    turns: [turn],
  }
  const solo: Pad = { id: pad.id, notes: [], own, rays: [{ ...ray, source: { kind: 'clips' }, sends: [] }], bands: [band], spread: 'even' }
  const buses = kit.buses.map((bus) => ({ ...bus, inserts: [], sends: [] }))
  return { ...kit, values: { gainDb: HEADROOM_DB }, inserts: [], buses, pads: [solo], ties: [] }
}

/** Whether a level envelope ends a loop that nothing else would. */
export function endsLoop({ loop }: Clip, own: PadSettings, ray: Ray): boolean {
  const { points } = shapeOf(own, ray).envelopes.level
  return loop?.until === 'end' && points.length > 0 && points[points.length - 1].value <= 0
}

/** A loop is drawn only where the level envelope ends it. What slices send is left out as all sends are. */
function onceThrough({ slices, ...given }: Clip, own: PadSettings, ray: Ray): Clip {
  const clip: Clip = slices ? { ...given, slices: slices.map(({ sends: _sends, ...slice }) => slice) } : given
  if (endsLoop(clip, own, ray)) return clip
  const { loop: _loop, ...plain } = clip
  return plain
}
