import type { Audio } from './audio'
import { startFrameOf } from './bext'
import { readPcm } from './pcm'

/** What a WAV file holds besides its samples; all frames are frames of the file. */
export interface WavFile {
  readonly audio: Audio
  readonly bitsPerSample: number
  readonly isFloat: boolean
  /** Frames of the `cue ` chunk, in order, with the labels of an `adtl` list where there are some. */
  readonly cues: { readonly frame: number; readonly label?: string }[]
  readonly loops: { readonly startFrame: number; readonly endFrame: number }[]
  readonly rootNote?: number
  /** Frames since midnight at which it begins, from its broadcast chunk. */
  readonly startFrame?: number
  readonly velocityRange?: readonly [low: number, high: number]
  /** What had to be mended to read it, in words for a person. */
  readonly notes: string[]
}

export type WavResult = { readonly ok: true; readonly file: WavFile } | { readonly ok: false; readonly message: string }

interface Format {
  readonly tag: number
  readonly channels: number
  readonly sampleRateHz: number
  readonly bytesPerFrame: number
  readonly bits: number
}

const PCM = 1
const FLOAT = 3
const EXTENSIBLE = 0xfffe

/**
 * Reads 8, 16, 24 and 32-bit integer and 32 and 64-bit float WAV, plain or extensible, also with sizes of 64 bits (RF64, EBU
 * Tech 3306; BW64, ITU-R BS.2088). A file that ends early keeps what it has, with a note. A file that cannot be read says why
 * and what to do.
 */
export function readWav(bytes: Uint8Array): WavResult {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const refusal = refuseByHead(bytes)
  if (refusal) return fail(refusal)
  const notes: string[] = []
  const chunks = listChunks(view, notes)
  const format = chunks.has('fmt ') ? readFormat(view, chunks.get('fmt ')!) : undefined
  if (!format) return fail('This WAV file has no usable format description. Export it again as WAV.')
  const unreadable = refuseFormat(format)
  if (unreadable) return fail(unreadable)
  const data = chunks.get('data')
  if (!data) return fail('This WAV file holds no audio data. It may have been cut off while saving; export it again.')
  const frames = Math.floor(data.length / format.bytesPerFrame)
  if (frames === 0) return fail('This WAV file holds 0 frames of audio. There is nothing in it to import.')
  return {
    ok: true,
    file: {
      audio: { sampleRateHz: format.sampleRateHz, channels: readSamples(view, data.start, frames, format) },
      bitsPerSample: format.bits,
      isFloat: format.tag === FLOAT,
      cues: readCues(view, chunks, frames),
      ...readStart(view, chunks),
      ...readSampler(view, chunks, frames),
      notes,
    },
  }
}

const BEXT_BYTES = 348

function readStart(view: DataView, chunks: Map<string, Span>): Pick<WavFile, 'startFrame'> {
  const span = chunks.get('bext')
  return span && span.length >= BEXT_BYTES ? { startFrame: startFrameOf(view, span.start) } : {}
}

function fail(message: string): WavResult {
  return { ok: false, message }
}

function refuseByHead(bytes: Uint8Array): string | undefined {
  if (bytes.length === 0) return 'This file is empty (0 bytes).'
  const head = text(bytes, 0, 4)
  const form = text(bytes, 8, 4)
  if (['RIFF', 'RF64', 'BW64'].includes(head) && form === 'WAVE') return undefined
  if (head === 'RIFX') return 'This is a big-endian WAV file (RIFX), which is not read. Export it as ordinary WAV.'
  return 'This is not a WAV file: it does not begin with a RIFF header. Convert it to WAV and import that.'
}

function text(bytes: Uint8Array, at: number, length: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + length))
}

interface Span {
  readonly start: number
  readonly length: number
}

/** Finds the chunks. Sizes are believed only as far as the file reaches; odd ones are padded, or, in some files, not. */
function listChunks(view: DataView, notes: string[]): Map<string, Span> {
  const chunks = new Map<string, Span>()
  let at = 12
  while (at + 8 <= view.byteLength) {
    const id = chunkId(view, at)
    const start = at + 8
    const claimed = claimedSize(view, at, chunks)
    const length = Math.min(claimed, view.byteLength - start)
    // What writes as it goes, or was cut off, leaves 0 or all ones as the size of the data: it then reaches to the end.
    const isOpen = claimed === OPEN || (claimed === 0 && !looksLikeChunk(view, start))
    if (id === 'data' && isOpen && start < view.byteLength) {
      notes.push('The file does not say how long its audio is; everything up to its end was read.')
      chunks.set(id, { start, length: view.byteLength - start })
      break
    }
    if (length < claimed && id === 'data')
      notes.push(`The file ends early: ${claimed} bytes of audio were announced, ${length} are there and were read.`)
    if (!chunks.has(id)) chunks.set(id, { start, length })
    at = start + length
    if (length % 2 === 1 && !looksLikeChunk(view, at)) at++
  }
  return chunks
}

const OPEN = 0xffffffff
const DS64_BYTES = 16

/** How many bytes a chunk says it has: of data that say all ones, what stands in the chunk of large sizes before it. */
function claimedSize(view: DataView, at: number, chunks: Map<string, Span>): number {
  const claimed = view.getUint32(at + 4, true)
  const sizes = chunks.get('ds64')
  if (claimed !== OPEN || chunkId(view, at) !== 'data' || !sizes || sizes.length < DS64_BYTES) return claimed
  const large = Number(view.getBigUint64(sizes.start + 8, true))
  return large > 0 ? large : OPEN
}

