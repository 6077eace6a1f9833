import type { Audio } from '../audio/audio'
import { joined, soundingFrames } from '../audio/join'
import { createOffline, EventType, renderOffline, toScore } from '../engine'
import type { Kit, Pad } from '../kit/kit'
import type { PadId, TurnId } from '../kit/ids'
import { bandsOfRay, insertsOf, padSettings } from '../kit/resolve'
import type { AudioOf } from './draw'

export interface CastOptions {
  /** Strikes that are cast, each velocity a band of the new pad, 1..127, from soft to loud. */
  readonly velocities: readonly number[]
  /** With what the buses on its way put to it and what it sends; the whole kit's own effects are not in it. */
  readonly withEffects: boolean
  readonly note?: number
}

/** A strike that was cast. */
export interface CastStrike {
  readonly velocity: number
  /** Counted from 0, within its band. */
  readonly turn: number
  readonly audio: Audio
}

const CAST_RATE_HZ = 48000
const LONGEST_SECONDS = 60
/** So long in silence behind the last voice tells that effects have rung out. */
const QUIET_SECONDS = 1
const QUIET = 1e-6

/** The turns that a strike of a velocity has to choose from; one, of no name, where only rays have bands of their own. */
function turnsAt(pad: Pad, velocity: number): readonly (TurnId | undefined)[] {
  const turns = pad.bands.findLast(({ fromVelocity }) => fromVelocity <= velocity)?.turns ?? []
  if (turns.length > 0) return turns.map(({ id }) => id)
  return pad.rays.some(({ source }) => source.kind === 'clips' && (source.bands?.length ?? 0) > 0) ? [undefined] : []
}

/**
 * Strikes of a pad as they sound before the whole kit's effects and level: every turn of the band of each velocity, from
 * silence until they have died away. What goes round or is held is cast for up to a minute. What is drawn by chance is
 * drawn once; a pad that is muted is cast all the same, and pads that strike along are not.
 */
export function castStrikes(kit: Kit, padId: PadId, options: CastOptions, audioOf: AudioOf): CastStrike[] {
  const pad = kit.pads.find(({ id }) => id === padId)
  if (!pad) return []
  const rateHz = Math.max(CAST_RATE_HZ, ...rateOf(kit, pad))
  return options.velocities.flatMap((velocity) =>
    turnsAt(pad, velocity).map((id, turn) => ({ velocity, turn, audio: castOne(kit, id === undefined ? pad : withTurn(pad, id), velocity, options, rateHz, audioOf) })),
  ) // prettier-ignore
}

const rateOf = (kit: Kit, pad: Pad): number[] =>
  pad.rays.flatMap((ray) => bandsOfRay(pad, ray).flatMap(({ turns }) => turns.flatMap(({ clips }) => {
    const clip = clips[ray.id]
    return clip && clip !== 'intendedSilence' ? [kit.audio[clip.audio]?.sampleRateHz ?? CAST_RATE_HZ] : []
  }))) // prettier-ignore

/** The pad with one of its turns alone, struck at any velocity as its own band is. */
function withTurn(pad: Pad, turnId: TurnId): Pad {
  const bands = pad.bands.map((band) =>
    band.turns.some(({ id }) => id === turnId) ? { ...band, turns: band.turns.filter(({ id }) => id === turnId) } : band,
  )
  return { ...pad, bands }
}

function castOne(kit: Kit, pad: Pad, velocity: number, { withEffects, note }: CastOptions, rateHz: number, audioOf: AudioOf): Audio {
  const buses = withEffects ? kit.buses : kit.buses.map((bus) => ({ ...bus, inserts: [], sends: [] }))
  const rays = withEffects ? pad.rays : pad.rays.map((ray) => ({ ...ray, sends: [] }))
  const alone: Kit = {
    ...kit,
    values: {},
    inserts: [],
    buses,
    pads: [{ ...pad, own: { ...pad.own, mute: false }, rays }, ...kit.pads.filter(({ id }) => id === pad.leansOn)],
    ties: [],
    grooves: [],
    song: [],
  }
  const { engine, loader } = createOffline(alone, rateHz, audioOf)
  const rings = withEffects && insertsOf({ buses: kit.buses }).length > 0
  const left: Float32Array[] = []
  const right: Float32Array[] = []
  let score = toScore([{ frame: 0, type: EventType.strike, padSlot: loader.slotOf(pad.id), velocity, note: note ?? padSettings(kit, pad).rootNote ?? -1 }]) // prettier-ignore
  for (let second = 0, quiet = 0; second < LONGEST_SECONDS && quiet < (rings ? QUIET_SECONDS + 1 : 1); second++) {
    const tap = { left: new Float32Array(rateHz), right: new Float32Array(rateHz) }
    renderOffline(engine, score, rateHz, 4096, { tap })
    score = new Float64Array(0)
    left.push(tap.left)
    right.push(tap.right)
    const sounds = engine.strikes.active.includes(1) || tap.left.some((sample, i) => Math.abs(sample) + Math.abs(tap.right[i]!) > QUIET)
    quiet = sounds ? 0 : quiet + 1
  }
  const channels = [joined(left), joined(right)]
  const end = Math.max(1, soundingFrames(channels))
  const isOne = channels[0]!.every((sample, i) => sample === channels[1]![i])
  return { sampleRateHz: rateHz, channels: (isOne ? [channels[0]!] : channels).map((channel) => channel.slice(0, end)) }
}
