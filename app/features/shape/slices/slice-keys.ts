import { cleared, copied, movedSpan, pasted, resizedSpan } from '@heliaster/core/slices'
import type { Amounts, SliceSpan } from '@heliaster/core/slices'

import type { Lane } from './lanes'
import { slicePiece } from './slices-view'

/** What keys do to the chosen stretch. */
export type SliceKey = 'cut' | 'copy' | 'paste' | 'clear' | 'earlier' | 'later' | 'shorter' | 'longer'

/** One key's act on a stretch, handed on to `act` where it changes anything. */
export function byKey(
  key: SliceKey,
  amounts: Amounts,
  span: SliceSpan,
  lane: Lane,
  act: (amounts: Amounts, span: SliceSpan) => void,
): void {
  const held = slicePiece.getState()
  const keep = () => slicePiece.setState({ piece: copied(amounts, span), least: lane.least, most: lane.most }, true)
  const resize = (last: number) => {
    const to = { first: span.first, last: Math.min(amounts.length - 1, Math.max(span.first, last)) }
    act(resizedSpan(amounts, span, to), to)
  }
  const move = (by: number) => {
    const moved = movedSpan(amounts, span, by)
    act(moved.amounts, moved.span)
  }
  if (key === 'cut' || key === 'copy') keep()
  if (key === 'cut' || key === 'clear') act(cleared(amounts, span), span)
  if (key === 'paste' && held && held.least === lane.least) act(pasted(amounts, span.first, held.piece), { first: span.first, last: Math.min(amounts.length, span.first + held.piece.length) - 1 }) // prettier-ignore
  if (key === 'earlier') move(-1)
  if (key === 'later') move(1)
  if (key === 'shorter') resize(span.last - 1)
  if (key === 'longer') resize(span.last + 1)
}
