import type { Audio } from '../audio/audio'
import type { AudioHash } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { beginTogether, createWholeLevels, TOGETHER_FRAMES } from './mix/whole-levels'
import { createOffline, toScore } from './offline'
import type { ScoreEvent } from './offline'
import type { GrooveChoice } from './program/compile-groove'
import { render } from './render'

/** What is rendered: a kit, and kits that play parts of it, with the same buses and effects. */
export interface PartsTask {
  readonly whole: Kit
  readonly parts: readonly Kit[]
  readonly sampleRateHz: number
  readonly frames: number
  readonly choice?: GrooveChoice
  readonly events: readonly ScoreEvent[]
  audioOf(audio: AudioHash): Audio | undefined
  /** Told after each second how much is done, 0..1; false ends it. */
  onDone?(share: number): boolean
}

type Sides = readonly [left: Float64Array, right: Float64Array]

/**
 * Renders a kit and its parts side by side, each before what is put into the master. What goes by level in the parts goes by
 * that of the whole: they add up to it. Undefined where it was ended.
 */
export function renderParts({ whole, parts, sampleRateHz, frames, choice, events, audioOf, onDone }: PartsTask): { whole: Sides; parts: Sides[] } | undefined {
  const levels = createWholeLevels()
  const made = [whole, ...parts].map((kit, i) => {
    const { engine } = createOffline(kit, sampleRateHz, audioOf, whole.seed, choice)
    if (i === 0) engine.tells = levels
    else engine.follows = levels
    engine.score = toScore(events)
    const sum = { left: new Float64Array(frames), right: new Float64Array(frames) }
    return { engine, sum, tap: { left: new Float32Array(TOGETHER_FRAMES), right: new Float32Array(TOGETHER_FRAMES), sum: { left: new Float64Array(TOGETHER_FRAMES), right: new Float64Array(TOGETHER_FRAMES) } } }
  })
  const out = new Float32Array(TOGETHER_FRAMES)
  for (let done = 0; done < frames; done += TOGETHER_FRAMES) {
    if (onDone && done % sampleRateHz < TOGETHER_FRAMES && !onDone(done / frames)) return undefined
    const count = Math.min(TOGETHER_FRAMES, frames - done)
    beginTogether(levels, done)
    for (const { engine, sum, tap } of made) {
      render(engine, out, out, 0, count, tap)
      sum.left.set(tap.sum.left.subarray(0, count), done)
      sum.right.set(tap.sum.right.subarray(0, count), done)
    }
  }
  const [first, ...others] = made.map(({ sum }): Sides => [sum.left, sum.right])
  return { whole: first, parts: others }
} // prettier-ignore
