import { AudioSampleSink, BufferSource, EncodedPacketSink, Input, MATROSKA, MP4, QTFF, WEBM } from 'mediabunny'
import type { AudioSample, InputAudioTrack } from 'mediabunny'
import { OpusDecoder } from 'opus-decoder'

import type { Audio } from '../audio/audio'
import { faultWords, memoryLimitBytes, quietly } from './compressed'
import type { AudioFormat } from './format'

/** Audio in a package of its own: what telephones record, and what browsers do. */
export type PackagedFormat = Extract<AudioFormat, 'MPEG-4' | 'WebM'>

type Result = { readonly ok: true; readonly audio: Audio; readonly notes: string[] } | { readonly ok: false; readonly message: string }

/**
 * Reads the audio of an MPEG-4 or WebM file. Opus is decoded here; all else by the browser, where it can. What encoders put
 * before the first frame is taken off, as the package's edit list, its gapless tag or the codec's head say. Never throws.
 */
export async function readPackaged(bytes: Uint8Array, format: PackagedFormat): Promise<Result> {
  try {
    const input = new Input({ source: new BufferSource(bytes), formats: [MP4, QTFF, WEBM, MATROSKA] })
    const track = await input.getPrimaryAudioTrack()
    if (!track) return fail(`This ${format} file holds no audio. Choose another file.`)
    return await quietly(() => (track.codec === 'opus' ? readOpus(track, bytes, format) : readByBrowser(track, bytes, format)))
  } catch {
    return fail(`This ${format} file is damaged and cannot be decoded. Export it again, or convert it to WAV.`)
  }
}

function fail(message: string): Result {
  return { ok: false, message }
}

async function readOpus(track: InputAudioTrack, bytes: Uint8Array, format: PackagedFormat): Promise<Result> {
  const head = headOf((await track.getDecoderConfig())?.description)
  const channels = track.numberOfChannels
  const decoder = new OpusDecoder({ channels, preSkip: head?.preSkip ?? 0, sampleRate: 48000 })
  await decoder.ready
  try {
    const pieces: Float32Array[][] = []
    let held = 0
    let faults = 0
    for await (const packet of new EncodedPacketSink(track).packets()) {
      const { channelData, samplesDecoded, errors } = decoder.decodeFrame(packet.data)
      faults += errors.length
      if (samplesDecoded > 0) pieces.push(channelData.map((channel) => channel.slice(0, samplesDecoded)))
      held += samplesDecoded * channels * 4
      if (held > memoryLimitBytes(bytes.length)) return fail(tooLarge(format))
    }
    const audio = joined(pieces, 48000)
    return audio ? { ok: true, audio, notes: faultWords(faults) } : fail(nothingIn(format))
  } finally {
    decoder.free()
  }
}

/** Pre-skip of an Opus head, frames at 48 kHz. */
function headOf(description: AllowSharedBufferSource | undefined): { preSkip: number } | undefined {
  if (!description) return undefined
  const head = ArrayBuffer.isView(description)
    ? new Uint8Array(description.buffer, description.byteOffset, description.byteLength)
    : new Uint8Array(description)
  return head.length >= 12 && String.fromCharCode(...head.subarray(0, 8)) === 'OpusHead'
    ? { preSkip: head[10] | (head[11] << 8) }
    : undefined
}

