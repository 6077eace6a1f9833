import type { WavFile, WavResult } from './wav-read'
import { readPcm } from './pcm'
import type { PcmLayout } from './pcm'

interface Span {
  readonly start: number
  readonly length: number
}

interface Common {
  readonly channels: number
  readonly frames: number
  readonly bits: number
  readonly sampleRateHz: number
  readonly compression: string
}

/** Uncompressed forms of AIFF-C and how their samples lie. */
const FORMS: Record<string, Partial<PcmLayout>> = {
  NONE: {},
  twos: {},
  in24: {},
  in32: {},
  sowt: { littleEndian: true },
  'raw ': { unsigned: true },
  fl32: { isFloat: true },
  FL32: { isFloat: true },
  fl64: { isFloat: true },
  FL64: { isFloat: true },
}

/**
 * Reads AIFF and uncompressed AIFF-C: 8, 16, 24 and 32-bit integers of either byte order, 32 and 64-bit float, with
 * markers, root note and loop. A file that ends early keeps what it has, with a note. One that cannot be read says why.
 */
export function readAiff(bytes: Uint8Array): WavResult {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 12 || textAt(view, 0, 4) !== 'FORM' || !/^AIF[FC]$/.test(textAt(view, 8, 4)))
    return fail('This is not an AIFF file: it does not begin with a FORM header. Export it again as AIFF or WAV.')
  const notes: string[] = []
  const chunks = listChunks(view)
  const common = readCommon(view, chunks.get('COMM'), textAt(view, 8, 4) === 'AIFC')
  if (!common) return fail('This AIFF file has no usable format description. Export it again as AIFF or WAV.')
  const layout = layoutOf(common)
  if (typeof layout === 'string') return fail(layout)
  const sound = chunks.get('SSND')
  if (!sound || sound.length < 8) return fail('This AIFF file holds no audio data. It may have been cut off while saving; export it again.')
  const offset = 8 + Math.min(view.getUint32(sound.start, false), sound.length - 8)
  const held = Math.floor((sound.length - offset) / (layout.bytesPerSample * layout.channels))
  const frames = Math.min(common.frames || held, held)
  if (frames === 0) return fail('This AIFF file holds 0 frames of audio. There is nothing in it to import.')
  if (frames < common.frames) notes.push(`The file ends early: ${common.frames} frames of audio were announced, ${frames} were read.`)
  const markers = readMarkers(view, chunks.get('MARK'), frames)
  return {
    ok: true,
    file: {
      audio: { sampleRateHz: common.sampleRateHz, channels: readPcm(view, sound.start + offset, frames, layout) },
      bitsPerSample: common.bits,
      isFloat: layout.isFloat,
      cues: [...markers.values()].sort((a, b) => a.frame - b.frame),
      ...readInstrument(view, chunks.get('INST'), markers),
      notes,
    },
  }
}

function fail(message: string): WavResult {
  return { ok: false, message }
}

function textAt(view: DataView, at: number, length: number): string {
  let text = ''
  for (let i = at; i < Math.min(view.byteLength, at + length); i++) text += String.fromCharCode(view.getUint8(i))
  return text
}

/** Finds the chunks. Sizes are believed only as far as the file reaches. */
function listChunks(view: DataView): Map<string, Span> {
  const chunks = new Map<string, Span>()
  for (let at = 12; at + 8 <= view.byteLength;) {
    const id = textAt(view, at, 4)
    const length = Math.min(view.getUint32(at + 4, false), view.byteLength - at - 8)
    if (!chunks.has(id)) chunks.set(id, { start: at + 8, length })
    at += 8 + length + (length % 2)
  }
  return chunks
}

function readCommon(view: DataView, span: Span | undefined, isC: boolean): Common | undefined {
  if (!span || span.length < 18) return undefined
  return {
    channels: view.getUint16(span.start, false),
    frames: view.getUint32(span.start + 2, false),
    bits: view.getUint16(span.start + 6, false),
    sampleRateHz: readExtended(view, span.start + 8),
    compression: isC && span.length >= 22 ? textAt(view, span.start + 18, 4) : 'NONE',
  }
}

/** An 80-bit extended number, as AIFF writes its sample rate. */
function readExtended(view: DataView, at: number): number {
  const exponent = (view.getUint16(at, false) & 0x7fff) - 16383
  return view.getUint32(at + 2, false) * 2 ** (exponent - 31) + view.getUint32(at + 6, false) * 2 ** (exponent - 63)
}

function layoutOf({ channels, bits, sampleRateHz, compression }: Common): PcmLayout | string {
  const form = FORMS[compression]
  if (!form) return `This AIFF file is compressed (${compression.trim() || 'unnamed'}), which is not read. Export it uncompressed.`
  if (channels < 1 || channels > 64) return `This AIFF file claims ${channels} channels; 1 to 64 are read.`
  if (!(sampleRateHz >= 1000 && sampleRateHz <= 768000))
    return 'This AIFF file claims a sample rate outside 1000 to 768000 Hz, which is not read.'
  const bytesPerSample = Math.ceil(bits / 8)
  const readable = form.isFloat ? [4, 8] : [1, 2, 3, 4]
  if (!readable.includes(bytesPerSample))
    return `This AIFF file has samples of ${bits} bits, which is not read. Export it with 16, 24 or 32 bits.`
  return { channels, bytesPerSample, isFloat: false, littleEndian: false, ...form }
}

function readMarkers(view: DataView, span: Span | undefined, frames: number): Map<number, WavFile['cues'][number]> {
  const markers = new Map<number, WavFile['cues'][number]>()
  if (!span || span.length < 2) return markers
  const end = span.start + span.length
  let at = span.start + 2
  for (let left = view.getUint16(span.start, false); left > 0 && at + 7 <= end; left--) {
    const length = view.getUint8(at + 6)
    const label = textAt(view, at + 7, Math.min(length, end - at - 7)).trim()
    const frame = view.getUint32(at + 2, false)
    if (frame < frames) markers.set(view.getInt16(at, false), label ? { frame, label } : { frame })
    at += 7 + length + ((length + 1) % 2)
  }
  return markers
}

function readInstrument(
  view: DataView,
  span: Span | undefined,
  markers: ReadonlyMap<number, { readonly frame: number }>,
): Pick<WavFile, 'loops' | 'rootNote' | 'velocityRange'> {
  if (!span || span.length < 20) return { loops: [] }
  const [root, low, high] = [0, 4, 5].map((at) => view.getUint8(span.start + at))
  const isLooped = view.getInt16(span.start + 8, false) !== 0
  const startFrame = markers.get(view.getInt16(span.start + 10, false))?.frame
  const endFrame = markers.get(view.getInt16(span.start + 12, false))?.frame
  const isLoop = isLooped && startFrame !== undefined && endFrame !== undefined && startFrame < endFrame
  return {
    loops: isLoop ? [{ startFrame, endFrame }] : [],
    rootNote: root <= 127 ? root : undefined,
    velocityRange: low <= high && high <= 127 ? [low, high] : undefined,
  }
}
