import type { Clip, KitEdit, MatterStep } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'
import type { PlacedClip } from '../whom/clips-of'

/** What is said of a step on the screen: as it is on the first of the clips that are meant. */
export const stepsShown = (places: readonly PlacedClip[]): readonly MatterStep[] => places[0]?.clip.process ?? []

const said = ({ process = [] }: Clip, startFrame: number): string =>
  JSON.stringify(process.map(({ id: _id, part, ...step }) => ({ ...step, part: part && { from: part.startFrame - startFrame, to: part.endFrame - startFrame } }))) // prettier-ignore

/** The clips that are worked as the first is: what is set on a step of it is set on these. */
export function alike(places: readonly PlacedClip[]): readonly PlacedClip[] {
  const first = places[0]
  if (!first) return []
  const own = said(first.clip, first.clip.startFrame)
  return places.filter(({ clip }) => said(clip, clip.startFrame) === own)
}

/** One more step on each clip, after its own. */
export function withOneMore(places: readonly PlacedClip[], step: MatterStep): KitEdit[] {
  return places.map(({ padId, turnId, rayId, clip }, place) => {
    const more = place === 0 ? step : { ...step, id: makeId<string>('step') }
    return { type: 'setClip', padId, turnId, rayId, clip: { ...clip, process: [...(clip.process ?? []), more] } }
  })
}

/** These steps on each of the clips: as many frames from its start on where a step is for a part of it. */
export function withSteps(places: readonly PlacedClip[], steps: readonly MatterStep[]): KitEdit[] {
  const first = places[0]
  if (!first) return []
  return places.map(({ padId, turnId, rayId, clip }, place) => {
    const by = clip.startFrame - first.clip.startFrame
    const own = steps.map((step) => ({
      ...step,
      // A step keeps its name on its own clip: on another one it is another step.
      id: place === 0 ? step.id : makeId<string>('step'),
      ...(step.part
        ? { part: { startFrame: Math.max(0, step.part.startFrame + by), endFrame: Math.max(1, step.part.endFrame + by) } }
        : {}),
    }))
    const { process: _before, ...plain } = clip
    return { type: 'setClip', padId, turnId, rayId, clip: steps.length > 0 ? { ...plain, process: own } : plain }
  })
}

/** A step that begins with some values. */
export const madeStep = (given: Omit<MatterStep, 'id' | 'bypass'>): MatterStep => ({ ...given, id: makeId<string>('step'), bypass: false })
