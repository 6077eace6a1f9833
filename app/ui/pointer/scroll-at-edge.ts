/** So near to the edge of a list it goes on by itself, px, and so far each time. */
const EDGE_PX = 36
const STEP_PX = 24

/** Scrolls a list on while something is dragged near to its upper or lower edge; `clientY` is where the pointer is. */
export function scrollAtEdge(list: HTMLElement, clientY: number): void {
  const { top, bottom } = list.getBoundingClientRect()
  if (clientY > bottom - EDGE_PX) list.scrollTop += STEP_PX
  if (clientY < top + EDGE_PX) list.scrollTop -= STEP_PX
}
