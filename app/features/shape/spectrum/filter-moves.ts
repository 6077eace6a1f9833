import { cutoffDb, dampingOf, parameters } from '@heliaster/core/kit'
import { filterResponseDb } from '@heliaster/core/shaping'
import type { OwnSettings, PadSettings } from '@heliaster/core/kit'
import type { FilterSetting } from '@heliaster/core/shaping'

export type FilterName = 'filter1' | 'filter2'

export const filterNames = ['filter1', 'filter2'] as const
const LIFTING: readonly string[] = ['lowShelf', 'highShelf', 'peak']
const PASSING: readonly string[] = ['lowPass', 'highPass']

export function filterOf({ values, choices }: PadSettings, name: FilterName): FilterSetting {
  return {
    kind: choices[`${name}Kind`],
    slope: choices[`${name}Slope`],
    cutoffHz: values[`${name}CutoffHz`],
    damping: values[`${name}Damping`],
    gainDb: values[`${name}GainDb`],
  }
}

/** Where a filter's point stands: at its frequency, as high as it lifts there. */
export function pointOf(filter: FilterSetting): { readonly hz: number; readonly db: number } {
  const { kind, cutoffHz, damping, gainDb } = filter
  if (LIFTING.includes(kind)) return { hz: cutoffHz, db: kind === 'peak' ? gainDb : gainDb / 2 }
  if (PASSING.includes(kind)) return { hz: cutoffHz, db: cutoffDb(damping) }
  return { hz: cutoffHz, db: 0 }
}

const HZ = { least: 20, most: 18000 }
const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
/** So many dB upwards make a band or notch twice as sharp. */
const SHARPER_DB = 6

/**
 * A filter whose point has been moved from where it stood by so many cents and dB: the frequency sideways; upwards the
 * resonance of a pass, the gain of a shelf or peak, the sharpness of a band or notch.
 */
export function movedFilter(name: FilterName, from: FilterSetting, byCents: number, byDb: number): OwnSettings {
  const cutoffHz = Math.round(clamp(from.cutoffHz * 2 ** (byCents / 1200), HZ.least, HZ.most) * 10) / 10
  const { min, max } = parameters[`${name}Damping`]
  const gain = parameters[`${name}GainDb`]
  const upwards = LIFTING.includes(from.kind)
    ? { [`${name}GainDb`]: clamp(Math.round((from.gainDb + (from.kind === 'peak' ? byDb : 2 * byDb)) * 10) / 10, gain.min, gain.max) }
    : PASSING.includes(from.kind)
      ? { [`${name}Damping`]: clamp(dampingOf(cutoffDb(from.damping) + byDb), min, max) }
      : { [`${name}Damping`]: clamp(from.damping * 2 ** (-byDb / SHARPER_DB), min, max) }
  return { values: { [`${name}CutoffHz`]: cutoffHz, ...upwards } }
}

/** What both filters do together to a frequency, dB. */
export function togetherDb(settings: PadSettings, hz: number): number {
  return filterNames.reduce((sum, name) => sum + filterResponseDb(filterOf(settings, name), hz), 0)
}

/** A filter in words. */
export function filterWords({ kind, cutoffHz, damping, gainDb }: FilterSetting): string {
  const hz = cutoffHz < 1000 ? `${Math.round(cutoffHz)} Hz` : `${(cutoffHz / 1000).toFixed(2)} kHz`
  if (LIFTING.includes(kind)) return `${hz}, ${gainDb.toFixed(1)} dB`
  return PASSING.includes(kind) ? `${hz}, ${cutoffDb(damping).toFixed(1)} dB there` : `${hz}, sharpness ${(1 / damping).toFixed(2)}`
}
