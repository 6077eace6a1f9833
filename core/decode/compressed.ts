import { FLACDecoder } from '@wasm-audio-decoders/flac'
import { OggVorbisDecoder } from '@wasm-audio-decoders/ogg-vorbis'
import { MPEGDecoder } from 'mpg123-decoder'
import { OggOpusDecoder } from 'ogg-opus-decoder'

import type { Audio } from '../audio/audio'
import type { AudioFormat } from './format'

interface Decoded {
  readonly channelData: Float32Array[]
  readonly samplesDecoded: number
  readonly sampleRate: number
  /** Where the format has one. The FLAC decoder scales whole numbers to 2^(bits - 1) - 1. */
  readonly bitDepth?: number
  readonly errors: readonly unknown[]
}

interface Decoder {
  readonly ready: Promise<void>
  decode(bytes: Uint8Array): Decoded | Promise<Decoded>
  flush?(): Promise<Decoded>
  free(): void
}

type CompressedFormat = Exclude<AudioFormat, 'WAV' | 'AIFF' | 'MPEG-4' | 'WebM'>
type Result = { readonly ok: true; readonly audio: Audio; readonly notes: string[] } | { readonly ok: false; readonly message: string }

const PIECE_BYTES = 64 * 1024

/**
 * The most decoded audio that is kept of a compressed file: 64 MB, or a thousand times the file where that is more.
 * Real music and speech stay far below; only long digital silence, or a file made to fill the memory, gets there.
 */
export function memoryLimitBytes(fileBytes: number): number {
  return Math.max(64 * 1024 * 1024, Math.min(2 ** 31, fileBytes * 1000))
}

function createDecoder(format: CompressedFormat): Decoder {
  if (format === 'FLAC' || format === 'Ogg FLAC') return new FLACDecoder()
  if (format === 'Ogg Vorbis') return new OggVorbisDecoder()
  if (format === 'Ogg Opus') return new OggOpusDecoder()
  return new MPEGDecoder()
}

/** Decodes piece by piece, so that a file that grows without end is stopped. Never throws. */
export async function readCompressed(bytes: Uint8Array, format: CompressedFormat): Promise<Result> {
  const unreadable = { ok: false as const, message: `This ${format} file is damaged and cannot be decoded. Export it again.` }
  let decoder: Decoder | undefined
  try {
    return await quietly(async () => {
      decoder = createDecoder(format)
      await decoder.ready
      return await decodePieces(decoder, bytes, format)
    })
  } catch {
    return unreadable
  } finally {
    try {
      decoder?.free()
    } catch {
      // a decoder that failed may have nothing left to free
    }
  }
}

async function decodePieces(decoder: Decoder, bytes: Uint8Array, format: CompressedFormat): Promise<Result> {
  const pieces: Float32Array[][] = []
  const limit = memoryLimitBytes(bytes.length)
  let held = 0
  let faults = 0
  let sampleRateHz = 0
  const take = ({ channelData, samplesDecoded, sampleRate, bitDepth, errors }: Decoded) => {
    faults += errors.length
    if (samplesDecoded === 0) return
    sampleRateHz ||= sampleRate
    if (pieces.length > 0 && pieces[0].length !== channelData.length) faults++
    else pieces.push(channelData.map((channel) => wholeNumbers(channel.subarray(0, samplesDecoded), bitDepth)))
    held += samplesDecoded * channelData.length * 4
  }
  for (let at = 0; at < bytes.length; at += PIECE_BYTES) {
    take(await decoder.decode(bytes.subarray(at, at + PIECE_BYTES)))
    if (held > limit) return { ok: false, message: tooLarge(format, bytes.length, limit) }
  }
  if (decoder.flush) take(await decoder.flush())
  if (pieces.length === 0)
    return { ok: false, message: `This ${format} file holds no audio that can be decoded. It may be damaged; export it again.` }
  if (!(sampleRateHz >= 1000 && sampleRateHz <= 768000))
    return { ok: false, message: `This ${format} file claims a sample rate of ${sampleRateHz} Hz; 1000 to 768000 are read.` }
  return { ok: true, audio: { sampleRateHz, channels: joined(pieces) }, notes: faultWords(faults) }
}

export function faultWords(faults: number): string[] {
  if (faults === 0) return []
  return [`${faults} damaged ${faults === 1 ? 'place' : 'places'} in the file ${faults === 1 ? 'was' : 'were'} stepped over.`]
}

/** Lossless samples on the same scale as in a WAV file, to the last bit. */
function wholeNumbers(samples: Float32Array, bitDepth: number | undefined): Float32Array {
  if (!bitDepth || bitDepth > 24) return samples
  const full = 2 ** (bitDepth - 1)
  for (let i = 0; i < samples.length; i++) samples[i] = Math.round(samples[i] * (full - 1)) / full
  return samples
}

function tooLarge(format: string, fileBytes: number, limit: number): string {
  const [from, to] = [fileBytes / 1e6, limit / 1e6].map((megabytes) => megabytes.toFixed(1))
  return `This ${format} file of ${from} MB decodes to more than ${to} MB, which no recording of sound does. It was not imported.`
}

function joined(pieces: readonly Float32Array[][]): Float32Array[] {
  const frames = pieces.reduce((sum, piece) => sum + piece[0].length, 0)
  return pieces[0].map((_, channel) => {
    const samples = new Float32Array(frames)
    let at = 0
    for (const piece of pieces) {
      samples.set(piece[channel], at)
      at += piece[channel].length
    }
    for (let i = 0; i < frames; i++) if (samples[i] - samples[i] !== 0) samples[i] = 0
    return samples
  })
}

/** The decoders speak to the console of every damaged frame; people are told in the result instead. */
export async function quietly<T>(work: () => Promise<T>): Promise<T> {
  /* eslint-disable no-restricted-globals -- only silenced, never spoken to */
  const { error, warn, log } = console
  const silent = () => undefined
  Object.assign(console, { error: silent, warn: silent, log: silent })
  try {
    return await work()
  } finally {
    Object.assign(console, { error, warn, log })
  }
}
