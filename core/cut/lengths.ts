/** Time until the sound stays 30 dB under its peak. */
export function decaySeconds(mono: Float32Array, sampleRateHz: number, peak: number): number {
  const level = peak * 0.0316
  let last = mono.length - 1
  while (last > 0 && Math.abs(mono[last]) <= level) last--
  return last / sampleRateHz
}

/** From a tenth to nine tenths of the peak. */
export function attackSeconds(mono: Float32Array, sampleRateHz: number, peak: number): number {
  let from = 0
  while (from < mono.length && Math.abs(mono[from]) < 0.1 * peak) from++
  let to = from
  while (to < mono.length && Math.abs(mono[to]) < 0.9 * peak) to++
  return (to - from) / sampleRateHz
}
