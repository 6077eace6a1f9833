/** Places of a hit that points are drawn to, s after the strike. */
export interface SnapPlaces {
  /** When it is loudest. */
  readonly attackSeconds: number
  /** When it has died away. */
  readonly endSeconds: number
  /** Where its wave passes through zero, in order. */
  readonly crossings: Float32Array
}

/** The places of a hit that points are drawn to. `mono` begins at the strike. */
export function snapPlacesOf(mono: Float32Array, sampleRateHz: number, endSeconds: number): SnapPlaces {
  const crossings: number[] = []
  let loudest = 0
  for (let i = 1; i < mono.length; i++) {
    const [before, now] = [mono[i - 1]!, mono[i]!]
    if (Math.abs(now) > Math.abs(mono[loudest]!)) loudest = i
    if (before * now < 0 || (now === 0 && before !== 0)) crossings.push((i - 1 + before / (before - now)) / sampleRateHz)
  }
  return { attackSeconds: loudest / sampleRateHz, endSeconds, crossings: Float32Array.from(crossings) }
}

/** The crossing nearest to a time. */
function nearestCrossing(crossings: Float32Array, seconds: number): number | undefined {
  let [low, high] = [0, crossings.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (crossings[middle]! < seconds) low = middle + 1
    else high = middle
  }
  const [before, after] = [crossings[low - 1], crossings[low]]
  if (before === undefined || after === undefined) return before ?? after
  return seconds - before < after - seconds ? before : after
}

/**
 * A time drawn to the hit: to its attack or its end where one is within reach, else to the nearest zero crossing that is, else
 * nowhere.
 */
export function snapped(seconds: number, withinSeconds: number, { attackSeconds, endSeconds, crossings }: SnapPlaces): number {
  const near = (place: number | undefined) => place !== undefined && Math.abs(place - seconds) <= withinSeconds
  const landmark = [attackSeconds, endSeconds].find(near)
  if (landmark !== undefined) return landmark
  const crossing = nearestCrossing(crossings, seconds)
  return near(crossing) ? crossing! : seconds
}
