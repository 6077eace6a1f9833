import { audioInUse } from '@heliaster/core/kit'
import type { AudioHash, Kit, PadId, Performance } from '@heliaster/core/kit'
import { answering } from '@heliaster/core/performance'
import type { Audio } from '@heliaster/core/audio'

import { audioBytes } from '../files/audio-files'
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
export async function resound({ performance, on, only, seed }: Wanted): Promise<Resounded> {
  const kits = new Map<AudioHash, Kit>()
  for (const hash of new Set(performance.segments.map(({ kit }) => kit))) kits.set(hash, await playedKit(hash))
  const answers = on.as === 'kit' ? [...answering(kits.get(performance.segments[0].kit)!, on.kit)] : undefined
  const sounding = on.as === 'kit' ? [on.kit] : [...kits.values()]
  const work = shipWork()
  const lacking = await work.lacking([...new Set(sounding.flatMap(audioInUse))])
  for (const hash of lacking) await work.bring(hash, await audioBytes(hash))
  return work.perform({ performance, kits, answers, kit: on.as === 'kit' ? on.kit : undefined, only, seed })
}

/** How much of a performance another kit answers: the names of pads that nothing there is like. */
export async function unanswered(performance: Performance, kit: Kit): Promise<PadId[]> {
  const answers = answering(await playedKit(performance.segments[0].kit), kit)
  const played = new Set(performance.events.flatMap((event) => (event.type === 'strike' ? [event.padId] : [])))
  return [...played].filter((padId) => !answers.get(padId))
}
