import type { PadId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { sound } from '../engine/sound'
import type { Fell, Resounded } from './resound'

interface Hearing {
  /** What is heard: a name that whoever began it chose. */
  readonly name?: string
  /** Seconds from the beginning; goes back where it goes round. */
  readonly seconds: number
  /** Pads that were struck within the last moment. */
  readonly lit: readonly PadId[]
}

export const hearing = createStore<Hearing>(() => ({ seconds: 0, lit: [] }))

/** A pad stays lit for so long. */
const LIT_SECONDS = 0.12

let stopNow: (() => void) | undefined

export interface HowHeard {
  readonly fromSeconds?: number
  /** Goes round from the beginning to here. */
  readonly loopSeconds?: number
}

/** Sounds what was sounded again, through the context that the pads sound in. What was heard before ends. */
export function hearResounded(name: string, { audio, fell }: Resounded, { fromSeconds = 0, loopSeconds }: HowHeard = {}): void {
  stopHearing()
  const { player } = sound.getState()
  if (!player || audio.channels[0].length === 0) return
  const { context } = player
  const letSleep = player.sleep.hold()
  void player.resume()
  const buffer = context.createBuffer(2, audio.channels[0].length, audio.sampleRateHz)
  audio.channels.forEach((channel, i) => buffer.copyToChannel(channel as Float32Array<ArrayBuffer>, i))
  const source = context.createBufferSource()
  source.buffer = buffer
  if (loopSeconds) Object.assign(source, { loop: true, loopStart: 0, loopEnd: loopSeconds })
  source.connect(context.destination)
  const begunAt = context.currentTime
  source.start(0, fromSeconds)
  let drawing = requestAnimationFrame(function draw() {
    drawing = requestAnimationFrame(draw)
    const gone = fromSeconds + context.currentTime - begunAt
    const seconds = loopSeconds ? gone % loopSeconds : gone
    hearing.setState({ seconds, lit: litAt(fell, seconds, audio.sampleRateHz) })
  })
  stopNow = () => {
    stopNow = undefined
    source.onended = null
    source.stop()
    source.disconnect()
    cancelAnimationFrame(drawing)
    letSleep()
    hearing.setState({ name: undefined, seconds: 0, lit: [] }, true)
  }
  source.onended = () => stopNow?.()
  hearing.setState({ name, seconds: fromSeconds, lit: [] })
}

export function stopHearing(): void {
  stopNow?.()
}

function litAt(fell: readonly Fell[], seconds: number, rateHz: number): readonly PadId[] {
  const lit = fell.filter(({ frame }) => frame / rateHz <= seconds && frame / rateHz > seconds - LIT_SECONDS).map(({ padId }) => padId)
  const before = hearing.getState().lit
  return lit.length === before.length && lit.every((padId, i) => padId === before[i]) ? before : lit
}
