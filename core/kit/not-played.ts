import type { Kit, Pad, Ray } from './kit'
import { mixPlace } from './mix-places'
import { movedParameters, parameterNames } from './parameters'
import type { Response } from './shape'

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
const anyResponse = (is: (response: Response) => boolean) => ({ inPad: (pad: Pad) => (pad.own.responses ?? []).some((one) => !one.bypass && is(one)) }) // prettier-ignore
/** What moves the mix: strikes do not. */
const movesMix: readonly string[] = ['wheel', 'controller', 'bend', 'pressure', 'oscillator', 'tiller']

const stillParameters = parameterNames.filter((name) => !movedParameters.includes(name))

export const notPlayed: readonly NotPlayed[] = [
  { where: `responses.to: ${stillParameters.join(', ')}`, words: 'responses that move the share of the bend', ...anyResponse(({ to }) => to.some(({ param }) => stillParameters.includes(param))) },
  { where: 'ray.source: body', words: 'a body ray', ...anyRay(({ source }) => source.kind === 'body') },
  { where: 'kit.responses: all but controls and oscillators to what of the mix is moved', words: 'movements of the mix by strikes, or of what stands still while it sounds', inKit: (kit) => kit.responses.some(({ from, to, bypass }) => !bypass && to.length > 0 && (!movesMix.includes(from.kind) || to.some((address) => !mixPlace(kit, address)))) },
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
