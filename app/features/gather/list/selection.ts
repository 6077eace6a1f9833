import type { SourceId } from '@heliaster/core/kit'

export interface Selecting {
  readonly chosen: ReadonlySet<SourceId>
  /** The row that was touched last: a range begins there. */
  readonly anchor?: SourceId
}

/** A row is ticked or not; as a range, all from the row that was touched last become what that one is. */
export function withRow({ chosen, anchor }: Selecting, order: readonly SourceId[], id: SourceId, isRange: boolean): Selecting {
  const next = new Set(chosen)
  const [from, to] = [anchor === undefined ? -1 : order.indexOf(anchor), order.indexOf(id)]
  if (!isRange || from < 0 || to < 0) {
    if (!next.delete(id)) next.add(id)
    return { chosen: next, anchor: id }
  }
  const isTicked = chosen.has(anchor!)
  for (const one of order.slice(Math.min(from, to), Math.max(from, to) + 1)) {
    if (isTicked) next.add(one)
    else next.delete(one)
  }
  return { chosen: next, anchor: id }
}

/** All rows from one to another become ticked, or not, as they are dragged over; the others are as they were before the drag. */
export function withDragged(before: ReadonlySet<SourceId>, order: readonly SourceId[], from: number, to: number): Selecting {
  const next = new Set(before)
  const first = order[from]
  const isTicked = first !== undefined && !before.has(first)
  for (const one of order.slice(Math.max(0, Math.min(from, to)), Math.max(from, to) + 1)) {
    if (isTicked) next.add(one)
    else next.delete(one)
  }
  return { chosen: next, anchor: order[Math.min(order.length - 1, Math.max(0, to))] }
}
