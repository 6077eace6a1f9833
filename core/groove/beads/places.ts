import type { BeadId, PadId } from '../../kit/ids'
import type { Bead, Groove, GrooveString } from '../../kit/grooves'
import { stringBeats } from '../../kit/groove-time'

/** A bead with the string on which it stands. */
export interface PlacedBead {
  readonly bead: Bead
  readonly string: GrooveString
}

/** How many steps of a beat a string has, its own or its groove's. */
export function divisionOf(groove: Groove, string: Pick<GrooveString, 'stepsPerBeat'> | undefined): number {
  return string?.stepsPerBeat ?? groove.stepsPerBeat
}

/** How many steps a string has before it goes round: those that begin within its length. */
export function stepsOf(groove: Groove, string: Pick<GrooveString, 'lengthSteps' | 'stepsPerBeat'> | undefined): number {
  if (string?.lengthSteps !== undefined) return string.lengthSteps
  return Math.min(1024, Math.ceil(stringBeats(groove, {}) * divisionOf(groove, string) - 1e-9))
}

/** The string of a pad, an empty one where it has none. */
export function stringOf(groove: Groove, padId: PadId): GrooveString {
  return groove.strings.find((string) => string.padId === padId) ?? { padId, beads: [] }
}

/** All beads of a groove that sound in it, string by string. */
export function beadsOf(groove: Groove): PlacedBead[] {
  return groove.strings.flatMap((string) => {
    const steps = stepsOf(groove, string)
    return string.beads.filter(({ step }) => step < steps).map((bead) => ({ bead, string }))
  })
}

export function beadById(groove: Groove, id: BeadId | undefined): PlacedBead | undefined {
  if (id === undefined) return undefined
  for (const string of groove.strings) {
    const bead = string.beads.find((one) => one.id === id)
    if (bead) return { bead, string }
  }
  return undefined
}

/** Where a bead stands in beats from the start of its string, without swing. */
export function straightBeat(groove: Groove, { bead, string }: PlacedBead): number {
  return (bead.step + (bead.offset ?? 0)) / divisionOf(groove, string)
}

/** The id of a new bead: by its step, so that two devices that put one there put the same. */
export function beadIdAt(padId: PadId, taken: ReadonlySet<string>, step: number): BeadId {
  let id = `${padId}.${step}`
  for (let count = 2; taken.has(id); count++) id = `${padId}.${step}.${count}`
  return id as BeadId
}

/** Ids of beads that are taken in a groove. */
export function takenIds(groove: Groove): Set<string> {
  return new Set(groove.strings.flatMap(({ beads }) => beads.map(({ id }) => id)))
}

/** The groove with the beads of one string changed, in the order of their steps; a string for the pad where it had none. */
export function withString(groove: Groove, padId: PadId, change: (beads: Bead[]) => Bead[]): Groove {
  const string = stringOf(groove, padId)
  const beads = inOrder(change(string.beads))
  const changed = { ...string, beads }
  const isThere = groove.strings.some((one) => one.padId === padId)
  if (!isThere && beads.length === 0) return groove
  return {
    ...groove,
    strings: isThere ? groove.strings.map((one) => (one.padId === padId ? changed : one)) : [...groove.strings, changed],
  }
}

/** By their steps, and on one step by where they stand on it. */
export function inOrder(beads: readonly Bead[]): Bead[] {
  return [...beads].sort((a, b) => a.step - b.step || (a.offset ?? 0) - (b.offset ?? 0))
}

/** A place in steps as a step and how far off it, in -0.5..0.5; a step that is not below `steps` goes to the last one. */
export function placeAt(at: number, steps: number): Pick<Bead, 'step' | 'offset'> {
  const step = Math.min(steps - 1, Math.max(0, Math.round(at)))
  const offset = Math.round(Math.min(0.5, Math.max(-0.5, at - step)) * 1e6) / 1e6
  return Math.abs(offset) < 1e-6 ? { step, offset: undefined } : { step, offset }
}

/** A bead without the fields that hold nothing. */
export function bare(bead: Bead): Bead {
  return Object.fromEntries(Object.entries(bead).filter(([, value]) => value !== undefined)) as unknown as Bead
}
