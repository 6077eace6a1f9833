/** A second-order section, normalised so that a0 is 1. */
export interface Biquad {
  readonly b0: number
  readonly b1: number
  readonly b2: number
  readonly a1: number
  readonly a2: number
}

/** Second-order Butterworth low or high pass (R. Bristow-Johnson, "Cookbook formulae for audio EQ biquad filter coefficients"). */
export function passSection(kind: 'low' | 'high', hz: number, sampleRateHz: number): Biquad {
  const turn = (2 * Math.PI * hz) / sampleRateHz
  const cosine = Math.cos(turn)
  const alpha = Math.sin(turn) * Math.SQRT1_2
  const scale = 1 / (1 + alpha)
  const edge = kind === 'low' ? 1 - cosine : 1 + cosine
  return {
    b0: (edge / 2) * scale,
    b1: (kind === 'low' ? edge : -edge) * scale,
    b2: (edge / 2) * scale,
    a1: -2 * cosine * scale,
    a2: (1 - alpha) * scale,
  }
}

/** A shelf of `gainDb` below or above `hz`, of middling slope (same source). */
export function shelfSection(kind: 'low' | 'high', hz: number, gainDb: number, sampleRateHz: number): Biquad {
  const a = 10 ** (gainDb / 40)
  const turn = (2 * Math.PI * Math.min(hz, sampleRateHz * 0.45)) / sampleRateHz
  const cosine = Math.cos(turn) * (kind === 'high' ? 1 : -1)
  const way = kind === 'high' ? 1 : -1
  const slope = 2 * Math.sqrt(a) * Math.sin(turn) * Math.SQRT1_2
  const scale = 1 / (a + 1 - (a - 1) * cosine + slope)
  return {
    b0: a * (a + 1 + (a - 1) * cosine + slope) * scale,
    b1: -2 * way * a * (a - 1 + (a + 1) * cosine) * scale,
    b2: a * (a + 1 + (a - 1) * cosine - slope) * scale,
    a1: 2 * way * (a - 1 - (a + 1) * cosine) * scale,
    a2: (a + 1 - (a - 1) * cosine - slope) * scale,
  }
}

/** A bell of `gainDb` at `hz`, as wide as `octaves` between half its gain (same source). */
export function bellSection(hz: number, gainDb: number, octaves: number, sampleRateHz: number): Biquad {
  const a = 10 ** (gainDb / 40)
  const { cosine, alpha } = band(hz, octaves, sampleRateHz)
  const scale = 1 / (1 + alpha / a)
  return {
    b0: (1 + alpha * a) * scale,
    b1: -2 * cosine * scale,
    b2: (1 - alpha * a) * scale,
    a1: -2 * cosine * scale,
    a2: (1 - alpha / a) * scale,
  }
}

/** Takes away `hz`, and 3 dB at the ends of `octaves` round it (same source). */
export function notchSection(hz: number, octaves: number, sampleRateHz: number): Biquad {
  const { cosine, alpha } = band(hz, octaves, sampleRateHz)
  const scale = 1 / (1 + alpha)
  return { b0: scale, b1: -2 * cosine * scale, b2: scale, a1: -2 * cosine * scale, a2: (1 - alpha) * scale }
}

function band(hz: number, octaves: number, sampleRateHz: number): { cosine: number; alpha: number } {
  const turn = (2 * Math.PI * Math.min(hz, sampleRateHz * 0.45)) / sampleRateHz
  const sine = Math.sin(turn)
  return { cosine: Math.cos(turn), alpha: sine * Math.sinh((Math.LN2 / 2) * octaves * (turn / sine)) }
}

/** What a section does to a frequency, dB. */
export function sectionDb({ b0, b1, b2, a1, a2 }: Biquad, hz: number, sampleRateHz: number): number {
  const turn = (2 * Math.PI * hz) / sampleRateHz
  const power = (c0: number, c1: number, c2: number) =>
    (c0 + c1 * Math.cos(turn) + c2 * Math.cos(2 * turn)) ** 2 + (c1 * Math.sin(turn) + c2 * Math.sin(2 * turn)) ** 2
  return 10 * Math.log10(Math.max(1e-20, power(b0, b1, b2)) / Math.max(1e-20, power(1, a1, a2)))
}

/** Runs a section over samples, in place. */
export function filterInPlace(samples: Float32Array, { b0, b1, b2, a1, a2 }: Biquad): void {
  let s1 = 0
  let s2 = 0
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]
    const y = b0 * x + s1
    s1 = b1 * x - a1 * y + s2
    s2 = b2 * x - a2 * y
    samples[i] = y
  }
}
