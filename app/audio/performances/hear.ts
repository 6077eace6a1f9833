import type { Audio } from '@heliaster/core/audio'
import type { PadId } from '@heliaster/core/kit'
import type { LineSound } from '@heliaster/core/performance'
import { createStore } from 'zustand/vanilla'

import type { Player } from '../engine/player'
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
  const source = sourceOf(player, audio)
  if (loopSeconds) Object.assign(source, { loop: true, loopStart: 0, loopEnd: loopSeconds })
  const begunAt = player.context.currentTime
  source.start(0, fromSeconds)
  run(player, name, (gone) => {
    const seconds = loopSeconds ? (fromSeconds + gone) % loopSeconds : fromSeconds + gone
    return { seconds, lit: litAt(fell, seconds, audio.sampleRateHz) }
  }, begunAt, source) // prettier-ignore
  source.onended = () => stopNow?.()
}

/** What is heard while a film runs by itself is called so; its seconds are those of the film. */
export const FILM = 'film'

/**
 * Lets a film's clock run from a second of it, with what lies against it where there is any, until it is stopped. Returns the frame
 * of the engine at which the film is on that second; nothing where no sound can be made.
 */
export function runFilm(fromSeconds: number, against: LineSound | undefined): number | undefined {
  stopHearing()
  const { player } = sound.getState()
  if (!player) return undefined
  const source = against && sourceOf(player, against.audio)
  const begunAt = player.context.currentTime + AHEAD_SECONDS
  const within = against ? fromSeconds - against.filmSeconds : 0
  const lasts = against ? against.audio.channels[0]!.length / against.audio.sampleRateHz : 0
  if (source && within < lasts) source.start(begunAt + Math.max(0, -within), Math.max(0, within))
  run(player, FILM, (gone) => ({ seconds: fromSeconds + Math.max(0, gone), lit: [] }), begunAt, source)
  return Math.round(begunAt * player.sampleRateHz) - player.hostFrame()
}

/** A film and what lies against it begin so much later than they are asked to, so that both begin together. */
const AHEAD_SECONDS = 0.1

function sourceOf(player: Player, audio: Audio): AudioBufferSourceNode {
  const { context } = player
  const buffer = context.createBuffer(2, audio.channels[0]!.length, audio.sampleRateHz)
  audio.channels.forEach((channel, i) => buffer.copyToChannel(channel as Float32Array<ArrayBuffer>, i))
  const source = context.createBufferSource()
  source.buffer = buffer
  source.connect(context.destination)
  return source
}

/** Tells with each picture where what is heard is, until it is stopped. */
function run(
  player: Player,
  name: string,
  at: (goneSeconds: number) => Omit<Hearing, 'name'>,
  begunAt: number,
  source: AudioBufferSourceNode | undefined,
): void {
  const letSleep = player.sleep.hold()
  void player.resume()
  let drawing = requestAnimationFrame(function draw() {
    drawing = requestAnimationFrame(draw)
    hearing.setState(at(player.context.currentTime - begunAt))
  })
  stopNow = () => {
    stopNow = undefined
    if (source) source.onended = null
    try {
      source?.stop()
    } catch {
      // It was to begin behind its own end: it never began.
    }
    source?.disconnect()
    cancelAnimationFrame(drawing)
    letSleep()
    hearing.setState({ name: undefined, seconds: 0, lit: [] }, true)
  }
  hearing.setState({ name, ...at(0) })
}

export function stopHearing(): void {
  stopNow?.()
}

function litAt(fell: readonly Fell[], seconds: number, rateHz: number): readonly PadId[] {
  const lit = fell.filter(({ frame }) => frame / rateHz <= seconds && frame / rateHz > seconds - LIT_SECONDS).map(({ padId }) => padId)
  const before = hearing.getState().lit
  return lit.length === before.length && lit.every((padId, i) => padId === before[i]) ? before : lit
}
