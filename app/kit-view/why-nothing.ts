import { insertsOf, padSettings, shapeOf } from '@heliaster/core/kit'
import type { Insert, Kit, Pad, PadSettings, Parameter, Response, Tiller } from '@heliaster/core/kit'

import { isBandHeard } from './buses/mix-words'

/** What must be there for a parameter to be heard; a sentence where it is not. */
const NEEDS: Partial<Record<Parameter, (settings: PadSettings) => string | undefined>> = {
  decayScale: ({ envelopes }) => (Object.values(envelopes).every(({ points }) => points.length === 0) ? 'there is no envelope to shorten' : undefined),
  levelEnvelope: ({ envelopes }) => (envelopes.level.points.length === 0 ? 'there is no level envelope' : undefined),
  pitchEnvelope: ({ envelopes }) => (envelopes.pitch.points.length === 0 ? 'there is no pitch envelope' : undefined),
  filter1CutoffHz: filterNeeds('filter1'),
  filter1Damping: filterNeeds('filter1'),
  filter1EnvelopeCents: filterNeeds('filter1', 'envelope'),
  filter1GainDb: filterNeeds('filter1', 'gain'),
  filter2CutoffHz: filterNeeds('filter2'),
  filter2Damping: filterNeeds('filter2'),
  filter2EnvelopeCents: filterNeeds('filter2', 'envelope'),
  filter2GainDb: filterNeeds('filter2', 'gain'),
  driveLevelDb: ({ values }) => (values.driveDb === 0 && values.driveAfterDb === 0 ? 'there is no drive' : undefined),
  crushBits: ({ values }) => (values.crush === 0 ? 'there is no dirt' : undefined),
  crushRateHz: ({ values }) => (values.crush === 0 ? 'there is no dirt' : undefined),
} // prettier-ignore

const LIFTING: readonly string[] = ['lowShelf', 'highShelf', 'peak']

function filterNeeds(name: 'filter1' | 'filter2', what?: 'envelope' | 'gain') {
  const words = name === 'filter1' ? 'the filter' : 'the second filter'
  return ({ choices, envelopes }: PadSettings) => {
    if (choices[`${name}Kind`] === 'off') return `${words} is off`
    if (what === 'envelope' && envelopes[name].points.length === 0) return `${words} has no envelope`
    return what === 'gain' && !LIFTING.includes(choices[`${name}Kind`]) ? `${words} is of a kind that lifts nothing` : undefined
  }
}

/** Why a response is not heard, as the end of a sentence; nothing where it is. */
export function whyNothing(kit: Kit, pad: Pad, settings: PadSettings, response: Response): string | undefined {
  const { from, to, amount, bypass } = response
  if (bypass) return 'it is left out'
  if (amount === 0) return 'its amount is nothing'
  if (from.kind === 'oscillator' && !kit.oscillators.some(({ id }) => id === from.id)) return 'its wave is gone'
  if (from.kind === 'tiller' && !kit.tillers.some(({ id }) => id === from.id)) return 'its tiller is gone'
  if (from.kind === 'turn' && pad.bands.every(({ turns }) => turns.length < 2)) return 'no band has a second turn'
  return whyUnheard(pad, settings, to)
}

/** Why none of these is heard on a pad: each of a ray, or of all of them. */
function whyUnheard(pad: Pad, settings: PadSettings, targets: Response['to']): string | undefined {
  const reasons = targets.flatMap(({ param, ray: rayId }) => {
    const rays = pad.rays.filter(({ id }) => rayId === undefined || id === rayId)
    if (rays.length === 0) return ['its ray is gone']
    // A ray may have a filter or envelopes of its own: then it is heard there.
    return rays.map((ray) => NEEDS[param]?.({ ...settings, ...shapeOf(settings, ray) }))
  })
  return reasons.length > 0 && reasons.every((reason) => reason !== undefined) ? reasons[0] : undefined
}

/** Why moving a tiller does nothing to one of its targets, as the end of a sentence; nothing where it does. */
export function whyTargetNothing(kit: Kit, { address, from, to }: Tiller['to'][number]): string | undefined {
  const { scope, id, param } = address
  if (from === to) return 'both ends are the same'
  if (scope === 'bus' && !kit.buses.some((bus) => bus.id === id)) return 'it is gone'
  if (scope === 'insert')
    return whyInsertNothing(
      kit,
      insertsOf(kit).find((one) => one.id === id),
      param,
    )
  if (scope !== 'pad' && scope !== 'ray') return undefined
  const pad = kit.pads.find((one) => (scope === 'pad' ? one.id === id : one.rays.some((ray) => ray.id === id)))
  if (!pad) return 'it is gone'
  const ray = scope === 'ray' ? (id as string) : undefined
  return whyUnheard(pad, padSettings(kit, pad), [{ param: param as Parameter, ...(ray === undefined ? {} : { ray }) }])
}

function whyInsertNothing(kit: Kit, insert: Insert | undefined, param: string): string | undefined {
  if (!insert) return 'it is gone'
  if (insert.bypass) return 'the effect is off'
  const gain = /^band\d(?=Hz|Damping)/.exec(param)?.[0]
  const isGainLed = kit.tillers.some(({ to }) => to.some(({ address }) => address.id === insert.id && address.param === `${gain}Db`))
  if (gain && !isGainLed && !isBandHeard(insert, gain.slice(4))) return 'this band raises and lowers nothing'
  return insert.kind === 'room' && !insert.audio ? 'the room has no impulse' : undefined
}
