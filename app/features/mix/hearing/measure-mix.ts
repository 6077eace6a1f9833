import { toMono } from '@heliaster/core/audio'
import type { Hiding } from '@heliaster/core/hearing'
import { padSettings } from '@heliaster/core/kit'
import type { Groove, Kit, Pad } from '@heliaster/core/kit'

import { drawGroove } from '../../../audio/engine/draw'
import { ALL_SOUND, withSolo } from '../../../audio/engine/solo'
import { besidePart } from '../../../audio/playing/beside'
import { coreWork } from '../../../audio/workers/workers'

const RATE = 48000
/** At least so much of a groove is listened to, and at most, s; whole laps where they fit. */
const LEAST_SECONDS = 4
const MOST_SECONDS = 12

/** How much of a groove tells how it sounds. */
export function listenedSeconds(groove: Groove, tempoBpm: number): number {
  const lap = (groove.lengthSteps / groove.stepsPerBeat) * (60 / tempoBpm)
  return Math.min(MOST_SECONDS, Math.max(1, Math.ceil(LEAST_SECONDS / lap)) * lap)
}

/** Pads as the groove plays them, each alone with its buses and effects, those that are silent in it left out. */
export interface HeardPads {
  readonly pads: readonly { readonly pad: Pad; readonly channels: readonly Float32Array[] }[]
  readonly silent: readonly Pad[]
}

/** The master's own effects and level are the same for all: they are left out. */
const bare = (kit: Kit): Kit => ({ ...kit, inserts: [], values: {} })

export async function heardPads(kit: Kit, groove: Groove): Promise<HeardPads> {
  const struck = kit.pads.filter((pad) => !padSettings(kit, pad).mute)
  const kits = struck.map((pad) => withSolo(bare(kit), { ...ALL_SOUND, pads: [pad.id] }))
  const parts = kits.length === 0 ? [] : await drawGroove(kits, groove.id, listenedSeconds(groove, kit.tempoBpm), RATE)
  const sounds = struck.map((pad, i) => ({ pad, channels: parts[i]! }))
  const isHeard = ({ channels }: (typeof sounds)[number]) => channels.some((channel) => channel.some((sample) => Math.abs(sample) > 1e-5))
  return { pads: sounds.filter(isHeard), silent: sounds.filter((one) => !isHeard(one)).map(({ pad }) => pad) }
}

/** Levels that would suit the groove, each with its pad. */
export async function proposedLevels(kit: Kit, { pads }: HeardPads) {
  const heard = pads.map(({ pad, channels }) => ({ family: padSettings(kit, pad).family, channels }))
  const changes = await coreWork().balance(heard, RATE)
  return changes.map((change) => ({ ...change, pad: pads[change.sound]!.pad }))
}
export type ProposedLevel = Awaited<ReturnType<typeof proposedLevels>>[number]

/** One pad, or the song beside the groove, that hides a pad; a hidden song is told too. */
export interface HidingPads extends Omit<Hiding, 'by' | 'whom'> {
  readonly by: Pad | 'song'
  readonly whom: Pad | 'song'
}

export async function whoHidesWhom(kit: Kit, groove: Groove, { pads }: HeardPads): Promise<HidingPads[]> {
  const song = besidePart(kit.tempoBpm, listenedSeconds(groove, kit.tempoBpm), RATE)
  const sounds = [...pads.map(({ channels }) => toMono({ sampleRateHz: RATE, channels: [...channels] })), ...(song ? [song] : [])]
  const who = (place: number): Pad | 'song' => pads[place]?.pad ?? 'song'
  return (await coreWork().hides(sounds)).map((one) => ({ ...one, by: who(one.by), whom: who(one.whom) }))
}

/** By how many dB the second of two kits has to be changed to be as loud as the first, in the loudest 400 ms of a groove. */
export async function evenedDb(one: Kit, other: Kit, groove: Groove): Promise<number> {
  const parts = await drawGroove([one, other], groove.id, listenedSeconds(groove, one.tempoBpm), RATE)
  const [first, second] = await Promise.all(parts.map((channels) => coreWork().loudness(channels, RATE)))
  return Number.isFinite(first! - second!) ? first! - second! : 0
}
