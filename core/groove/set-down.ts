import { grooveBeats, stringBeats } from '../kit/groove-time'
import type { Bead, Groove } from '../kit/grooves'
import type { Kit } from '../kit/kit'
import { bare, beadIdAt, divisionOf, placeAt } from './beads/places'
import { unrolled } from './unroll'

/**
 * A lap of a groove, counted from 0 where it began, as plain beads: what sounded in it without chance and conditions, what did not
 * sound is gone. Strings of another length than the groove's become as long as it, with what sounded of theirs in that lap.
 */
export function setDown(kit: Kit, groove: Groove, lap: number): Groove {
  const beats = grooveBeats(groove)
  const [from, to] = [lap * beats, (lap + 1) * beats]
  const heard = unrolled({ ...kit, grooves: kit.grooves.map((one) => (one.id === groove.id ? groove : one)) }, groove.id, to + beats).filter(({ repeat }) => repeat === 0) // prettier-ignore
  const strings = groove.strings.map((string) => {
    const around = stringBeats(groove, string)
    const division = divisionOf(groove, string)
    const steps = Math.ceil(beats * division - 1e-9)
    const taken = new Set<string>()
    const beads = string.beads.flatMap((bead) => {
      const own = heard.filter((one) => one.beadId === bead.id)
      return own.flatMap((one): Bead[] => {
        // A bead belongs to the lap in which its step lies, even where it is played a little before it.
        const onGrid = one.lap * around + bead.step / division
        if (onGrid < from - 1e-9 || onGrid >= to - 1e-9) return []
        const { step } = placeAt((onGrid - from) * division, steps)
        const id = beadIdAt(string.padId, taken, step)
        taken.add(id)
        return [bare({ ...bead, id, step, chance: undefined, when: undefined })]
      })
    })
    const { lengthSteps: _own, ...rest } = string
    return { ...rest, beads: beads.sort((a, b) => a.step - b.step) }
  })
  return { ...groove, strings }
}
