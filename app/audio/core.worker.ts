import { hashAudio, summarise, toMono, writeWav } from '@heliaster/core/audio'
import type { Audio, Summary } from '@heliaster/core/audio'
import { hitsAt, listenForStrikes, spectrogramOf } from '@heliaster/core/cut'
import type { Attack, EdgePlaces, Hit, Listening, StrengthCurve } from '@heliaster/core/cut'
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

interface Kept {
  readonly audio: Audio
  readonly mono: Float32Array
  readonly listening: Listening
}

const KEPT = 3
const kept = new Map<string, Kept>()

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
  analyse(key: string, audio: Audio, attack: Attack): Analysed {
    const mono = toMono(audio)
    const listening = listenForStrikes(mono, audio.sampleRateHz, attack)
    kept.delete(key)
    kept.set(key, { audio, mono, listening })
    if (kept.size > KEPT) kept.delete([...kept.keys()][0])
    return { curve: listening.curve, summary: summarise(mono) }
  },
  describe(key: string, onsetFrames: number[], endFrames: (number | undefined)[], places: EdgePlaces): Hit[] | undefined {
    const held = kept.get(key)
    return held && hitsAt(held.audio, held.mono, onsetFrames, endFrames, held.listening, places)
  },
  /** Undefined until the recording has been analysed here. */
  spectrogram(key: string, startFrame: number, endFrame: number, columns: number, rows: number): Uint8Array | undefined {
    const held = kept.get(key)
    return held && spectrogramOf(held.mono, held.audio.sampleRateHz, startFrame, endFrame, columns, rows)
  },
  picture: (audio: Audio) => pictureOf(audio),
}
export type CoreWork = typeof work

expose(work)
