import { useEffect, useEffectEvent, useRef, useState } from 'react'

/** How often levels are looked at, how soon a look is forgotten, and how often the order may change, ms. */
const LOOK_MS = 100
const FORGET_MS = 2500
const ORDER_MS = 2000

/** Ids by how loud each was lately, the loudest first; what was silent keeps its own order behind. */
export function byLoudness<Id>(ids: readonly Id[], heard: ReadonlyMap<Id, number>): Id[] {
  const level = (id: Id) => heard.get(id) ?? 0
  return [...ids].map((id, place) => ({ id, place })).sort((a, b) => level(b.id) - level(a.id) || a.place - b.place).map(({ id }) => id) // prettier-ignore
}

/**
 * Ids with what is loud first. The order changes only now and then, and not while a hand is over them (`isHeld`), so that
 * nothing slips from under a thumb.
 */
export function useLoudOrder<Id extends string>(ids: readonly Id[], levelOf: (id: Id) => number, isOn: boolean, isHeld: () => boolean): readonly Id[] {
  const heard = useRef(new Map<Id, number>())
  const [order, setOrder] = useState<readonly Id[]>(ids)
  const look = useEffectEvent(() => {
    for (const id of ids) heard.current.set(id, Math.max(levelOf(id), (heard.current.get(id) ?? 0) * Math.exp(-LOOK_MS / FORGET_MS)))
  })
  const arrange = useEffectEvent(() => {
    if (isHeld()) return
    const next = byLoudness(ids, heard.current)
    setOrder((before) => (before.join() === next.join() ? before : next))
  })
  useEffect(() => {
    if (!isOn) return undefined
    const looking = setInterval(look, LOOK_MS)
    const arranging = setInterval(arrange, ORDER_MS)
    return () => {
      clearInterval(looking)
      clearInterval(arranging)
    }
  }, [isOn])
  if (!isOn) return ids
  const known = order.filter((id) => ids.includes(id))
  return [...known, ...ids.filter((id) => !known.includes(id))]
} // prettier-ignore
