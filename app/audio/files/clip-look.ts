import type { Clip } from '@heliaster/core/kit'
import { startTransition, useEffect, useMemo, useState } from 'react'

import { asPlayed, playedBy } from './as-played'
import { soundForWorker } from './audio-files'
import { coreWork } from '../workers/workers'

/** What a clip looks like in small as it is played, and how loud it is, before its own level. */
export interface ClipLook {
  readonly low: Float32Array
  readonly high: Float32Array
  /** LUFS, momentary. */
  readonly loudnessDb: number
  readonly clipSeconds: number
  /** Time until it stays 30 dB under its peak. */
  readonly decaySeconds: number
  /** Where its energy balances, Hz. */
  readonly centreHz: number
}

const looks = new Map<string, Promise<ClipLook>>()
const ready = new Map<string, ClipLook>()

const written = new WeakMap<Clip, string>()

/** Clips that differ in nothing but their level look alike. */
function keyOf(clip: Clip): string {
  let key = written.get(clip)
  if (key === undefined) {
    const { gainDb: _level, fromHit: _hit, ...looked } = clip
    written.set(clip, (key = JSON.stringify(looked)))
  }
  return `${key}${playedBy(clip)}`
}

async function look(given: Clip): Promise<ClipLook> {
  const clip = await asPlayed(given)
  return coreWork().clipLook(await soundForWorker(clip.audio), { ...clip, gainDb: 0 })
}

function lookOf(clip: Clip): Promise<ClipLook> {
  const key = keyOf(clip)
  let promise = looks.get(key)
  if (!promise) {
    promise = look(clip)
    looks.set(key, promise)
    promise.then(
      (found) => ready.set(key, found),
      () => looks.delete(key), // what is missing is said where the pad is
    )
  }
  return promise
}

/** How clips look, as far as it is known yet; the rest comes one after another. */
export function useClipLooks(clips: readonly Clip[]): (clip: Clip) => ClipLook | undefined {
  const keys = useMemo(() => clips.map(keyOf).join('\n'), [clips])
  const [, redraw] = useState(0)
  useEffect(() => {
    let gone = false
    // Many pads may be drawn anew at once: what is tapped meanwhile goes before.
    const drawSoon = soon(() => !gone && startTransition(() => redraw((count) => count + 1)))
    const lookOn = async () => {
      for (const clip of clips) {
        if (gone) return
        if (!ready.has(keyOf(clip))) await lookOf(clip).then(drawSoon, () => undefined)
      }
    }
    void lookOn()
    return () => {
      gone = true
    }
  }, [keys]) // eslint-disable-line react-hooks/exhaustive-deps -- the same keys are the same looks
  return (clip) => ready.get(keyOf(clip))
}

/** Many calls within a frame or two become one. */
function soon(run: () => void): () => void {
  let waiting = false
  return () => {
    if (waiting) return
    waiting = true
    setTimeout(() => {
      waiting = false
      run()
    }, 60)
  }
}
