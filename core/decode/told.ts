/** What a file says of itself beside its sound. */
export interface Told {
  readonly tempoBpm?: number
  /** How many beats it lasts. */
  readonly beats?: number
  /** The MIDI note that its sound was recorded at. */
  readonly rootNote?: number
}

/** What is believed of a tempo, BPM, and of a number of beats. */
const TEMPO = [20, 400] as const
const MOST_BEATS = 4096

/** What a WAV file's tempo chunk says: flags, root note, beats and tempo, in 24 bytes; nothing of a hit without a tempo. */
export function toldByWav(bytes: Uint8Array, rootNote: number | undefined): Told {
  const chunk = chunkOf(bytes, 'acid')
  const has = chunk !== undefined && chunk.byteLength >= 24
  const flags = has ? chunk.getUint32(0, true) : 0
  const isHit = (flags & 1) === 1
  const root = has && (flags & 2) === 2 ? chunk.getUint16(4, true) : rootNote
  return believed(has && !isHit ? chunk.getFloat32(20, true) : NaN, has && !isHit ? chunk.getUint32(12, true) : NaN, root ?? NaN)
}

export function toldByNote(rootNote: number | undefined): Told {
  return believed(NaN, NaN, rootNote ?? NaN)
}

/** Puts together what is believed of what was written; anything else is left out. */
export function believed(tempoBpm: number, beats: number, rootNote: number): Told {
  return {
    ...(tempoBpm >= TEMPO[0] && tempoBpm <= TEMPO[1] ? { tempoBpm: Math.round(tempoBpm * 1000) / 1000 } : {}),
    ...(Number.isInteger(beats) && beats >= 1 && beats <= MOST_BEATS ? { beats } : {}),
    ...(Number.isInteger(rootNote) && rootNote >= 1 && rootNote <= 127 ? { rootNote } : {}),
  }
}

function chunkOf(bytes: Uint8Array, id: string): DataView | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = Math.min(view.getUint32(at + 4, true), bytes.length - at - 8)
    if (String.fromCharCode(...bytes.subarray(at, at + 4)) === id) return new DataView(bytes.buffer, bytes.byteOffset + at + 8, length)
    at += 8 + length + (length % 2)
  }
  return undefined
}

/** Whether a WAV file carries tags of the kind that compressed files have. */
export function hasTags(bytes: Uint8Array): boolean {
  return chunkOf(bytes, 'id3 ') !== undefined || chunkOf(bytes, 'ID3 ') !== undefined
}
