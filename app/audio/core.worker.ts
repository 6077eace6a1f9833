import { columnsOf, hashAudio, momentaryLoudness, peakOf, readWav, summarise, toDb, toMono, writeWav } from '@heliaster/core/audio'
import type { Audio, Summary } from '@heliaster/core/audio'
import { hitsAt, strengthCurve } from '@heliaster/core/cut'
import type { Hit, StrengthCurve } from '@heliaster/core/cut'
import { expose, transfer } from 'comlink'

export interface Decoded {
  readonly audio: Audio
  readonly cueFrames: number[]
  readonly notes: string[]
}

export interface Analysed {
  readonly curve: StrengthCurve
  readonly summary: Summary
}

export interface Picture {
  readonly low: Float32Array
  readonly high: Float32Array
  readonly peakDb: number
  readonly loudnessDb: number
}

const PICTURE_COLUMNS = 64
const KEPT = 3
const kept = new Map<string, Audio>()

/** The heavy work on recordings, away from the page. */
const work = {
  hash: (bytes: ArrayBuffer) => hashAudio(new Uint8Array(bytes)),
  decode(bytes: ArrayBuffer): { ok: true; decoded: Decoded } | { ok: false; message: string } {
    const result = readWav(new Uint8Array(bytes))
    if (!result.ok) return result
    const { audio, cues, notes } = result.file
    const decoded: Decoded = { audio, cueFrames: cues.map((cue) => cue.frame), notes }
    return transfer(
      { ok: true as const, decoded },
      audio.channels.map((channel) => channel.buffer as ArrayBuffer),
    )
  },
  encode(audio: Audio): ArrayBuffer {
    const bytes = writeWav(audio, { bits: 24 })
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
  picture(audio: Audio): Picture {
    const mono = toMono(audio)
    const columns = columnsOf(summarise(mono), mono, 0, mono.length, PICTURE_COLUMNS)
    return { ...columns, peakDb: toDb(peakOf(mono)), loudnessDb: momentaryLoudness(audio.channels, audio.sampleRateHz) }
  },
}
export type CoreWork = typeof work

expose(work)
