import type { Clip, Groove, Kit, Pad, Ray, Turn } from './kit'
import { parameterNames, parameterRow, playedFilters } from './parameters'
import type { Parameter, Scope, Values } from './parameters'
import { usualPadSettings } from './make'
import type { Address, Envelope, Response } from './shape'

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
const bandsOf = (pad: Pad) => [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])].flat()
const turnsOf = (pad: Pad): Turn[] => bandsOf(pad).flatMap(({ turns }) => turns)
const clipsOf = (pad: Pad): Clip[] => turnsOf(pad).flatMap(({ clips }) => Object.values(clips).filter((clip) => clip !== 'intendedSilence'))
const anyRay = (is: (ray: Ray) => boolean) => ({ inPad: (pad: Pad) => raysOf(pad).some(is) })
const anyClip = (is: (clip: Clip) => boolean) => ({ inPad: (pad: Pad) => clipsOf(pad).some(is) })
const anyResponse = (is: (response: Response) => boolean) => ({ inPad: (pad: Pad) => (pad.own.responses ?? []).some((one) => !one.bypass && is(one)) }) // prettier-ignore
const anyGroove = (is: (groove: Groove) => boolean) => ({ inKit: (kit: Kit) => kit.grooves.some(is) })
const anyEnvelope = (is: (envelope: Envelope) => boolean) => ({
  inPad: (pad: Pad) => [pad.own, ...raysOf(pad)].some(({ envelopes = {} }) => Object.values(envelopes).some((one) => one && is(one))),
})
const isBusLevel = ({ scope, param }: Address) => (scope === 'bus' || scope === 'kit') && param === 'gainDb'
/** What moves buses: strikes do not. */
const movesBuses: readonly string[] = ['wheel', 'controller', 'bend', 'pressure', 'oscillator', 'tiller']
const shapedBy = (pad: Pad) => [pad.own, ...raysOf(pad)]

const playedTargets: readonly Parameter[] = parameterNames.filter((name) => {
  const { played } = parameterRow(name)
  return played.includes('pad') || (played.includes('ray') && name !== 'keyTrack' && name !== 'delaySeconds')
})

const words: Partial<Record<Parameter, string>> = {
  filter1GainDb: 'the gain of the first filter', filter2CutoffHz: 'the second filter', filter2Damping: 'the second filter',
  filter2EnvelopeCents: 'the second filter', filter2GainDb: 'the second filter', levelEnvelope: 'the share of the level envelope',
  pitchEnvelope: 'the share of the pitch envelope', driveDb: 'drive', driveAfterDb: 'drive', driveLevelDb: 'drive', crush: 'crush',
  crushBits: 'crush', crushRateHz: 'crush', attackDb: 'the attack', tailDb: 'the tail', width: 'width', lowCutHz: 'the low cut',
  endSeconds: 'the end', fadeInSeconds: 'fades', fadeOutSeconds: 'fades', bendTrack: 'following the bend', glideSeconds: 'glide',
  delaySeconds: 'the delay', gainDb: 'level', pan: 'pan', tuneCents: 'tuning', startSeconds: 'the start',
  filter1CutoffHz: 'the filter', filter1Damping: 'the filter', filter1EnvelopeCents: 'the filter', decayScale: 'the decay',
} // prettier-ignore

const holders: Partial<Record<Scope, (pad: Pad) => readonly { readonly values?: Values }[]>> = {
  pad: (pad) => [pad.own],
  ray: raysOf,
  band: bandsOf,
  turn: turnsOf,
}
const scopeWords: Partial<Record<Scope, string>> = { ray: ' of a ray', band: ' of a band', turn: ' of a turn' }

/** Parameters, by their own table: each where it is not played. */
const ofParameters = (Object.keys(holders) as Scope[]).flatMap((scope) => {
  const names = parameterNames.filter((name) => parameterRow(name).scopes.includes(scope) && !parameterRow(name).played.includes(scope))
  const byWords = new Map<string, Parameter[]>()
  for (const name of names) byWords.set(words[name] ?? name, [...(byWords.get(words[name] ?? name) ?? []), name])
  return [...byWords].map(([said, params]): NotPlayed => {
    const isSet = ({ values = {} }: { readonly values?: Values }) =>
      params.some((name) => values[name] !== undefined && values[name] !== parameterRow(name).usual)
    const where = params.map((name) => `${scope}.values.${name}`).join(', ')
    return { where, words: said + (scopeWords[scope] ?? ''), inPad: (pad) => holders[scope]!(pad).some(isSet) }
  })
})

