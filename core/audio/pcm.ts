/** How uncompressed samples lie in a file: interleaved, all of one width. */
export interface PcmLayout {
  readonly channels: number
  readonly bytesPerSample: number
  readonly isFloat: boolean
  readonly littleEndian: boolean
  /** Whole numbers that run from 0, as 8-bit WAV has them. */
  readonly unsigned?: boolean
}

/** Reads `frames` frames from byte `start`: one array for each channel, full scale at 1. What is no number is silence. */
export function readPcm(view: DataView, start: number, frames: number, layout: PcmLayout): Float32Array[] {
  if (layout.littleEndian && !layout.isFloat && (layout.bytesPerSample === 2 || layout.bytesPerSample === 3))
    return readCommon(new Uint8Array(view.buffer, view.byteOffset + start), frames, layout.channels, layout.bytesPerSample)
  const read = sampleReader(view, layout)
  const step = layout.bytesPerSample * layout.channels
  return Array.from({ length: layout.channels }, (_, channel) => {
    const samples = new Float32Array(frames)
    let at = start + channel * layout.bytesPerSample
    if (layout.isFloat)
      for (let i = 0; i < frames; i++, at += step) {
        const sample = read(at)
        samples[i] = sample - sample === 0 ? sample : 0
      }
    else for (let i = 0; i < frames; i++, at += step) samples[i] = read(at)
    return samples
  })
}

/** Little-endian whole numbers of 16 and 24 bits, which nearly all files have, without a call for each sample. */
function readCommon(bytes: Uint8Array, frames: number, channels: number, width: 2 | 3): Float32Array[] {
  if (width === 2 && bytes.byteOffset % 2 === 0 && IS_LITTLE_ENDIAN) {
    const numbers = new Int16Array(bytes.buffer, bytes.byteOffset, frames * channels)
    return Array.from({ length: channels }, (_, channel) => scaled(numbers, channel, channels, frames))
  }
  const step = width * channels
  return Array.from({ length: channels }, (_, channel) => {
    const samples = new Float32Array(frames)
    let at = channel * width
    if (width === 2) for (let i = 0; i < frames; i++, at += step) samples[i] = (((bytes[at] | (bytes[at + 1] << 8)) << 16) >> 16) / 32768
    else
      for (let i = 0; i < frames; i++, at += step)
        samples[i] = (((bytes[at] | (bytes[at + 1] << 8) | (bytes[at + 2] << 16)) << 8) >> 8) / 8388608
    return samples
  })
}

const IS_LITTLE_ENDIAN = new Uint8Array(Uint16Array.of(1).buffer)[0] === 1

/** Every `step`th number from `first` on, full scale at 1. */
function scaled(numbers: Int16Array, first: number, step: number, frames: number): Float32Array {
  const samples = new Float32Array(frames)
  if (step === 1) for (let i = 0; i < frames; i++) samples[i] = numbers[i] * SCALE_16
  else for (let i = 0, at = first; i < frames; i++, at += step) samples[i] = numbers[at] * SCALE_16
  return samples
}

const SCALE_16 = 1 / 32768

function sampleReader(view: DataView, { bytesPerSample, isFloat, littleEndian: little, unsigned }: PcmLayout): (at: number) => number {
  if (isFloat) return bytesPerSample === 4 ? (at) => view.getFloat32(at, little) : (at) => view.getFloat64(at, little)
  if (bytesPerSample === 1) return unsigned ? (at) => (view.getUint8(at) - 128) / 128 : (at) => view.getInt8(at) / 128
  if (bytesPerSample === 2) return (at) => view.getInt16(at, little) / 32768
  if (bytesPerSample === 4) return (at) => view.getInt32(at, little) / 2147483648
  if (little) return (at) => (view.getUint16(at, true) | (view.getInt8(at + 2) << 16)) / 8388608
  return (at) => ((view.getInt16(at, false) << 8) | view.getUint8(at + 2)) / 8388608
}
