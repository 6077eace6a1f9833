/** A tray serves files from a quarter of its size up to all of it. */
const WIDEST = 4
const GRAIN_BYTES = 1 << 14
const MOST_FREE_BYTES = 16e6

let free: SharedArrayBuffer[] = []

/**
 * Memory in which a worker lays what it decoded for the page to pass on. What goes from worker to page as a message the browser
 * keeps until it collects it, and counts late; a tray is used again and again. Undefined where page and worker share no memory.
 */
export function takeTray(bytes: number): SharedArrayBuffer | undefined {
  if (!globalThis.crossOriginIsolated || typeof SharedArrayBuffer === 'undefined' || bytes === 0) return undefined
  const wanted = Math.ceil(bytes / GRAIN_BYTES) * GRAIN_BYTES
  const found = free.findIndex(({ byteLength }) => byteLength >= bytes && byteLength <= WIDEST * wanted)
  if (found >= 0) return free.splice(found, 1)[0]
  try {
    return new SharedArrayBuffer(wanted)
  } catch {
    return undefined // no room: as it would go without one
  }
}

/** The channels that lie on a tray, one behind the other. */
export function onTray(tray: SharedArrayBuffer, channels: number, frames: number): Float32Array<ArrayBuffer>[] {
  const memory = tray as unknown as ArrayBuffer // samples are samples, wherever they lie
  return Array.from({ length: channels }, (_, i) => new Float32Array(memory, 4 * i * frames, frames))
}

export function putTrayBack(tray: SharedArrayBuffer): void {
  const held = free.reduce((sum, { byteLength }) => sum + byteLength, 0)
  if (held + tray.byteLength <= MOST_FREE_BYTES) free.push(tray)
}

/** Nothing more is passed on for now. */
export function clearTrays(): void {
  free = []
}