export const notPlayed: readonly NotPlayed[] = [
  ...ofParameters,
  { where: 'choices.filter1Kind: notch, lowShelf, highShelf, peak', words: 'this kind of filter', inPad: (pad) => shapedBy(pad).some(({ choices }) => choices?.filter1Kind !== undefined && !playedFilters.includes(choices.filter1Kind)) },
  { where: 'choices.filter1Slope: 24', words: 'the slope of 24 dB', inPad: (pad) => shapedBy(pad).some(({ choices }) => choices?.filter1Slope === '24') },
  { where: 'choices.filter2Kind, choices.filter2Slope, envelopes.filter2', words: 'the second filter', inPad: (pad) => shapedBy(pad).some(({ choices, envelopes }) => (choices?.filter2Kind ?? 'off') !== 'off' || (envelopes?.filter2?.points.length ?? 0) > 0) },
  { where: 'order', words: 'the order of the stages', inPad: (pad) => shapedBy(pad).some(({ order }) => order !== undefined && order.join() !== usualPadSettings.order.join()) },
  { where: 'envelopes.*.loop', words: 'loops in envelopes', ...anyEnvelope(({ loop }) => loop !== undefined) },
  { where: 'turn.choices, turn.envelopes', words: 'the shape of a turn', inPad: (pad) => turnsOf(pad).some(({ choices = {}, envelopes = {} }) => Object.keys({ ...choices, ...envelopes }).length > 0) },
  { where: `responses.to: all but ${playedTargets.join(', ')}`, words: 'responses of what is not played yet', ...anyResponse(({ to }) => to.some(({ param }) => !playedTargets.includes(param))) },
  { where: 'ray.source: body', words: 'a body ray', ...anyRay(({ source }) => source.kind === 'body') },
  { where: 'clip.loop', words: 'loops inside a clip', ...anyClip(({ loop }) => loop !== undefined) },
  { where: 'clip.slices', words: 'slices', ...anyClip(({ slices }) => slices !== undefined && slices.length > 0) },
  { where: 'clip.process', words: 'worked matter', ...anyClip(({ process }) => process !== undefined && process.length > 0) },
  { where: 'inserts, bus.inserts: all but width', words: 'effects', inKit: (kit) => [...kit.inserts, ...kit.buses.flatMap(({ inserts }) => inserts)].some(({ kind, values }) => kind !== 'width' || (values.monoBelowHz ?? 1) !== 1) },
  { where: 'bus.values.width, bus.values.lowCutHz', words: 'width and low cut of buses', inKit: (kit) => kit.buses.some(({ values }) => values.width !== undefined || values.lowCutHz !== undefined) },
  { where: 'kit.responses: all but controls and oscillators to levels', words: 'movements of buses beside their level', inKit: (kit) => kit.responses.some(({ from, to, bypass }) => !bypass && to.length > 0 && (!movesBuses.includes(from.kind) || to.some((address) => !isBusLevel(address)))) },
  { where: 'tillers.to: all but pads, rays and levels of buses', words: 'tillers of turns, bands, effects and places of buses', inKit: (kit) => kit.tillers.some(({ to }) => to.some(({ address }) => address.scope !== 'pad' && address.scope !== 'ray' && !isBusLevel(address))) },
  { where: 'groove.lanes: all but levels of buses', words: 'lanes of anything but levels', ...anyGroove(({ lanes = [] }) => lanes.some(({ address, points }) => points.length > 0 && !isBusLevel(address))) },
] // prettier-ignore

/** What a pad has that is not played yet, in words, each once. */
export function notPlayedOfPad(kit: Kit, pad: Pad): string[] {
  return [...new Set(notPlayed.filter(({ inPad }) => inPad?.(pad, kit)).map((one) => one.words))]
}

/** What a kit as a whole has that is not played yet. */
export function notPlayedOfKit(kit: Kit): string[] {
  return [...new Set(notPlayed.filter(({ inKit }) => inKit?.(kit)).map((one) => one.words))]
}
