import { padById, padSettings, filledPad, valueOf } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'

import { isShutOut } from '../audio/engine/solo'
import type { Soloed } from '../audio/engine/solo'

/** What of a strike tells why it was silent: the cell that answered is counted from 0, -1 where none did. */
interface SilentStrike {
  readonly padId: PadId
  readonly velocity: number
  readonly band: number
  readonly turn: number
}

/** What is true only until its sound is here. */
export const NOT_ARRIVED = 'silent: its sound has not arrived yet'
export const ON_ITS_WAY = 'its sound is on its way'

/** Why a strike of a pad made no sound, in words. */
export function whySilent(kit: Kit, { padId, velocity, band: bandIndex, turn: turnIndex }: SilentStrike, soloed: Soloed): string {
  const own = padById(kit, padId)
  if (!own) return 'this pad is gone'
  const pad = filledPad(kit, own)
  const settings = padSettings(kit, pad)
  if (settings.mode === 'silencer') return 'it only silences others'
  if (settings.mode === 'loopUntilStruckAgain' && pad.bands.length > 0 && !settings.mute) return 'its loop is stopped'
  if (settings.mute) return 'silent: the pad is muted'
  if (soloed.pads.length > 0 && !soloed.pads.includes(padId)) return 'silent: another pad sounds alone'
  if (isShutOut(kit, padId, soloed)) return 'silent: a bus sounds alone, and nothing of it goes there'
  if (pad.bands.length === 0 && pad.rays.every((ray) => ray.source.kind === 'body' || !ray.source.bands)) return 'silent: nothing is on it'
  const band = pad.bands.findLast(({ fromVelocity }) => fromVelocity <= velocity)
  if (band && band.turns.length === 0) return `silent: no clip answers velocity ${velocity}`
  if (pad.rays.every((ray) => ray.mute)) return 'silent: all its rays are muted'
  const buses = pad.rays.map((ray) => kit.buses.find(({ id }) => id === (ray.bus ?? settings.bus)))
  if (buses.every((bus) => bus?.mute)) return 'silent: its bus is muted'
  const cell = Object.values(pad.bands[bandIndex]?.turns[turnIndex]?.clips ?? {})
  const where = `band ${bandIndex + 1}, turn ${turnIndex + 1}`
  if (turnIndex >= 0 && cell.length === 0) return `silent: ${where} has no clip`
  if (turnIndex >= 0 && cell.every((clip) => clip === 'intendedSilence')) return `silent: ${where} is silent on purpose`
  return NOT_ARRIVED
}

/** Under this a strike is as good as silent. */
const BOTTOM_DB = -48

/** Why a strike that sounds is hardly heard: a level at the bottom; undefined where none is. */
export function whyHardlyHeard(kit: Kit, padId: PadId): string | undefined {
  const pad = padById(kit, padId)
  if (!pad) return undefined
  const settings = padSettings(kit, pad)
  const [kitDb, padDb] = [valueOf(kit, 'gainDb'), settings.values.gainDb]
  if (kitDb <= BOTTOM_DB) return `hardly heard: the whole kit is at ${kitDb.toFixed(0)} dB`
  if (padDb <= BOTTOM_DB) return `hardly heard: the pad’s level is ${padDb.toFixed(0)} dB`
  if (pad.rays.every((ray) => ray.mute || valueOf(ray, 'gainDb') <= BOTTOM_DB))
    return 'hardly heard: the levels of its rays are at the bottom'
  const buses = pad.rays.map((ray) => kit.buses.find(({ id }) => id === (ray.bus ?? settings.bus)))
  return buses.every((bus) => bus && valueOf(bus, 'gainDb') <= BOTTOM_DB)
    ? 'hardly heard: the level of its bus is at the bottom'
    : undefined
}
