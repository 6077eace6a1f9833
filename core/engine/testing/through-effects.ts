import { aKit } from '../../kit/builders'
import type { AudioHash, BusId, InsertId } from '../../kit/ids'
import type { Bus, Insert, Kit } from '../../kit/kit'
import { createBus } from '../../kit/make'
import type { Audio } from '../../audio/audio'
import { sin } from '../math'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

export const EFFECT_RATE_HZ = 48000

/** An effect with what matters said. */
export function anInsert(kind: Insert['kind'], values: Insert['values'] = {}, more: Partial<Insert> = {}): Insert {
  return { id: `${kind}-${JSON.stringify(values)}` as InsertId, kind, values, choices: {}, bypass: false, ...more }
}

export interface Through {
  readonly inserts?: readonly Insert[]
  /** What stands in the master instead of in a bus. */
  readonly ofMaster?: readonly Insert[]
  readonly frames: number
  readonly block?: number
  readonly isPlain?: boolean
  readonly rateHz?: number
  readonly tempoBpm?: number
  /** Impulses, by their hash. */
  readonly impulses?: ReadonlyMap<AudioHash, Audio>
  /** A sound on a bus of its own that is heard nowhere: `key` is its id. */
  readonly key?: readonly Float32Array[]
}

export const KEY_BUS = 'key' as BusId
const OWN_BUS = 'own' as BusId

/** A kit whose only pad goes through effects, with its audio. */
export function kitThrough(
  channels: readonly Float32Array[],
  { inserts = [], ofMaster = [], tempoBpm, key, rateHz = EFFECT_RATE_HZ }: Through,
) {
  const sounds = [channels, ...(key ? [key] : [])].map((list) => ({ sampleRateHz: rateHz, channels: [...list] }))
  const { kit, audio } = aKit(sounds.map((sound) => ({ bands: [[sound]] })))
  const buses: Bus[] = [{ ...createBus(OWN_BUS, 'Own'), inserts: [...inserts] }]
  if (key)
    buses.push({ ...createBus(KEY_BUS, 'Key'), out: 'nowhere' as BusId }, { ...createBus('nowhere' as BusId, 'Nowhere'), mute: true })
  const pads = kit.pads.map((pad, i) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, bus: i === 0 ? OWN_BUS : KEY_BUS })) }))
  const whole: Kit = { ...kit, pads, buses, inserts: [...ofMaster], ...(tempoBpm ? { tempoBpm } : {}) }
  return { kit: whole, audio }
}

/** What comes out of a bus with effects in it when sound goes in from frame 0 on, before the engine's own limiter. */
export function throughEffects(channels: readonly Float32Array[], of: Through): [Float32Array, Float32Array] {
  const { frames, block = 512, isPlain = false, rateHz = EFFECT_RATE_HZ, impulses } = of
  const { kit, audio } = kitThrough(channels, of)
  const { engine } = createOffline(kit, rateHz, (hash) => audio.get(hash) ?? impulses?.get(hash), kit.seed, undefined, isPlain)
  const tap = { left: new Float32Array(frames), right: new Float32Array(frames) }
  const events = kit.pads.map((_, padSlot) => ({ frame: 0, type: EventType.strike, padSlot, velocity: 127 }))
  renderOffline(engine, toScore(events), frames, block, { tap })
  return [tap.left, tap.right]
}

export function sine(frames: number, hz: number, level: number, rateHz = EFFECT_RATE_HZ): Float32Array {
  return Float32Array.from({ length: frames }, (_, i) => level * sin((2 * Math.PI * hz * i) / rateHz))
}

export function click(frames: number, level = 1): Float32Array {
  const samples = new Float32Array(frames)
  samples[0] = level
  return samples
}
