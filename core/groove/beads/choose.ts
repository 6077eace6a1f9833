import type { BeadId, PadId } from '../../kit/ids'
import type { Groove } from '../../kit/grooves'
import { beadsOf, divisionOf, straightBeat } from './places'
import type { PlacedBead } from './places'

/** Rules by which beads of strings are chosen. */
export type ChooseRule = 'all' | 'every2nd' | 'every3rd' | 'every4th' | 'beats' | 'offBeats' | 'soft' | 'loud'

/** Beads from here on are loud, those below are soft. */
const LOUD = 80
const NEAR = 1e-6

/**
 * The beads of the pads that are named that a rule means, string by string. Every nth counts the beads as they stand, the first of
 * them included; beats and off-beats (half way between two) go by the steps, wherever a bead stands on its step.
 */
export function chosenByRule(groove: Groove, padIds: ReadonlySet<PadId>, rule: ChooseRule): Set<BeadId> {
  const strings = groove.strings.filter(({ padId }) => padIds.has(padId)).map((string) => beadsOf({ ...groove, strings: [string] }))
  return new Set(strings.flatMap((beads) => beads.filter((one, i) => isMeant(groove, one, i, rule)).map(({ bead }) => bead.id)))
}

function isMeant(groove: Groove, one: PlacedBead, place: number, rule: ChooseRule): boolean {
  const inBeat = (one.bead.step / divisionOf(groove, one.string)) % 1
  switch (rule) {
    case 'all':
      return true
    case 'every2nd':
      return place % 2 === 0
    case 'every3rd':
      return place % 3 === 0
    case 'every4th':
      return place % 4 === 0
    case 'beats':
      return inBeat < NEAR
    case 'offBeats':
      return Math.abs(inBeat - 0.5) < NEAR
    case 'soft':
      return one.bead.velocity < LOUD
    case 'loud':
      return one.bead.velocity >= LOUD
  }
}

/** The beads on the named pads between two beats, the first included. */
export function chosenWithin(groove: Groove, padIds: ReadonlySet<PadId>, fromBeat: number, toBeat: number): Set<BeadId> {
  const within = beadsOf(groove).filter((one) => {
    const beat = straightBeat(groove, one)
    return padIds.has(one.string.padId) && beat >= fromBeat && beat < toBeat
  })
  return new Set(within.map(({ bead }) => bead.id))
}
