import { createBand, createTurn } from '@heliaster/core/kit'
import type { Clip, Pad } from '@heliaster/core/kit'

import { hearVersion } from '../../audio/engine/sound'
import { makeId } from '../../documents/make-id'

/** So much is heard before the seam, and at least so much of what follows it, s. */
const BEFORE_SECONDS = 0.35
const AFTER_SECONDS = 0.8
const FADE_SECONDS = 0.02

/**
 * The pad as it is struck to hear a seam: one clip alone, read from shortly before the seam, for a moment round it. The clip stays
 * whole, since a long round goes back to long before that.
 */
export function seamVersion(pad: Pad, clip: Clip, sampleRateHz: number): Pad {
  const loop = clip.loop!
  const heard: Clip = { ...clip, fadeInSeconds: 0, loop: { ...loop, until: 'end' } }
  const seamSeconds = (clip.reverse ? clip.endFrame - loop.startFrame : loop.endFrame - clip.startFrame) / sampleRateHz
  const startSeconds = Math.max(0, seamSeconds - BEFORE_SECONDS)
  const from = seamSeconds - startSeconds
  const points = [0, from + AFTER_SECONDS, from + AFTER_SECONDS + FADE_SECONDS].map((seconds, i) => ({
    seconds,
    value: i < 2 ? 1 : 0,
    bend: 0,
  }))
  const ray = { ...pad.rays[0]!, values: {}, choices: {}, envelopes: {}, mute: false, source: { kind: 'clips' as const } }
  return {
    ...pad,
    own: { name: pad.own.name, mode: 'oneShot', values: { startSeconds }, envelopes: { level: { points } } },
    rays: [ray],
    bands: [createBand(makeId, 1, [createTurn(makeId, { [ray.id]: heard })])],
  }
}

export function hearSeam(pad: Pad, clip: Clip, sampleRateHz: number): void {
  hearVersion(seamVersion(pad, clip, sampleRateHz))
}
