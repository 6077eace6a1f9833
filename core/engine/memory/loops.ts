import type { Clip } from '../../kit/kit'
import { cos } from '../math'

/** A stretch of a clip that goes round, in frames of what the clip plays. */
export interface ClipLoop {
  readonly startFrame: number
  readonly endFrame: number
  readonly isBackAndForth: boolean
  readonly crossfadeFrames: number
}

/**
 * A loop as it lies in memory. What goes round is written out twice, so that whatever looks to both sides of the seam finds
 * there what sounds there; it plays on from `roundFrom` whenever it comes to the end.
 *
 *   | up to the loop | loop | loop again |
 *   0                startFrame          ^ goes back to the start of `loop again`
 */
export interface LaidLoop {
  readonly roundFrom: number
  readonly startFrame: number
  /** How long it takes to go round once, there and back. */
  readonly periodFrames: number
  /** Within a period, before this many frames the clip itself lies there, going forward: from there it can go on as it was recorded. */
  readonly plainFrames: number
}

/** What of a clip goes round; nothing where its loop lies outside of it or is empty. */
export function loopOfClip(clip: Clip, sampleRateHz: number): ClipLoop | undefined {
  const { loop, startFrame, endFrame, reverse } = clip
  if (!loop) return undefined
  const from = Math.max(startFrame, loop.startFrame)
  const to = Math.min(endFrame, loop.endFrame)
  if (to - from < 2) return undefined
  return {
    startFrame: reverse ? endFrame - to : from - startFrame,
    endFrame: reverse ? endFrame - from : to - startFrame,
    isBackAndForth: loop.kind === 'backAndForth',
    crossfadeFrames: Math.floor(loop.crossfadeSeconds * sampleRateHz + 0.5),
  }
}

/** What decides how a loop is laid out, for a key. */
export function loopKey(loop: ClipLoop | undefined): string {
  return loop ? [loop.startFrame, loop.endFrame, loop.isBackAndForth, loop.crossfadeFrames].join(' ') : ''
}

/** Lays a clip's channels out with their loop; `least` is how many frames what goes round must have. */
export function layLoop(
  channels: readonly Float32Array[],
  loop: ClipLoop,
  least: number,
): { readonly channels: Float32Array[]; readonly laid: LaidLoop } {
  const { startFrame, endFrame, isBackAndForth } = loop
  const length = endFrame - startFrame
  // A fade takes as much before the loop as at its end. There and back needs none: both ends meet themselves.
  const fade = isBackAndForth ? 0 : Math.min(loop.crossfadeFrames, startFrame, length)
  const likeness = fade > 0 ? likenessOf(channels, loop, fade) : 1
  const periodFrames = isBackAndForth ? 2 * length : length
  const times = Math.max(1, Math.ceil(least / periodFrames))
  const out = channels.map((samples) => {
    const round = isBackAndForth ? thereAndBack(samples, loop) : faded(samples, loop, fade, likeness)
    const all = new Float32Array(startFrame + 2 * times * periodFrames)
    all.set(samples.subarray(0, startFrame))
    for (let i = 0; i < 2 * times; i++) all.set(round, startFrame + i * periodFrames)
    return all
  })
  return { channels: out, laid: { roundFrom: startFrame + times * periodFrames, startFrame, periodFrames, plainFrames: length - fade } }
}

function thereAndBack(samples: Float32Array, { startFrame, endFrame }: ClipLoop): Float32Array {
  const there = samples.subarray(startFrame, endFrame)
  const round = new Float32Array(2 * there.length)
  round.set(there)
  for (let i = 0; i < there.length; i++) round[2 * there.length - 1 - i] = there[i]
  return round
}

const PI = 3.141592653589793

/** The loop, its end gone over into what lies before its start. Loudness stays whether the two are alike or strange to each other. */
function faded(samples: Float32Array, { startFrame, endFrame }: ClipLoop, fade: number, likeness: number): Float32Array {
  const round = samples.slice(startFrame, endFrame)
  for (let i = 0; i < fade; i++) {
    const to = 0.5 - 0.5 * cos((PI * (i + 0.5)) / fade)
    const from = 1 - to
    const level = 1 / Math.sqrt(from * from + to * to + 2 * likeness * from * to)
    const at = round.length - fade + i
    round[at] = level * (from * round[at] + to * samples[startFrame - fade + i])
  }
  return round
}

/** How alike what lies before a loop's start and before its end are, 0..1: their correlation. */
function likenessOf(channels: readonly Float32Array[], { startFrame, endFrame }: ClipLoop, fade: number): number {
  let [both, one, other] = [0, 0, 0]
  for (const samples of channels)
    for (let i = 1; i <= fade; i++) {
      const [a, b] = [samples[endFrame - i], samples[startFrame - i]]
      both += a * b
      one += a * a
      other += b * b
    }
  return one * other > 0 ? Math.min(1, Math.max(0, both / Math.sqrt(one * other))) : 1
}
