import type { PadId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { chokedBy } from '../../kit/resolve'

/** How one pad is silenced by others. */
export interface Silenced {
  /** The group whose strikes silence it. */
  readonly group: number
  readonly fadeSeconds: number
  /** Whether fades of several lengths became one, the longest. */
  readonly isJoined: boolean
}

export interface Chokes {
  /** The group of its own that each pad's sound is in, so that limits count each pad by itself. */
  readonly own: ReadonlyMap<PadId, number>
  readonly silenced: ReadonlyMap<PadId, Silenced>
  /** The groups that a strike of a pad silences, each by a silent region of its own. */
  readonly silences: ReadonlyMap<PadId, readonly number[]>
}

/**
 * SFZ lets a region be stopped by one group. So each pad that is silenced has a group of silencers, and whatever silences
 * it strikes a silent region in that group along: any number of pads can silence it, and none cuts itself short.
 */
export function chokesOf(kit: Kit): Chokes {
  const own = new Map(kit.pads.map((pad, i) => [pad.id, i + 1]))
  const silenced = new Map<PadId, Silenced>()
  const silences = new Map<PadId, number[]>()
  kit.pads.forEach((pad, i) => {
    const by = kit.pads.flatMap((other) =>
      chokedBy(kit, other.id)
        .filter(({ padId }) => padId === pad.id && other.id !== pad.id)
        .map(({ fadeSeconds }) => ({ from: other.id, fadeSeconds })),
    )
    if (by.length === 0) return
    const group = kit.pads.length + i + 1
    const fades = by.map(({ fadeSeconds }) => fadeSeconds)
    silenced.set(pad.id, { group, fadeSeconds: Math.max(...fades), isJoined: Math.max(...fades) !== Math.min(...fades) })
    for (const { from } of by) silences.set(from, [...(silences.get(from) ?? []), group])
  })
  return { own, silenced, silences }
}

/** Whether a strike of this pad silences the pad itself. */
export function silencesItself(kit: Kit, padId: PadId): boolean {
  return chokedBy(kit, padId).some((tie) => tie.padId === padId)
}
