/** What the broadcast chunk of a WAV file says: EBU Tech 3285, version 1. */
export interface Broadcast {
  /** Up to 256 letters. */
  readonly description: string
  /** Frames since midnight at which the file begins, at its own rate. */
  readonly startFrame: number
  readonly madeAt: Date
}

const DESCRIPTION = 256
const ORIGINATOR = 32
const REFERENCE = 32
const BODY = 602
const ORIGINATOR_NAME = 'Heliaster'

/** The chunk with its head, 610 bytes. */
export function bextChunk({ description, startFrame, madeAt }: Broadcast): Uint8Array {
  const bytes = new Uint8Array(8 + BODY)
  const view = new DataView(bytes.buffer)
  let at = 0
  const text = (words: string, room: number) => {
    for (let i = 0; i < Math.min(room, words.length); i++) bytes[at + i] = words.charCodeAt(i) < 128 ? words.charCodeAt(i) : 63 // '?': ASCII alone
    at += room
  }
  const two = (value: number) => String(value).padStart(2, '0')
  text('bext', 4)
  view.setUint32(at, BODY, true)
  at += 4
  text(description, DESCRIPTION)
  text(ORIGINATOR_NAME, ORIGINATOR)
  text('', REFERENCE)
  text(`${madeAt.getFullYear()}-${two(madeAt.getMonth() + 1)}-${two(madeAt.getDate())}`, 10)
  text(`${two(madeAt.getHours())}:${two(madeAt.getMinutes())}:${two(madeAt.getSeconds())}`, 8)
  view.setUint32(at, startFrame % 2 ** 32, true)
  view.setUint32(at + 4, Math.floor(startFrame / 2 ** 32), true)
  view.setUint16(at + 8, 1, true)
  return bytes
}

/** Frames since midnight at which a file begins, from the body of its broadcast chunk. */
export function startFrameOf(view: DataView, at: number): number {
  const low = at + DESCRIPTION + ORIGINATOR + REFERENCE + 18
  return view.getUint32(low, true) + view.getUint32(low + 4, true) * 2 ** 32
}
