import type { Kit, Tie } from '@heliaster/core/kit'
import { useMemo } from 'react'

import { editKit } from '../../../../kit-view'
import { kitGesture } from '../../../../kit-view/use-kit'

export type TieOf<Kind extends Tie['kind']> = Extract<Tie, { kind: Kind }>

/** Ways to change one tie: at once, or following a drag until it is done. */
export function usePutTie<T extends Tie>(kit: Kit, tie: T) {
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const changed = (fields: Partial<T>): Tie => {
    const made = { ...tie, ...fields }
    for (const key of Object.keys(made) as (keyof T)[]) if (made[key] === undefined) delete made[key]
    return made
  }
  return {
    put: (fields: Partial<T>) => editKit(kit.id, [{ type: 'putTie', tie: changed(fields) }]),
    slide: (fields: Partial<T>) => gesture.set([{ type: 'putTie', tie: changed(fields) }]),
    end: gesture.end,
  }
}

/** With one more in a list, or without it. */
export const toggled = <T>(list: readonly T[], one: T): T[] => (list.includes(one) ? list.filter((other) => other !== one) : [...list, one])
