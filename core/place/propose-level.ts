import type { Pad } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { velocityToLevel } from '../kit/responses'

/**
 * Velocity's share of the level as a number of bands proposes it, where nobody has set another: it shrinks as
 * bands grow. Nothing where their number stays.
 */
export function proposeLevel(pad: Pad, bandCount: number): KitEdit[] {
  if (bandCount === Math.max(1, pad.bands.length)) return []
  const own = pad.own.responses
  const isProposed = !own || (own.length === 1 && own[0].amount === velocityToLevel(Math.max(1, pad.bands.length)).amount)
  return isProposed ? [{ type: 'setPad', padId: pad.id, own: { responses: [velocityToLevel(bandCount)] } }] : []
}
