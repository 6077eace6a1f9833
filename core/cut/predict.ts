/**
 * What each sample is beyond what the ones before it foretold. The prediction is made from frames [knownFrom, knownTo)
 * by the method of J. P. Burg ("Maximum entropy spectral analysis", 1975), so that what rang there, hums or hisses is
 * foretold, and what comes anew stands out from its first sample on.
 *
 * Returns the surprise of frames [knownFrom, to); the first `order` of them are 0.
 */
export function surprises(samples: Float32Array, knownFrom: number, knownTo: number, to: number, order: number): Float32Array {
  const weights = burgWeights(samples, knownFrom, knownTo, Math.min(order, (knownTo - knownFrom) >> 2))
  const out = new Float32Array(Math.max(0, to - knownFrom))
  for (let i = weights.length; i < out.length; i++) {
    let foretold = 0
    for (let j = 0; j < weights.length; j++) foretold += weights[j] * samples[knownFrom + i - 1 - j]
    out[i] = samples[knownFrom + i] - foretold
  }
  return out
}

/** Weights of the samples before, nearest first, that foretell a sample best. */
function burgWeights(samples: Float32Array, from: number, to: number, order: number): Float64Array {
  const count = to - from
  const forward = Float64Array.from(samples.subarray(from, to))
  const backward = forward.slice()
  const weights = new Float64Array(Math.max(0, order))
  const before = new Float64Array(Math.max(0, order))
  for (let k = 0; k < order; k++) {
    let both = 0
    let power = 1e-18
    for (let i = k + 1; i < count; i++) {
      both += forward[i] * backward[i - 1]
      power += forward[i] * forward[i] + backward[i - 1] * backward[i - 1]
    }
    const reflection = (2 * both) / power
    before.set(weights)
    weights[k] = reflection
    for (let j = 0; j < k; j++) weights[j] = before[j] - reflection * before[k - 1 - j]
    for (let i = count - 1; i > k; i--) {
      const ahead = forward[i] - reflection * backward[i - 1]
      backward[i] = backward[i - 1] - reflection * forward[i]
      forward[i] = ahead
    }
  }
  return weights
}
