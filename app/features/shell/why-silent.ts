import { padById, padSettings } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'

import type { Soloed } from '../../audio/sound'

/** Why a strike of a pad made no sound, in words. */
export function whySilent(kit: Kit, padId: PadId, velocity: number, soloed: Soloed): string {
  const pad = padById(kit, padId)
  if (!pad) return 'this pad is gone'
  const settings = padSettings(kit, pad)
  if (settings.mode === 'silencer') return 'it only silences others'
  if (settings.mode === 'loopUntilStruckAgain' && pad.bands.length > 0 && !settings.mute) return 'its loop is stopped'
  if (settings.mute) return 'silent: the pad is muted'
  if (soloed.pads.length > 0 && !soloed.pads.includes(padId)) return 'silent: another pad sounds alone'
  if (pad.bands.length === 0 && pad.rays.every((ray) => ray.source.kind === 'body' || !ray.source.bands)) return 'silent: nothing is on it'
  const band = pad.bands.findLast(({ fromVelocity }) => fromVelocity <= velocity)
  if (band && band.turns.length === 0) return `silent: no clip answers velocity ${velocity}`
  if (pad.rays.every((ray) => ray.mute)) return 'silent: all its rays are muted'
  const buses = pad.rays.map((ray) => kit.buses.find(({ id }) => id === (ray.bus ?? settings.bus)))
  if (buses.every((bus) => bus?.mute)) return 'silent: its bus is muted'
  return 'silent: its sound has not arrived yet'
}
