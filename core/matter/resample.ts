/** Zero crossings of the sinc to each side, and places between two samples at which it is kept. */
const HALF = 24
const STEPS = 512

/** Kaiser's window over -1..1. */
function kaiser(x: number): number {
  const beta = 9
  const i0 = (value: number) => {
    let [sum, term] = [1, 1]
    for (let k = 1; k < 40; k++) {
      term *= (value / (2 * k)) ** 2
      sum += term
    }
    return sum
  }
  return Math.abs(x) >= 1 ? 0 : i0(beta * Math.sqrt(1 - x * x)) / i0(beta)
}

let table: Float64Array | undefined

function sincTable(): Float64Array {
  table ??= Float64Array.from({ length: HALF * STEPS + 2 }, (_, i) => {
    const x = i / STEPS
    return (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)) * kaiser(x / HALF)
  })
  return table
}

/**
 * Samples read `rate` times as fast, as `frames` samples: pitch and length together. Nothing above half the new rate is left.
 * Source: J. O. Smith, Digital audio resampling, 2002.
 */
export function resample(samples: Float32Array, rate: number, frames: number): Float32Array {
  const sinc = sincTable()
  const out = new Float32Array(frames)
  const scale = Math.min(1, 1 / rate)
  const reach = HALF / scale
  for (let frame = 0; frame < frames; frame++) {
    const place = frame * rate
    const first = Math.max(0, Math.ceil(place - reach))
    const last = Math.min(samples.length - 1, Math.floor(place + reach))
    let sum = 0
    for (let i = first; i <= last; i++) {
      const at = Math.abs(place - i) * scale * STEPS
      const below = Math.floor(at)
      sum += samples[i]! * (sinc[below]! + (sinc[below + 1]! - sinc[below]!) * (at - below))
    }
    out[frame] = sum * scale
  }
  return out
}