async function readByBrowser(track: InputAudioTrack, bytes: Uint8Array, format: PackagedFormat): Promise<Result> {
  const name = track.codec === 'aac' ? 'AAC' : (track.codec ?? 'a codec that is not known here')
  if (typeof (globalThis as { AudioDecoder?: unknown }).AudioDecoder !== 'function' || !(await track.canDecode()))
    return fail(
      `This ${format} file holds ${name}, which ${hasPage() ? 'this browser' : 'the command line'} does not decode. ${hasPage() ? 'Import it in another browser' : 'Import it in the application and save a bundle, which holds what was decoded'}, or convert it to WAV.`,
    )
  const rate = track.sampleRate
  const gapless = gaplessOf(bytes)
  const isEdited = (await track.getFirstTimestamp()) < 0
  const placed: { at: number; channels: Float32Array[] }[] = []
  let held = 0
  for await (const sample of new AudioSampleSink(track).samples()) {
    placed.push({ at: Math.round(sample.timestamp * rate), channels: planesOf(sample) })
    held += sample.numberOfFrames * sample.numberOfChannels * 4
    sample.close()
    if (held > memoryLimitBytes(bytes.length)) return fail(tooLarge(format))
  }
  const audio = laidOut(placed, rate, isEdited ? 0 : (gapless?.leadFrames ?? 0), gapless?.frames)
  if (!audio) return fail(nothingIn(format))
  const isUnsaid = track.codec === 'aac' && !isEdited && !gapless
  const notes = isUnsaid ? ['It does not say how much silence its encoder put before it; it may begin some ms late.'] : []
  return { ok: true, audio, notes }
}

function planesOf(sample: AudioSample): Float32Array[] {
  return Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
    const plane = new Float32Array(sample.numberOfFrames)
    sample.copyTo(plane, { planeIndex, format: 'f32-planar' })
    return plane
  })
}

/** Samples by their own times, from frame `lead` on; what lies before was put there by the encoder. */
function laidOut(
  placed: readonly { at: number; channels: Float32Array[] }[],
  sampleRateHz: number,
  lead: number,
  frames?: number,
): Audio | undefined {
  const count = placed[0]?.channels.length ?? 0
  const end = placed.reduce((last, { at, channels }) => Math.max(last, at + channels[0].length - lead), 0)
  const length = Math.min(end, frames ?? end)
  if (length <= 0) return undefined
  const out = Array.from({ length: count }, () => new Float32Array(length))
  for (const { at, channels } of placed)
    channels.slice(0, count).forEach((channel, i) => {
      const from = Math.max(0, lead - at)
      const to = Math.min(channel.length, length + lead - at)
      if (to > from) out[i].set(channel.subarray(from, to), at - lead + from)
    })
  return { sampleRateHz, channels: out }
}

function joined(pieces: readonly Float32Array[][], sampleRateHz: number): Audio | undefined {
  let at = 0
  return laidOut(
    pieces.map((channels) => {
      const placed = { at, channels }
      at += channels[0].length
      return placed
    }),
    sampleRateHz,
    0,
  )
}

/** Frames before the first one, and all that are meant, where a gapless tag of the file says so: hexadecimal words in its text. */
function gaplessOf(bytes: Uint8Array): { leadFrames: number; frames: number } | undefined {
  const at = indexOf(bytes, 'iTunSMPB')
  if (at < 0) return undefined
  const words = String.fromCharCode(...bytes.subarray(at, at + 200))
  const found = / [0-9A-F]{8} ([0-9A-F]{8}) ([0-9A-F]{8}) ([0-9A-F]{16})/.exec(words)
  if (!found) return undefined
  return { leadFrames: parseInt(found[1], 16), frames: parseInt(found[3], 16) }
}

function indexOf(bytes: Uint8Array, text: string): number {
  const codes = [...text].map((letter) => letter.charCodeAt(0))
  for (let at = bytes.indexOf(codes[0]); at >= 0; at = bytes.indexOf(codes[0], at + 1))
    if (codes.every((code, i) => bytes[at + i] === code)) return at
  return -1
}

const hasPage = () => (globalThis as { WorkerGlobalScope?: unknown }).WorkerGlobalScope !== undefined

function tooLarge(format: string): string {
  return `This ${format} file decodes to far more than its size allows, which no recording of sound does. It was not imported.`
}

function nothingIn(format: string): string {
  return `This ${format} file holds no audio that can be decoded. It may be damaged; export it again.`
}
