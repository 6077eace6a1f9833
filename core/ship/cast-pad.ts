import { createBand, createPad, createTurn, wholeClip } from '../kit/make'
import type { AudioInfo } from '../kit/clip'
import type { AudioHash, MakeId } from '../kit/ids'
import type { Kit, Pad } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { padSettings } from '../kit/resolve'

/** A strike that was cast and kept as a file. */
export interface KeptStrike {
  readonly velocity: number
  readonly audio: AudioHash
  readonly info: AudioInfo
}

/** Velocities to cast: one for each band, or so many evenly up to the hardest. */
export function velocitiesToCast(pad: Pad, count: number | 'bands'): number[] {
  const bands = pad.bands.length > 0 ? pad.bands : pad.rays.flatMap(({ source }) => (source.kind === 'clips' && source.bands) || [])
  const tops = bands.map((_, i) => (bands[i + 1]?.fromVelocity ?? 128) - 1)
  if (count === 'bands') return [...new Set(tops)].filter((velocity) => velocity >= 1).sort((a, b) => a - b)
  return Array.from({ length: count }, (_, i) => Math.round((127 * (i + 1)) / count))
}

/** A new pad beside the one that was cast: a band for each velocity, and nothing else that shapes it. */
export function castPadEdits(makeId: MakeId, kit: Kit, pad: Pad, strikes: readonly KeptStrike[]): KitEdit[] {
  const settings = padSettings(kit, pad)
  const velocities = [...new Set(strikes.map(({ velocity }) => velocity))].sort((a, b) => a - b)
  const made: Pad = createPad(makeId, {
    name: `${settings.name || 'Pad'}, cast`.slice(0, 120),
    family: settings.family,
    pick: settings.pick,
    responses: [],
  })
  const ray = made.rays[0]!
  const from = audioOfPad(pad)
  const bands = velocities.map((velocity, i) => {
    const own = strikes.filter((strike) => strike.velocity === velocity)
    const clips = own.map(({ audio, info }) => ({ ...wholeClip(audio, info), made: { by: 'casting' as const, from: from.slice(0, 64) } }))
    return createBand(makeId, i === 0 ? 1 : velocities[i - 1]! + 1, clips.map((clip) => createTurn(makeId, { [ray.id]: clip }))) // prettier-ignore
  })
  const files = new Map(strikes.map(({ audio, info }) => [audio, info]))
  return [
    ...[...files].map(([audio, info]): KitEdit => ({ type: 'putAudio', audio, info })),
    { type: 'addPad', pad: { ...made, bands }, index: kit.pads.findIndex(({ id }) => id === pad.id) + 1 },
  ]
}

/** The audio that a pad's clips are made of. */
const audioOfPad = (pad: Pad): AudioHash[] => [
  ...new Set(pad.bands.flatMap(({ turns }) => turns.flatMap(({ clips }) => Object.values(clips).flatMap((clip) => (clip === 'intendedSilence' ? [] : [clip.audio]))))),
] // prettier-ignore
