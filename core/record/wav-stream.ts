/** A WAV file that grows while it is written: its head first, then frames, its sizes last. */
export interface WavForm {
  readonly sampleRateHz: number
  readonly channels: number
  /** 24 are whole numbers, 32 are floats. */
  readonly bits: 24 | 32
}

export const HEADER_BYTES = 44
const FULL = 8388608

/** The head for so many frames; with 0 frames readers take everything up to the end of the file. */
export function wavHeader({ sampleRateHz, channels, bits }: WavForm, frames: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEADER_BYTES)
  const view = new DataView(bytes.buffer)
  const frameBytes = (channels * bits) / 8
  const text = (at: number, words: string) => [...words].forEach((letter, i) => (bytes[at + i] = letter.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, frames > 0 ? 36 + frames * frameBytes : 0, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, bits === 32 ? 3 : 1, true)
  view.setUint16(22, channels, true)
  view.setUint32(24, sampleRateHz, true)
  view.setUint32(28, sampleRateHz * frameBytes, true)
  view.setUint16(32, frameBytes, true)
  view.setUint16(34, bits, true)
  text(36, 'data')
  view.setUint32(40, frames * frameBytes, true)
  return bytes
}

/** Frames of all channels, interleaved as the file has them. */
export function encodeFrames(channels: readonly Float32Array[], bits: 24 | 32): Uint8Array<ArrayBuffer> {
  const frames = channels[0]?.length ?? 0
  const width = bits / 8
  const bytes = new Uint8Array(frames * channels.length * width)
  const view = new DataView(bytes.buffer)
  let at = 0
  for (let i = 0; i < frames; i++)
    for (const channel of channels) {
      if (bits === 32) view.setFloat32(at, channel[i], true)
      else {
        const value = Math.round(Math.max(-FULL, Math.min(FULL - 1, channel[i] * FULL)))
        view.setUint16(at, value & 0xffff, true)
        view.setInt8(at + 2, value >> 16)
      }
      at += width
    }
  return bytes
}

/** How many whole frames a file of this length holds, whatever its head says: a killed recording ends anywhere. */
export function wholeFrames({ channels, bits }: WavForm, fileBytes: number): number {
  return Math.max(0, Math.floor((fileBytes - HEADER_BYTES) / ((channels * bits) / 8)))
}

/** Whether left and right are the same in every one of these whole frames. */
export function sidesAlike(frames: Uint8Array, { bits }: WavForm): boolean {
  const width = bits / 8
  for (let at = 0; at < frames.length; at += 2 * width)
    for (let i = 0; i < width; i++) if (frames[at + i] !== frames[at + width + i]) return false
  return true
}

/** The first channel of these whole frames of two. */
export function firstSide(frames: Uint8Array, { bits }: WavForm): Uint8Array<ArrayBuffer> {
  const width = bits / 8
  const side = new Uint8Array(frames.length / 2)
  for (let at = 0; at < side.length; at += width) for (let i = 0; i < width; i++) side[at + i] = frames[2 * at + i]
  return side
}

/** The form that a head written by `wavHeader` names; undefined for anything else. */
export function formOf(head: Uint8Array): WavForm | undefined {
  if (head.length < HEADER_BYTES || String.fromCharCode(...head.subarray(8, 15)) !== 'WAVEfmt') return undefined
  const view = new DataView(head.buffer, head.byteOffset)
  const bits = view.getUint16(34, true)
  const channels = view.getUint16(22, true)
  const sampleRateHz = view.getUint32(24, true)
  if ((bits !== 24 && bits !== 32) || channels < 1 || channels > 64 || sampleRateHz < 1000) return undefined
  return { sampleRateHz, channels, bits }
}
