/** Where values lie on a line or field, 0..1, and back. */
export interface ScaleRange {
  readonly min: number
  readonly max: number
  readonly step: number
  /** Bends the scale so that small values get more room, for times and frequencies. */
  readonly power?: number
}

export interface Scale {
  toShare(value: number): number
  fromShare(share: number): number
  /** The nearest value that can be set. */
  snap(value: number): number
}

const clamp = (share: number) => Math.min(1, Math.max(0, share))

export function scaleOf({ min, max, step, power = 1 }: ScaleRange): Scale {
  const snap = (value: number) => Math.min(max, Math.max(min, Number((Math.round(value / step) * step).toFixed(6))))
  return {
    toShare: (value) => clamp((value - min) / (max - min)) ** (1 / power),
    fromShare: (share) => snap(min + clamp(share) ** power * (max - min)),
    snap,
  }
}

/** So many decimals as a step has. */
export function placesOf(step: number): number {
  return step >= 1 ? 0 : Math.min(4, Math.ceil(-Math.log10(step)))
}
