import { hashAudio, summarise, toMono, writeWav } from '@heliaster/core/audio'
import type { Audio, Summary } from '@heliaster/core/audio'
import { hitsAt, strengthCurve } from '@heliaster/core/cut'
import type { Hit, StrengthCurve } from '@heliaster/core/cut'
import { readAudioFile } from '@heliaster/core/decode'
import { expose, transfer } from 'comlink'

import { pictureOf } from './picture'

export interface Decoded {
  readonly audio: Audio
  readonly cueFrames: number[]
  readonly notes: string[]
}

export interface Analysed {
  readonly curve: StrengthCurve
  readonly summary: Summary
}

const KEPT = 3
const kept = new Map<string, Audio>()

/** The heavy work on recordings, away from the page. */
const work = {
  hash: (bytes: ArrayBuffer) => hashAudio(new Uint8Array(bytes)),
  async decode(bytes: ArrayBuffer): Promise<{ ok: true; decoded: Decoded } | { ok: false; message: string }> {
    const result = await readAudioFile(new Uint8Array(bytes))
    if (!result.ok) return result
    const { audio, cues, notes } = result.file
    const decoded: Decoded = { audio, cueFrames: cues.map((cue) => cue.frame), notes }
    return transfer(
      { ok: true as const, decoded },
      audio.channels.map((channel) => channel.buffer as ArrayBuffer),
    )
  },
  encode(audio: Audio, bits: 16 | 24 | 32): ArrayBuffer {
    const bytes = writeWav(audio, { bits })
    return transfer(bytes.buffer, [bytes.buffer])
  },
  /** Keeps the recording here, so that describing its hits sends nothing but numbers. */
  analyse(key: string, audio: Audio): Analysed {
    kept.set(key, audio)
    if (kept.size > KEPT) kept.delete([...kept.keys()][0])
    const mono = toMono(audio)
    return { curve: strengthCurve(mono, audio.sampleRateHz), summary: summarise(mono) }
  },
  describe(key: string, onsetFrames: number[], endFrames: (number | undefined)[]): Hit[] | undefined {
    const audio = kept.get(key)
    return audio && hitsAt(audio, toMono(audio), onsetFrames, endFrames)
  },
  picture: (audio: Audio) => pictureOf(audio),
}
export type CoreWork = typeof work

expose(work)
