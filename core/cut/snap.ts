const REACH_SECONDS = 0.004

/**
 * The zero crossing nearest to a frame, within 4 ms: the first frame at or past zero, in the direction asked for. The
 * frame itself where there is none.
 */
export function zeroCrossing(mono: Float32Array, frame: number, sampleRateHz: number, way: 'up' | 'down'): number {
  const reach = Math.round(REACH_SECONDS * sampleRateHz)
  const crosses = (at: number) =>
    at > 0 && at < mono.length && (way === 'up' ? mono[at - 1] < 0 && mono[at] >= 0 : mono[at - 1] > 0 && mono[at] <= 0)
  for (let away = 0; away <= reach; away++) {
    if (crosses(frame - away)) return frame - away
    if (crosses(frame + away)) return frame + away
  }
  return frame
}
