/** So much may lie about before the browser is made to look. */
const MOST_BYTES = 16e6
/** Less than this is left to it when all has come. */
const LITTLE_BYTES = 4e6
const ASKED_BYTES = 1 << 26
/** So much is looked for at once. */
export const AT_ONCE_BYTES = 1 << 28

let lyingBytes = 0
let bytesSinceTidy = 0

const askedFor = (bytes: number): number => new ArrayBuffer(bytes).byteLength

/**
 * Says that so many bytes of files or samples are of no use any more. What lies outside of its own heap a browser collects late:
 * of 192 MB of samples that a bare page reads and lays out, 158 MB more lie about when the last has come, in page and worker
 * together. Room that is asked for and never touched takes none, and makes it look: 36 MB are left then, and it takes no longer.
 */
export function letGo(bytes: number, ask = askedFor): void {
  lyingBytes += bytes
  bytesSinceTidy += bytes
  if (lyingBytes >= MOST_BYTES) look(ask)
}

/** What newer browsers can do with a buffer that is not shared. */
type Transferring = ArrayBufferLike & { transfer?(bytes: number): ArrayBuffer }

/**
 * Gives memory back at once that was made here and that nobody reads any more. What came as a message or was read from a file the
 * browser holds itself, and would only count it no longer: for that there is `letGo`.
 */
export function giveBack(buffer: Transferring): void {
  if (buffer.transfer) buffer.transfer(0)
  else letGo(buffer.byteLength)
}

const tidying = new Set<() => void>()

/** Called before it is tidied, to let go of what is at hand only by the way. */
export function whenTidied(listener: () => void): void {
  tidying.add(listener)
}

/**
 * All has come: what is let go while the browser looks it keeps until it looks again. A page looks by and by, so that nobody waits
 * for it; a worker that has nothing more to do is left no time for that, and is asked for so much that it looks at once.
 */
export function tidy(isMuch = false, bytes = ASKED_BYTES, ask = askedFor): void {
  for (const listener of tidying) listener()
  if (isMuch || bytesSinceTidy >= LITTLE_BYTES) look(ask, bytes)
  bytesSinceTidy = 0
}

function look(ask: (bytes: number) => number, bytes = ASKED_BYTES): void {
  lyingBytes = 0
  try {
    ask(bytes)
  } catch {
    // Where there is so little room it has looked already.
  }
}
