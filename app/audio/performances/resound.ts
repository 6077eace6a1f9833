import { audioInUse } from '@heliaster/core/kit'
import type { AudioHash, Kit, PadId, Performance } from '@heliaster/core/kit'
import { answering } from '@heliaster/core/performance'
import type { Bits, ToDraw } from '@heliaster/core/performance'
import type { Audio } from '@heliaster/core/audio'

import { audioBytes } from '../files/audio-files'
import type { ToPerform } from '../workers/ship-work'
import { shipWork } from '../workers/workers'
import { playedKit } from './keep'

/** What a performance sounds on: the kits as they were when it was played, or another one, or its own as it is now. */
export type SoundsOn = { readonly as: 'played' } | { readonly as: 'kit'; readonly kit: Kit }

export interface Wanted {
  readonly performance: Performance
  readonly on: SoundsOn
  /** Only what is played on these pads. */
  readonly only?: readonly PadId[]
  /** Drawn anew by another seed of chance. */
  readonly seed?: number
}

/** Where strikes fell: the pad that sounded, its band and turn, and how many frames after the beginning. */
export interface Fell {
  readonly frame: number
  readonly padId: PadId
  readonly band: number
  readonly turn: number
}

export interface Resounded {
  readonly audio: Audio
  readonly fell: readonly Fell[]
}

/** Sounds a performance again, away from the page. Throws an Error that says what is missing. */
export async function resound(wanted: Wanted): Promise<Resounded> {
  return shipWork().perform(await ready(wanted))
}

/** The same as a WAV file. */
export async function resoundedWav(wanted: Wanted, bits: Bits): Promise<ArrayBuffer> {
  return shipWork().performedWav(await ready(wanted), bits)
}

/** The same with a file for each pad that was played, in a zip; they are named as in `named`. */
export async function resoundedPads(wanted: Wanted, named: Kit, bits: Bits): Promise<ArrayBuffer> {
  return shipWork().performedPads(await ready(wanted), named, bits)
}

/** One strike as its pad plays it so many times, numbered, in a zip. */
export async function drawnStrikes(asked: Omit<ToDraw, 'audioOf'>, name: string, bits: Bits): Promise<ArrayBuffer> {
  await bring([asked.kit])
  return shipWork().draws(asked, name, bits)
}

/** What is asked of the worker, once it has all audio that it needs. */
async function ready({ performance, on, only, seed }: Wanted): Promise<ToPerform> {
  const kits = new Map<AudioHash, Kit>()
  for (const hash of new Set(performance.segments.map(({ kit }) => kit))) kits.set(hash, await playedKit(hash))
  await bring(on.as === 'kit' ? [on.kit] : [...kits.values()])
  if (on.as === 'played') return { performance, kits, only, seed }
  return { performance, kits, kit: on.kit, answers: [...answering(kits.get(performance.segments[0].kit)!, on.kit)], only, seed }
}

async function bring(kits: readonly Kit[]): Promise<void> {
  const work = shipWork()
  const lacking = await work.lacking([...new Set(kits.flatMap(audioInUse))])
  for (const hash of lacking) await work.bring(hash, await audioBytes(hash))
}

/** How much of a performance another kit answers: the names of pads that nothing there is like. */
export async function unanswered(performance: Performance, kit: Kit): Promise<PadId[]> {
  const answers = answering(await playedKit(performance.segments[0].kit), kit)
  const played = new Set(performance.events.flatMap((event) => (event.type === 'strike' ? [event.padId] : [])))
  return [...played].filter((padId) => !answers.get(padId))
}
