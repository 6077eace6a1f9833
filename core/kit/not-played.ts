import type { Kit, Pad, Ray } from './kit'
import { mixPlace } from './mix-places'

/**
 * The one table of what a kit can say and the engine does not play yet: the check names it where a kit has it, and
 * docs/kit-format.md lists it. `where` is the place in the document, `words` how a person calls it.
 */
export interface NotPlayed {
  readonly where: string
  readonly words: string
  /** Whether a kit as a whole has it set to anything. */
  readonly inKit?: (kit: Kit) => boolean
  /** Whether a pad has. */
  readonly inPad?: (pad: Pad, kit: Kit) => boolean
}

const raysOf = (pad: Pad): Ray[] => pad.rays
const anyRay = (is: (ray: Ray) => boolean) => ({ inPad: (pad: Pad) => raysOf(pad).some(is) })
export const notPlayed: readonly NotPlayed[] = [
  { where: 'ray.source: body', words: 'a body ray', ...anyRay(({ source }) => source.kind === 'body') },
  { where: 'kit.responses.to: all but what of the mix is moved', words: 'movements of what stands still while it sounds', inKit: (kit) => kit.responses.some(({ to, bypass }) => !bypass && to.some((address) => !mixPlace(kit, address))) },
  { where: 'tillers.to: all but pads, rays and what of the mix is moved', words: 'tillers of turns and bands, or of what stands still while it sounds', inKit: (kit) => kit.tillers.some(({ to }) => to.some(({ address }) => address.scope !== 'pad' && address.scope !== 'ray' && !mixPlace(kit, address))) },
  { where: 'groove.lanes: all but what of the mix is moved', words: 'lanes of pads, or of what stands still while it sounds', inKit: (kit) => kit.grooves.some(({ lanes = [] }) => lanes.some(({ address, points }) => points.length > 0 && !mixPlace(kit, address))) },
] // prettier-ignore

/** What a pad has that is not played yet, in words, each once. */
export function notPlayedOfPad(kit: Kit, pad: Pad): string[] {
  return [...new Set(notPlayed.filter(({ inPad }) => inPad?.(pad, kit)).map((one) => one.words))]
}

/** What a kit as a whole has that is not played yet. */
export function notPlayedOfKit(kit: Kit): string[] {
  return [...new Set(notPlayed.filter(({ inKit }) => inKit?.(kit)).map((one) => one.words))]
}
