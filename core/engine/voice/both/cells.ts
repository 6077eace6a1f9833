/**
 * What is written once and read by two compilers: TypeScript's, for the plain form, and that of the kernel, which has a
 * `cells.ts` of its own. Such files know numbers, functions and these few words alone; all that they keep lies in the
 * engine's memory, found by the place of a double in it. So both forms do the same sums in the same order.
 */

declare global {
  /** A number, to the kernel one of 64 bits. */
  type f64 = number
  /** A whole number. */
  type i32 = number
  type bool = boolean
}

let heap: Float64Array = new Float64Array(0)

/** The plain form says in which memory it is at work. */
export function useMemory(doubles: Float64Array): void {
  heap = doubles
}

/** The double at a place, counted from the start of memory. */
export function get(at: i32): f64 {
  return heap[at]
}

export function put(at: i32, value: f64): void {
  heap[at] = value
}

/** A whole number that is kept as a double, as a place. */
export function toPlace(value: f64): i32 {
  return value
}

let lines: Float32Array = new Float32Array(0)
let linesFrom = 0

/** The plain form says in which run of samples it is at work, and at which place in memory, counted in samples, that begins. */
export function useLines(samples: Float32Array, from: number): void {
  lines = samples
  linesFrom = from
}

/** The sample of 32 bits at a place, counted from the start of memory. */
export function getLine(at: i32): f64 {
  return lines[at - linesFrom]
}

/** Keeps a sample there, rounded to 32 bits; what is as good as nothing is nothing. */
export function putLine(at: i32, value: f64): void {
  lines[at - linesFrom] = Math.abs(value) < 1e-20 ? 0 : value
}
