const ALIGN_BYTES = 16

/** Hands out arrays that lie one behind the other in one buffer, each on a border of 16 bytes. */
export interface Room {
  doubles(count: number): Float64Array
  ints(count: number): Int32Array
  floats(count: number): Float32Array
  /** The byte behind what was handed out last. */
  readonly end: number
}

/** A room from byte `start` to byte `end` of a buffer. Throws where it is full: its owner reckons what it needs beforehand. */
export function createRoom(buffer: ArrayBuffer, start: number, end: number): Room {
  let at = start
  const take = (bytes: number): number => {
    const from = at
    at += Math.ceil(bytes / ALIGN_BYTES) * ALIGN_BYTES
    if (at > end) throw new Error('The head of the engine’s memory is too small for what it is to hold.')
    return from
  }
  return {
    doubles: (count) => new Float64Array(buffer, take(count * 8), count),
    ints: (count) => new Int32Array(buffer, take(count * 4), count),
    floats: (count) => new Float32Array(buffer, take(count * 4), count),
    get end() {
      return at
    },
  }
}
