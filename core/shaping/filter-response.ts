import type { AllChoices } from '../kit/parameters'

/** Damping of the two halves of a slope of 24 dB, together as flat as can be (Butterworth). */
const PAIR = [1.8477590650225735, 0.5411961001461969] as const
type Complex = readonly [re: number, im: number]

/** A filter as it is set: Hz, damping (1/Q), dB. */
export interface FilterSetting {
  readonly kind: AllChoices['filter1Kind']
  readonly slope: AllChoices['filter1Slope']
  readonly cutoffHz: number
  readonly damping: number
  readonly gainDb: number
}

/**
 * What a filter does to a frequency, dB, after its analogue prototype (second order; shelves and peaks as R. Bristow-Johnson's
 * "Cookbook formulae for audio EQ biquad filter coefficients" has them). The engine keeps to it within what docs/kit-format.md
 * says; screens draw it.
 */
export function filterResponseDb({ kind, slope, cutoffHz, damping, gainDb }: FilterSetting, hz: number): number {
  if (kind === 'off') return 0
  const s = hz / cutoffHz
  if (kind === 'lowShelf' || kind === 'highShelf' || kind === 'peak') return sectionDb(kind, s, damping, gainDb)
  if (slope === '12') return sectionDb(kind, s, damping, 0)
  const passes = kind === 'lowPass' || kind === 'highPass'
  const [first, second] = passes ? [PAIR[0], PAIR[1] * damping] : [damping, damping]
  return sectionDb(kind, s, first, 0) + sectionDb(kind, s, second, 0)
}

const size = ([re, im]: Complex) => Math.hypot(re, im)

function sectionDb(kind: FilterSetting['kind'], s: number, damping: number, gainDb: number): number {
  const a = 10 ** (gainDb / 40)
  const root = Math.sqrt(a)
  const bottom: Complex = [1 - s * s, damping * s]
  const [top, under, scale = 1]: readonly [Complex, Complex, number?] = {
    off: [bottom, bottom] as const,
    lowPass: [[1, 0], bottom] as const,
    bandPass: [[0, damping * s], bottom] as const,
    highPass: [[s * s, 0], bottom] as const,
    notch: [[1 - s * s, 0], bottom] as const,
    lowShelf: [[a - s * s, root * damping * s], [1 - a * s * s, root * damping * s], a] as const,
    highShelf: [[1 - a * s * s, root * damping * s], [a - s * s, root * damping * s], a] as const,
    peak: [[1 - s * s, a * damping * s], [1 - s * s, (damping / a) * s]] as const,
  }[kind] // prettier-ignore
  return 20 * Math.log10(Math.max(1e-12, (scale * size(top)) / Math.max(1e-12, size(under))))
}
