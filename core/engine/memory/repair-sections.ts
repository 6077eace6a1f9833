import { bellSection, notchSection, passSection, sectionDb, shelfSection } from '../../audio/biquad'
import type { Biquad } from '../../audio/biquad'
import type { Repairs } from '../../kit/kit'

/** Where a repair stands that says nothing else: Hz, and octaves of width. */
export const usualRepairs = { shelfHz: 5000, lowShelfHz: 150, bellHz: 800, bellOctaves: 1, notchHz: 300, notchOctaves: 0.2 } as const

/** The sections that repairs of a clip run through, in their order: low cut, low shelf, bell, notch, high shelf. */
export function repairSections(repairs: Repairs, sampleRateHz: number): Biquad[] {
  const { lowCutHz, lowShelfDb, bellDb, notchHz, shelfDb } = repairs
  const at = { ...usualRepairs, ...repairs }
  return [
    ...(lowCutHz ? [passSection('high', Math.min(lowCutHz, sampleRateHz * 0.45), sampleRateHz)] : []),
    ...(lowShelfDb ? [shelfSection('low', at.lowShelfHz, lowShelfDb, sampleRateHz)] : []),
    ...(bellDb ? [bellSection(at.bellHz, bellDb, at.bellOctaves, sampleRateHz)] : []),
    ...(notchHz ? [notchSection(notchHz, at.notchOctaves, sampleRateHz)] : []),
    ...(shelfDb ? [shelfSection('high', at.shelfHz, shelfDb, sampleRateHz)] : []),
  ]
}

/** What repairs do to a frequency, dB. */
export function repairsDb(repairs: Repairs, hz: number, sampleRateHz: number): number {
  return repairSections(repairs, sampleRateHz).reduce((sum, section) => sum + sectionDb(section, hz, sampleRateHz), 0)
}
