import { pitchOf } from '@heliaster/core/cut'
import type { Pitch } from '@heliaster/core/cut'
import type { Clip } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'

import { decodedAudio } from '../../../audio/files/audio-files'

/** A clip as it was recorded: one channel of it, and its pitch with how sure that is. */
export interface RecordedClip {
  readonly mono: Float32Array
  readonly rateHz: number
  readonly levels: Float32Array
  readonly pitch: Pitch | undefined
}

const LEVELS = 240
const known = new WeakMap<Float32Array, Map<string, RecordedClip>>()

async function recorded(clip: Clip): Promise<RecordedClip> {
  const { audio } = await decodedAudio(clip.audio)
  const channel = audio.channels[clip.channel === 'right' ? Math.min(1, audio.channels.length - 1) : 0]!
  const kept = known.get(channel) ?? new Map<string, RecordedClip>()
  known.set(channel, kept)
  const key = `${clip.startFrame} ${clip.endFrame}`
  const found = kept.get(key)
  if (found) return found
  const mono = channel.slice(clip.startFrame, clip.endFrame)
  const made = { mono, rateHz: audio.sampleRateHz, levels: levelsOf(mono), pitch: pitchOf(mono, audio.sampleRateHz) }
  kept.set(key, made)
  return made
}

function levelsOf(mono: Float32Array): Float32Array {
  const levels = new Float32Array(LEVELS)
  mono.forEach((sample, i) => {
    const at = Math.min(LEVELS - 1, Math.floor((i * LEVELS) / mono.length))
    levels[at] = Math.max(levels[at]!, Math.abs(sample))
  })
  return levels
}

/** What is known of a clip as recorded; undefined until it is here. */
export function useRecordedClip(clip: Clip | undefined): RecordedClip | undefined {
  const [held, hold] = useState<{ readonly clip: Clip; readonly made: RecordedClip }>()
  const [audio, startFrame, endFrame, channel] = [clip?.audio, clip?.startFrame, clip?.endFrame, clip?.channel]
  useEffect(() => {
    if (!clip) return undefined
    let gone = false
    recorded(clip).then(
      (made) => !gone && hold({ clip, made }),
      () => undefined, // what is missing is said where the pad is
    )
    return () => {
      gone = true
    }
  }, [audio, startFrame, endFrame, channel]) // eslint-disable-line react-hooks/exhaustive-deps -- how it is worked changes nothing of what was recorded
  const isIts = held && clip && held.clip.audio === audio && held.clip.startFrame === startFrame && held.clip.endFrame === endFrame
  return isIts ? held.made : undefined
}
