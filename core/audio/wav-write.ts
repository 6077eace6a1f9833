import { frameCount } from './audio'
import type { Audio } from './audio'
import { bextChunk } from './bext'
import type { Broadcast } from './bext'

export interface WavOptions {
  /** 16 and 24 are integer, 32 is float. */
  readonly bits: 16 | 24 | 32
  readonly cueFrames?: readonly number[]
  readonly rootNote?: number
  readonly loop?: { readonly startFrame: number; readonly endFrame: number }
  /** When it begins on a day's clock, and what it is. */
  readonly broadcast?: Broadcast
}

/** Writes a WAV file. 32-bit float keeps every sample as it is; integers are rounded and held within full scale. */
export function writeWav(audio: Audio, options: WavOptions): Uint8Array<ArrayBuffer> {
  const channels = audio.channels.length
  const frames = frameCount(audio)
  const bytesPerSample = options.bits / 8
  const dataBytes = frames * channels * bytesPerSample
  const extra = [...cueChunk(options), ...samplerChunk(audio, options)]
  const padded = dataBytes + (dataBytes % 2)
  const bext = options.broadcast ? bextChunk(options.broadcast) : new Uint8Array(0)
  const head = 12 + bext.length // where the format begins
  const bytes = new Uint8Array(head + 32 + padded + extra.length)
  const view = new DataView(bytes.buffer)
  const tag = options.bits === 32 ? 3 : 1
  writeText(bytes, 0, 'RIFF')
  view.setUint32(4, bytes.length - 8, true)
  writeText(bytes, 8, 'WAVE')
  bytes.set(bext, 12)
  writeText(bytes, head, 'fmt ')
  view.setUint32(head + 4, 16, true)
  view.setUint16(head + 8, tag, true)
  view.setUint16(head + 10, channels, true)
  view.setUint32(head + 12, audio.sampleRateHz, true)
  view.setUint32(head + 16, audio.sampleRateHz * channels * bytesPerSample, true)
  view.setUint16(head + 20, channels * bytesPerSample, true)
  view.setUint16(head + 22, options.bits, true)
  writeText(bytes, head + 24, 'data')
  view.setUint32(head + 28, dataBytes, true)
  writeSamples(view, audio, options.bits, head + 32)
  bytes.set(extra, head + 32 + padded)
  return bytes
}

function writeText(bytes: Uint8Array, at: number, text: string): void {
  for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i)
}

function writeSamples(view: DataView, audio: Audio, bits: 16 | 24 | 32, from: number): void {
  const channels = audio.channels
  const bytes = bits / 8
  const full = bits === 16 ? 32767 : 8388607
  for (let channel = 0; channel < channels.length; channel++) {
    const samples = channels[channel]
    let at = from + channel * bytes
    for (let i = 0; i < samples.length; i++, at += bytes * channels.length) {
      if (bits === 32) {
        view.setFloat32(at, samples[i], true)
        continue
      }
      const value = Math.round(Math.max(-full - 1, Math.min(full, samples[i] * (full + 1))))
      view.setInt16(at, value & 0xffff, true)
      if (bits === 24) view.setInt8(at + 2, value >> 16)
    }
  }
}

function chunk(id: string, words: readonly number[]): number[] {
  const bytes = [...id].map((letter) => letter.charCodeAt(0))
  for (const word of [words.length * 4, ...words]) bytes.push(word & 255, (word >>> 8) & 255, (word >>> 16) & 255, (word >>> 24) & 255)
  return bytes
}

const DATA_ID = 0x61746164 // 'data'

function cueChunk({ cueFrames = [] }: WavOptions): number[] {
  if (cueFrames.length === 0) return []
  return chunk('cue ', [cueFrames.length, ...cueFrames.flatMap((frame, i) => [i + 1, frame, DATA_ID, 0, 0, frame])])
}

function samplerChunk(audio: Audio, { rootNote, loop }: WavOptions): number[] {
  if (rootNote === undefined && !loop) return []
  const periodNanoseconds = Math.round(1e9 / audio.sampleRateHz)
  const loops = loop ? [1, 0, loop.startFrame, loop.endFrame - 1, 0, 0] : []
  return chunk('smpl', [0, 0, periodNanoseconds, rootNote ?? 60, 0, 0, 0, loop ? 1 : 0, 0, ...loops])
}
