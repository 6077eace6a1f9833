import { grooveOfStrikes } from '../groove/of-strikes'
import type { Groove, MakeId, Performance, PlayedStrike } from '../kit'
import { isHeard } from './edits'

/**
 * What is heard of a performance as a groove of whole bars in its tempo, from where it is heard from on, with its velocities and its
 * own timing. What lies beyond 1024 steps is left out; `beyond` says how many strikes.
 */
export function grooveOfPerformance(makeId: MakeId, performance: Performance, name = performance.name): { readonly groove: Groove; readonly beyond: number } {
  const { fromFrame, toFrame, sampleRateHz, tempoBpm } = performance
  const beatOf = (frame: number) => ((frame - fromFrame) / sampleRateHz) * (tempoBpm / 60)
  const heard = performance.events.filter((event): event is PlayedStrike => event.type === 'strike' && isHeard(performance, event))
  const strikes = heard.map(({ padId, frame, velocity }) => ({ padId, velocity, beat: beatOf(frame) })).filter(({ velocity }) => velocity > 0)
  const groove = grooveOfStrikes(makeId, strikes, { name: name.slice(0, 120), beats: beatOf(toFrame) })
  const end = (groove.lengthSteps - 0.5) / groove.stepsPerBeat
  return { groove, beyond: strikes.filter(({ beat }) => beat >= end).length }
} // prettier-ignore
