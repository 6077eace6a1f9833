/**
 * Lowest and highest sample of each run of frames, at several sizes, so that a picture of any length is drawn from
 * about as many numbers as it has pixels.
 */
export interface Summary {
  readonly frames: number
  readonly levels: { readonly framesPerPoint: number; readonly low: Float32Array; readonly high: Float32Array }[]
}

const FINEST = 32
const STEP = 4

export function summarise(samples: Float32Array): Summary {
  const levels: Summary['levels'][number][] = [firstLevel(samples)]
  while (levels[levels.length - 1].low.length > 256) levels.push(nextLevel(levels[levels.length - 1]))
  return { frames: samples.length, levels }
}

function firstLevel(samples: Float32Array): Summary['levels'][number] {
  const points = Math.ceil(samples.length / FINEST)
  const low = new Float32Array(points)
  const high = new Float32Array(points)
  for (let point = 0; point < points; point++) {
    const end = Math.min(samples.length, (point + 1) * FINEST)
    let least = Infinity
    let most = -Infinity
    for (let i = point * FINEST; i < end; i++) {
      if (samples[i] < least) least = samples[i]
      if (samples[i] > most) most = samples[i]
    }
    low[point] = least
    high[point] = most
  }
  return { framesPerPoint: FINEST, low, high }
}

function nextLevel(below: Summary['levels'][number]): Summary['levels'][number] {
  const points = Math.ceil(below.low.length / STEP)
  const low = new Float32Array(points)
  const high = new Float32Array(points)
  for (let point = 0; point < points; point++) {
    let least = Infinity
    let most = -Infinity
    for (let i = point * STEP; i < Math.min(below.low.length, (point + 1) * STEP); i++) {
      if (below.low[i] < least) least = below.low[i]
      if (below.high[i] > most) most = below.high[i]
    }
    low[point] = least
    high[point] = most
  }
  return { framesPerPoint: below.framesPerPoint * STEP, low, high }
}

/**
 * Lowest and highest sample for each of `columns` equal parts of [startFrame, endFrame), read from the samples
 * themselves when the view is closer than the finest level. Parts outside the audio are 0.
 */
export function columnsOf(
  summary: Summary,
  samples: Float32Array | undefined,
  startFrame: number,
  endFrame: number,
  columns: number,
): { low: Float32Array; high: Float32Array } {
  const perColumn = (endFrame - startFrame) / columns
  const level = [...summary.levels].reverse().find((candidate) => candidate.framesPerPoint <= perColumn)
  const exact = !level && samples ? { framesPerPoint: 1, low: samples, high: samples } : (level ?? summary.levels[0])
  const low = new Float32Array(columns)
  const high = new Float32Array(columns)
  for (let column = 0; column < columns; column++) {
    const from = Math.floor((startFrame + column * perColumn) / exact.framesPerPoint)
    const to = Math.max(from + 1, Math.floor((startFrame + (column + 1) * perColumn) / exact.framesPerPoint))
    let least = Infinity
    let most = -Infinity
    for (let i = Math.max(0, from); i < Math.min(exact.low.length, to); i++) {
      if (exact.low[i] < least) least = exact.low[i]
      if (exact.high[i] > most) most = exact.high[i]
    }
    low[column] = least <= most ? least : 0
    high[column] = least <= most ? most : 0
  }
  return { low, high }
}
