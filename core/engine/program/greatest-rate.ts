import type { Kit, Pad } from '../../kit/kit'
import { parameters, valueOf } from '../../kit/parameters'
import { highestSlice } from '../../kit/slices'
import { bandsOfRay, padSettings, filledPad, rayOfTurn, shapeOf } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import type { Envelope } from '../../kit/shape'
import { BEND_CENTS, NOTE_OCTAVES, sourceCodes } from './codes'
import { moversOf } from './write-responses'
import type { Mover } from './write-responses'

const HIGHEST_NOTE = 127

/** By how many cents each ray of a pad is raised at most, whatever is played: levels for so fast a reading are made before it sounds. */
export function greatestCents(kit: Kit, pad: Pad, settings: PadSettings, movers: readonly Mover[]): number[] {
  const locked = lockedCents(kit, pad)
  const root = settings.rootNote
  return pad.rays.map((ray, index) => {
    const reached = movers.filter(({ param, only }) => param === 'tuneCents' && (only < 0 || only === index))
    const moved = reached.reduce((sum, mover) => sum + Math.max(0, greatestOf(mover)), 0)
    const tracks = movers.filter(({ param, only }) => param === 'keyTrack' && (only < 0 || only === index))
    const share = Math.min(
      1,
      tracks.reduce((sum, mover) => sum + Math.max(0, greatestOf(mover)), valueOf(ray, 'keyTrack')),
    )
    const bends = movers.filter(({ param, only }) => param === 'bendTrack' && (only < 0 || only === index))
    const bent = bends.length > 0 || valueOf(ray, 'bendTrack') > 0 ? BEND_CENTS : 0
    const tracked = root === undefined ? 0 : Math.max(0, share * (HIGHEST_NOTE - root) * 100)
    const turns = bandsOfRay(pad, ray).flatMap((band) => band.turns)
    const shapes = [...new Set([ray, ...turns.map((turn) => rayOfTurn(ray, turn))])]
    const shares = movers.filter(({ param, only }) => param === 'pitchEnvelope' && (only < 0 || only === index))
    const more = shares.reduce((sum, mover) => sum + Math.abs(greatestOf(mover)), 0)
    const highest = shapes.map((one) => {
      const { envelopes, values } = shapeOf(settings, one)
      return valueOf(one, 'tuneCents') + highestOf(envelopes.pitch, Math.min(MOST_SHARE, values.pitchEnvelope + more), Math.max(-MOST_SHARE, values.pitchEnvelope - more)) // prettier-ignore
    })
    return settings.values.tuneCents + tracked + bent + moved + Math.max(...highest) + locked + highestSlice(pad, ray)
  })
}

/** How high an envelope rises by any share between two. */
function highestOf({ points }: Envelope, most: number, least: number): number {
  const heights = points.flatMap(({ value }) => [value * most, value * least])
  return heights.length > 0 ? Math.max(...heights) : 0
}

const MOST_SHARE = parameters.pitchEnvelope.max

/** The same of a pad as its kit has it. */
export function greatestCentsOf(kit: Kit, given: Pad): number[] {
  const pad = filledPad(kit, given)
  const settings = padSettings(kit, pad)
  return greatestCents(kit, pad, settings, moversOf(kit, pad, settings))
}

function greatestOf({ from, amount, bias, most }: Mover): number {
  const reach = from === sourceCodes.note ? Math.abs(amount) * NOTE_OCTAVES : Math.abs(amount)
  return Math.min(most, bias + reach)
}

const locksIn = new WeakMap<object, ReadonlyMap<string, number>>()

/** By how many cents beads of the kit's grooves raise a pad at most. */
export function lockedCents({ grooves }: Kit, { id }: Pick<Pad, 'id'>): number {
  const known = locksIn.get(grooves) ?? gatherLocks(grooves)
  locksIn.set(grooves, known)
  return known.get(id) ?? 0
}

function gatherLocks(grooves: Kit['grooves']): ReadonlyMap<string, number> {
  const most = new Map<string, number>()
  for (const { strings } of grooves)
    for (const string of strings)
      for (const { locks = [] } of string.beads)
        for (const { param, value } of locks) {
          const cents = param === 'tuneCents' ? Math.abs(value) : param === 'bendTrack' ? BEND_CENTS : 0
          if (cents > 0) most.set(string.padId, Math.max(most.get(string.padId) ?? 0, cents))
        }
  return most
}
