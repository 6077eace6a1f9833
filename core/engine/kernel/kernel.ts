import type { EngineMemory } from '../memory/memory'
import { builtKernel } from './built'

/** What the built kernel does; see `assembly/voice.ts`. `engine` is the byte at which the engine's own arrays begin. */
export interface Kernel {
  renderVoices(engine: number, from: number, top: number, frame: number, count: number): number
  renderPiece(engine: number, voice: number, at: number, start: number, count: number): void
  /** An effect over a block of a bus; see mix/effects/both/effect.ts. */
  runEffect(unit: number, work: number, frame: number, count: number): void
  /** Where the engine's own arrays begin. */
  readonly engine: number
}

/** What `active` of a voice says that the kernel found to be over; the engine takes leave of it. */
export const OVER = 2

const modules = new Map<boolean, WebAssembly.Module | undefined>()

/** The kernel over an engine's memory; undefined where the host cannot run it, whose plain form gives the same samples. */
export function createKernel({ wasm }: EngineMemory, engine: number): Kernel | undefined {
  if (!wasm) return undefined
  const module = moduleFor(isShared(wasm))
  if (!module) return undefined
  const { exports } = new WebAssembly.Instance(module, { env: { memory: wasm, abort } })
  return { ...(exports as unknown as Pick<Kernel, 'renderVoices' | 'renderPiece' | 'runEffect'>), engine }
}

function abort(): never {
  throw new Error('The kernel of the engine came to a place that it never comes to.')
}

/** By its name, since a buffer may come from another realm. */
function isShared(wasm: WebAssembly.Memory): boolean {
  return Object.prototype.toString.call(wasm.buffer) === '[object SharedArrayBuffer]'
}

/** Compiled once. A host that does not know vectors, or may not compile, has none. */
function moduleFor(shared: boolean): WebAssembly.Module | undefined {
  if (!modules.has(shared)) modules.set(shared, compile(shared))
  return modules.get(shared)
}

function compile(shared: boolean): WebAssembly.Module | undefined {
  try {
    return new WebAssembly.Module(kernelBytes(shared) as Uint8Array<ArrayBuffer>)
  } catch {
    return undefined
  }
}

/** Kind of limits of a memory that is shared, in the binary format. */
const SHARED_LIMITS = 3
const OWN_LIMITS = 1

/** The built module, for memory that is shared or not: the two differ in one byte, the kind of memory that is imported. */
function kernelBytes(shared: boolean): Uint8Array {
  const bytes = fromBase64(builtKernel)
  if (shared) return bytes
  const name = [...'memory'].map((letter) => letter.charCodeAt(0))
  const at = bytes.findIndex((_, i) => name.every((code, j) => bytes[i + j] === code))
  const limits = at + name.length + 1 // behind the name stands the code of a memory
  if (bytes[limits] !== SHARED_LIMITS) throw new Error('The kernel imports no shared memory where it was expected.')
  bytes[limits] = OWN_LIMITS
  return bytes
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** By hand: where sound is made a browser has no function for it. */
function fromBase64(text: string): Uint8Array {
  const bytes = new Uint8Array(Math.floor((text.replace(/=+$/, '').length * 3) / 4))
  let bits = 0
  let held = 0
  let at = 0
  for (const letter of text) {
    const value = LETTERS.indexOf(letter)
    if (value < 0) break
    held = (held << 6) | value
    bits += 6
    if (bits < 8) continue
    bits -= 8
    bytes[at++] = (held >> bits) & 0xff
  }
  return bytes
}
