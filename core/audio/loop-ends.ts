/** Where a loop begins and ends so that its seam is not heard. Frames are those of the samples. */
export interface LoopEnds {
  readonly startFrame: number
  readonly endFrame: number
}

/** Each end at the nearest place, at most `reach` frames away, where the sound passes zero on its way up; as it was where there is none. */
export function snapLoop(channels: readonly Float32Array[], { startFrame, endFrame }: LoopEnds, reach: number): LoopEnds {
  const samples = mixOf(channels)
  const from = nearestRise(samples, startFrame, reach)
  const to = nearestRise(samples, endFrame, reach)
  return to - from < 2 ? { startFrame, endFrame } : { startFrame: from, endFrame: to }
}

function nearestRise(samples: Float32Array, at: number, reach: number): number {
  for (let away = 0; away <= reach; away++)
    for (const frame of [at - away, at + away])
      if (frame > 0 && frame < samples.length && samples[frame - 1] < 0 && samples[frame] >= 0) return frame
  return at
}

/**
 * The end, at most `reach` frames away, around which the sound is most like that around the start: the highest normalised
 * correlation over `span` frames to each side. Ends that would leave fewer than `span` frames between are not looked at.
 */
export function matchLoop(channels: readonly Float32Array[], { startFrame, endFrame }: LoopEnds, reach: number, span: number): LoopEnds {
  const samples = mixOf(channels)
  let best = { likeness: -Infinity, endFrame }
  const last = Math.min(samples.length, endFrame + reach)
  for (let end = Math.max(startFrame + span, endFrame - reach); end <= last; end++) {
    const likeness = likenessAt(samples, startFrame, end, span)
    if (likeness > best.likeness) best = { likeness, endFrame: end }
  }
  return { startFrame, endFrame: best.endFrame }
}

function likenessAt(samples: Float32Array, one: number, other: number, span: number): number {
  let [both, here, there] = [0, 0, 0]
  const from = -Math.min(span, one, other)
  const to = Math.min(span, samples.length - one, samples.length - other)
  for (let i = from; i < to; i++) {
    const [a, b] = [samples[one + i], samples[other + i]]
    both += a * b
    here += a * a
    there += b * b
  }
  return here * there > 0 ? both / Math.sqrt(here * there) : -1
}

function mixOf(channels: readonly Float32Array[]): Float32Array {
  if (channels.length < 2) return channels[0] ?? new Float32Array(0)
  return channels[0].map((sample, i) => sample + channels[1][i])
}