function chunkId(view: DataView, at: number): string {
  return String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3))
}

function looksLikeChunk(view: DataView, at: number): boolean {
  return at + 8 <= view.byteLength && /^(fmt |data|cue |smpl|inst|LIST|fact|bext|id3 |JUNK)$/.test(chunkId(view, at))
}

function readFormat(view: DataView, span: Span): Format | undefined {
  if (span.length < 16) return undefined
  const u16 = (at: number) => view.getUint16(span.start + at, true)
  let tag = u16(0)
  if (tag === EXTENSIBLE && span.length >= 26) tag = u16(24)
  return { tag, channels: u16(2), sampleRateHz: view.getUint32(span.start + 4, true), bytesPerFrame: u16(12), bits: u16(14) }
}

function refuseFormat(format: Format): string | undefined {
  const { tag, channels, sampleRateHz, bytesPerFrame, bits } = format
  if (tag !== PCM && tag !== FLOAT) return `This WAV file is compressed (format ${tag}), which is not read. Export it as uncompressed WAV.`
  if (channels < 1 || channels > 64) return `This WAV file claims ${channels} channels; 1 to 64 are read.`
  if (sampleRateHz < 1000 || sampleRateHz > 768000)
    return `This WAV file claims a sample rate of ${sampleRateHz} Hz; 1000 to 768000 are read.`
  const readable = tag === FLOAT ? [32, 64] : [8, 16, 24, 32]
  const container = bytesPerFrame / channels
  if (!readable.includes(container * 8) || bits > container * 8 || bits < 1)
    return `This WAV file has ${bits}-bit ${tag === FLOAT ? 'float' : 'integer'} samples in ${bytesPerFrame} bytes a frame, which is not read. Export it with 16, 24 or 32 bits.`
  return undefined
}

function readSamples(view: DataView, start: number, frames: number, format: Format): Float32Array[] {
  const bytesPerSample = format.bytesPerFrame / format.channels
  const isFloat = format.tag === FLOAT
  return readPcm(view, start, frames, { channels: format.channels, bytesPerSample, isFloat, littleEndian: true, unsigned: true })
}

function readCues(view: DataView, chunks: Map<string, Span>, frames: number): WavFile['cues'] {
  const span = chunks.get('cue ')
  if (!span || span.length < 4) return []
  const count = Math.min(view.getUint32(span.start, true), Math.floor((span.length - 4) / 24))
  const labels = readLabels(view, chunks.get('LIST'))
  const cues: { frame: number; label?: string }[] = []
  for (let i = 0; i < count; i++) {
    const at = span.start + 4 + i * 24
    const frame = view.getUint32(at + 20, true)
    const label = labels.get(view.getUint32(at, true))
    if (frame < frames) cues.push(label ? { frame, label } : { frame })
  }
  return cues.sort((a, b) => a.frame - b.frame)
}

function readLabels(view: DataView, list: Span | undefined): Map<number, string> {
  const labels = new Map<number, string>()
  if (!list || list.length < 4 || chunkId(view, list.start) !== 'adtl') return labels
  const end = list.start + list.length
  for (let at = list.start + 4; at + 12 <= end;) {
    const length = Math.min(view.getUint32(at + 4, true), end - at - 8)
    if (chunkId(view, at) === 'labl' && length > 4) {
      const bytes = new Uint8Array(view.buffer, view.byteOffset + at + 12, length - 4)
      labels.set(view.getUint32(at + 8, true), wordsOf(bytes).replace(/\0.*$/s, ''))
    }
    at += 8 + length + (length % 2)
  }
  return labels
}

/** The standard does not say how words are written: as UTF-8 where they are, else one character a byte. */
function wordsOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return String.fromCharCode(...bytes)
  }
}

function readSampler(view: DataView, chunks: Map<string, Span>, frames: number): Pick<WavFile, 'loops' | 'rootNote' | 'velocityRange'> {
  const loops: { startFrame: number; endFrame: number }[] = []
  let rootNote: number | undefined
  const smpl = chunks.get('smpl')
  if (smpl && smpl.length >= 36) {
    rootNote = asMidi(view.getUint32(smpl.start + 12, true))
    const count = Math.min(view.getUint32(smpl.start + 28, true), Math.floor((smpl.length - 36) / 24))
    for (let i = 0; i < count; i++) {
      const at = smpl.start + 36 + i * 24
      const startFrame = view.getUint32(at + 8, true)
      const endFrame = view.getUint32(at + 12, true) + 1 // the chunk names the last frame of the loop
      if (startFrame < endFrame && endFrame <= frames) loops.push({ startFrame, endFrame })
    }
  }
  const inst = chunks.get('inst')
  if (!inst || inst.length < 7) return { loops, rootNote }
  const low = view.getUint8(inst.start + 5)
  const high = view.getUint8(inst.start + 6)
  return {
    loops,
    rootNote: rootNote ?? asMidi(view.getUint8(inst.start)),
    velocityRange: low <= high && high <= 127 ? [low, high] : undefined,
  }
}

function asMidi(note: number): number | undefined {
  return note <= 127 ? note : undefined
}
