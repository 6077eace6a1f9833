import type { Audio } from '../audio/audio'
import { createOffline, EventType, renderOffline, toScore } from '../engine'
import type { AudioHash, PadId } from '../kit/ids'
import type { Clip, Kit, Pad, Ray } from '../kit/kit'
import { sameData } from '../kit/list'
import { padSettings, shapeOf } from '../kit/resolve'
import { plainShape } from '../kit/plain-shape'

/** Whether a ray's shape changes its clips at all. */
export function isShaped(kit: Kit, pad: Pad, ray: Ray): boolean {
  return !sameData(shapeOf(padSettings(kit, pad), ray), plainShape)
}

/** Rendered this far under full scale, so that the limiter never acts, and raised again afterwards. */
const HEADROOM_DB = -40
const LONGEST_SECONDS = 60

/**
 * One clip of a pad as its shape makes it sound, drawn by the engine: envelopes, filter and start are in the samples;
 * level, pan, tuning and velocity are not.
 */
export function bakeClip(kit: Kit, pad: Pad, ray: Ray, clip: Clip, audioOf: (audio: AudioHash) => Audio | undefined): Audio | undefined {
  const audio = audioOf(clip.audio)
  if (!audio) return undefined
  const sampleRateHz = audio.sampleRateHz
  const plainRay: Ray = { ...ray, gainDb: 0, pan: 0, tuneCents: 0, delaySeconds: 0, mute: false, invert: false, source: { kind: 'clips' } }
  const solo: Pad = {
    id: pad.id,
    notes: [],
    own: { ...padSettings(kit, pad), gainDb: HEADROOM_DB, pan: 0, tuneCents: 0, responses: [], mode: 'oneShot' },
    rays: [plainRay],
    bands: [
      {
        id: 'band-bake' as never,
        fromVelocity: 1,
        blendVelocities: 0,
        blendLaw: 'power',
        gainDb: 0,
        turns: [{ id: 'turn-bake' as never, weight: 1, clips: { [ray.id]: { ...clip, gainDb: 0, invert: false } } }],
      },
    ],
    spread: 'even',
  }
  const { engine, loader } = createOffline({ ...kit, gainDb: 0, pads: [solo], ties: [] }, sampleRateHz, audioOf)
  const score = toScore([{ frame: 0, type: EventType.strike, padSlot: loader.slotOf(pad.id as PadId), velocity: 127 }])
  const frames = Math.min(LONGEST_SECONDS * sampleRateHz, (clip.endFrame - clip.startFrame) * 16)
  const [left, right] = renderOffline(engine, score, frames)
  const end = lastSound(left, right)
  const raise = 10 ** (-HEADROOM_DB / 20)
  const trimmed = [left, right].map((channel) => channel.slice(0, end).map((sample) => sample * raise))
  const alike = trimmed[0].every((sample, i) => sample === trimmed[1][i])
  return { sampleRateHz, channels: alike ? [trimmed[0]] : trimmed }
}

function lastSound(left: Float32Array, right: Float32Array): number {
  let end = left.length
  while (end > 1 && left[end - 1] === 0 && right[end - 1] === 0) end--
  return end
}
