import { frameCount, toDb, toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { describeHit } from './describe'
import type { HitDescription } from './describe'
import { endFrameOf, levelCurve, startFrameOf } from './edges'
import { findOnsets } from './onsets'
import { strengthCurve } from './strength'

/** One hit of a recording: [startFrame, endFrame) holds the strike at `onsetFrame` and all of its tail. */
export interface Hit extends HitDescription {
  readonly onsetFrame: number
  readonly startFrame: number
  readonly endFrame: number
}

/** The water line of a sensitivity 0..1; higher sensitivity shows more hits. 0.7 is the app's default line. */
export function waterLineOf(sensitivity: number): number {
  return 1 - sensitivity
}

/** Cuts a whole recording: onsets, edges and a description of each hit. */
export function cutRecording(audio: Audio, waterLine: number, minGapSeconds: number): Hit[] {
  const mono = toMono(audio)
  const curve = strengthCurve(mono, audio.sampleRateHz)
  const onsets = findOnsets(mono, audio.sampleRateHz, curve, waterLine, minGapSeconds).map((onset) => onset.frame)
  return hitsAt(audio, mono, onsets)
}

/** The hits that begin at the given frames, which run forward. `endFrames` holds ends that were set by hand. */
export function hitsAt(
  audio: Audio,
  mono: Float32Array,
  onsetFrames: readonly number[],
  endFrames: readonly (number | undefined)[] = [],
): Hit[] {
  const levels = levelCurve(mono, audio.sampleRateHz)
  const noiseDb = toDb(Math.sqrt(levels.floor))
  return onsetFrames.map((onsetFrame, i) => {
    const startFrame = startFrameOf(onsetFrame, audio.sampleRateHz)
    const next = onsetFrames[i + 1]
    const limit = next === undefined ? frameCount(audio) : startFrameOf(next, audio.sampleRateHz)
    const endFrame = Math.max(startFrame + 1, Math.min(frameCount(audio), endFrames[i] ?? endFrameOf(levels, onsetFrame, limit)))
    const region: Audio = {
      sampleRateHz: audio.sampleRateHz,
      channels: audio.channels.map((channel) => channel.subarray(startFrame, endFrame)),
    }
    return { onsetFrame, startFrame, endFrame, ...describeHit(region, noiseDb) }
  })
}
