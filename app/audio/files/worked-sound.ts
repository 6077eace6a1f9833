import type { Audio } from '@heliaster/core/audio'
import type { Clip } from '@heliaster/core/kit'
import type { Recipe } from '@heliaster/core/matter'
import { proxy } from 'comlink'
import { createStore } from 'zustand/vanilla'

import { matterWork, stopMatterWork } from '../workers/workers'

/** What is being worked: how many sounds wait, and how far the one at hand is, 0..1. */
export interface Working {
  readonly waiting: number
  readonly share: number
}

export const working = createStore<Working>(() => ({ waiting: 0, share: 0 }))

/** The sound was not worked; the message is for a person. */
export class NotWorked extends Error {}

/** A person stopped it. */
export class WorkStopped extends NotWorked {}

interface Job {
  readonly recipe: Recipe
  readonly source: () => Promise<Audio>
  readonly done: (audio: Audio) => void
  readonly failed: (error: Error) => void
}

const waiting: Job[] = []
let atHand: Job | undefined

const placeOf = ({ clip, semitones, octaves, take }: Recipe) => [clip.audio, clip.startFrame, clip.endFrame, clip.channel, semitones, octaves, take].join(' ') // prettier-ignore

/** Works a sound once those before it are done. What waits for the same stretch with settings that were left again goes. */
export function workedSound(recipe: Recipe, source: () => Promise<Audio>): Promise<Audio> {
  const place = placeOf(recipe)
  for (const old of waiting.filter((job) => placeOf(job.recipe) === place && isOfOneClip(job.recipe.clip, recipe.clip))) {
    waiting.splice(waiting.indexOf(old), 1)
    old.failed(new NotWorked('Its matter was set anew before it was worked.'))
  }
  const promise = new Promise<Audio>((done, failed) => waiting.push({ recipe, source, done, failed }))
  tell(0)
  void workOn()
  return promise
}

/** Steps of one clip have their names in common; those of two clips of the same stretch do not. */
const isOfOneClip = (a: Clip, b: Clip): boolean => (a.process ?? []).some(({ id }) => (b.process ?? []).some((step) => step.id === id))

const tell = (share: number) => working.setState({ waiting: waiting.length + (atHand ? 1 : 0), share }, true)

async function workOn(): Promise<void> {
  if (atHand) return
  const job = waiting.shift()
  if (!job) return tell(0)
  atHand = job
  tell(0)
  try {
    const { recipe, audio } = cutFor(job.recipe, await job.source())
    const result = await matterWork().recipe(recipe, audio, proxy((share: number) => atHand === job && tell(share))) // prettier-ignore
    if (result.ok) job.done(result.audio)
    else job.failed(new NotWorked(result.message))
  } catch (error) {
    job.failed(error instanceof Error ? error : new Error(String(error)))
  }
  if (atHand === job) {
    atHand = undefined
    void workOn()
  }
}

/** Stops all that is worked and waits: those sounds stay away until their steps are changed. */
export function stopWorking(): void {
  stopMatterWork()
  const all = [...(atHand ? [atHand] : []), ...waiting.splice(0)]
  atHand = undefined
  for (const job of all)
    job.failed(new WorkStopped('The work on its matter was stopped. Change a step of it, or switch it off, to hear it again.'))
  tell(0)
}

/** Filters of repairs run in from so long before a clip. */
const LEAD_SECONDS = 0.1

/** The stretch of a recording that a recipe needs, and the recipe for it: no more than that goes to the worker. */
export function cutFor(recipe: Recipe, { sampleRateHz, channels }: Audio): { recipe: Recipe; audio: Audio } {
  const { clip } = recipe
  const from = Math.max(0, clip.startFrame - Math.round(LEAD_SECONDS * sampleRateHz))
  const moved = (frame: number) => Math.max(0, frame - from)
  return {
    audio: { sampleRateHz, channels: channels.map((channel) => channel.slice(from, clip.endFrame)) },
    recipe: {
      ...recipe,
      clip: {
        ...clip,
        startFrame: moved(clip.startFrame),
        endFrame: moved(clip.endFrame),
        ...(clip.slices ? { slices: clip.slices.map((slice) => ({ ...slice, frame: moved(slice.frame) })) } : {}),
        ...(clip.process
          ? {
              process: clip.process.map((step) =>
                step.part ? { ...step, part: { startFrame: moved(step.part.startFrame), endFrame: moved(step.part.endFrame) } } : step,
              ),
            }
          : {}),
      },
    },
  }
}
