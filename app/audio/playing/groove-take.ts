import { withTake } from '@heliaster/core/groove'
import type { TakenStrike } from '@heliaster/core/groove'
import type { Groove, KitEdit, KitId } from '@heliaster/core/kit'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { kits } from '../../documents'
import type { Gesture } from '../../documents/gesture'
import { deviceSettings } from '../../ui/device/device-settings'
import { comePast } from '../engine/come-past'
import type { Player, Sounded } from '../engine/player'
import { mixDelaySeconds } from '../engine/mix-delay'
import { onSounded, sound } from '../engine/sound'
import { startClick } from './click'
import { grooveState, onGrooveStops, playAlone, startGroove } from './groove-player'
import { clockState } from './hands/midi-clock'

/** How strikes of pads become beads: over or instead of what is there, and how far they go to the grid, 0..1. */
export const takeSettings = deviceSettings(
  'heliaster-groove-take',
  z.object({ isInstead: z.boolean(), share: z.number().min(0).max(1), hasClick: z.boolean() }),
  { isInstead: false, share: 0.5, hasClick: false },
)

interface TakeState {
  readonly isOn: boolean
  /** Strikes that are in the groove by now. */
  readonly count: number
}

export const takeState = createStore<TakeState>(() => ({ isOn: false, count: 0 }))

interface Pass {
  readonly kitId: KitId
  readonly player: Player
  /** Where the groove was when it was looked last, so that what sounds as it stops has its beat. */
  seen: { readonly beat: number; readonly frame: number } | undefined
  isEnding: boolean
  readonly before: Groove
  readonly gesture: Gesture<KitEdit>
  readonly laid: TakenStrike[]
  waiting: TakenStrike[]
  stop(): void
}

let pass: Pass | undefined

/** Strikes of hands are laid into a groove from now on, until it is ended: one pass, one step to undo. */
export function beginTake(kitId: KitId, groove: Groove): void {
  endTake()
  const { player } = sound.getState()
  if (!player) return
  playAlone(groove.id)
  const own: Pass = {
    kitId,
    player,
    seen: undefined,
    isEnding: false,
    before: groove,
    gesture: kits.gesture(kitId),
    laid: [],
    waiting: [],
    stop: () => undefined,
  }
  pass = own
  takeState.setState({ isOn: true, count: 0 })
  if (!kits.store.getState().entries[kitId]?.doc.grooves.some(({ id }) => id === groove.id)) layIn(own) // what plays must be there
  if (!grooveState.getState().playing) startGroove(kitId)
  const stops = [onSounded((sounded) => listen(own, sounded)), onGrooveStops(() => void finishTake())]
  const stopClick = takeSettings.getState().hasClick ? startClick(player, () => tempoOf(kitId)) : undefined
  own.stop = () => {
    stops.forEach((stop) => stop())
    stopClick?.()
  }
}

/** The pass ends as soon as the engine has come past what was struck until now: a strike sounds a moment after the hand. */
export async function finishTake(): Promise<void> {
  const own = pass
  if (!own || own.isEnding) return
  own.isEnding = true
  await comePast(own.player)
  if (pass === own) endTake()
}

/** The pass is over at once: all that has sounded of it is in it. Returns the groove with all of it. */
export function endTake(): Groove | undefined {
  if (!pass) return undefined
  const own = pass
  pass = undefined
  own.stop()
  own.laid.push(...own.waiting)
  if (own.laid.length > 0) layIn(own)
  own.gesture.end()
  takeState.setState({ isOn: false })
  return withTake(own.before, own.laid, takeSettings.getState())
}

function tempoOf(kitId: KitId): number {
  const { leads, tempoBpm } = clockState.getState()
  return (leads ? tempoBpm : undefined) ?? kits.store.getState().entries[kitId]?.doc.tempoBpm ?? 120
}

/** A bead that is laid before its time would sound beside the strike that it is made of: it waits so long, in beats. */
const BEHIND_BEATS = 0.3

function listen(own: Pass, sounded: readonly Sounded[]): void {
  const tempoBpm = tempoOf(own.kitId)
  const now = beatNow(own, tempoBpm)
  if (now < 0) return
  for (const one of sounded) {
    if (one.cameBy !== 'hand' || !one.struckId || one.padId !== one.struckId) continue
    const beat = heardBeat(own.player, one.frame, tempoBpm, now)
    own.waiting.push({ padId: one.struckId, beat, velocity: one.velocity })
  }
  const due = own.waiting.filter(({ beat }) => beat < now - BEHIND_BEATS)
  if (due.length === 0) return
  own.waiting = own.waiting.filter((strike) => !due.includes(strike))
  own.laid.push(...due)
  layIn(own)
}

/** The beat that the engine is at; once the groove has stopped, where it would be. -1 before it began. */
function beatNow(own: Pass, tempoBpm: number): number {
  const { player } = own
  const beat = player.songBeat()
  const frame = player.frameNow()
  if (beat >= 0) own.seen = { beat, frame }
  if (beat >= 0 || !own.isEnding || !own.seen) return beat
  return own.seen.beat + ((frame - own.seen.frame) * tempoBpm) / 60 / player.sampleRateHz
}

function layIn({ gesture, before, laid }: Pass): void {
  const { isInstead, share } = takeSettings.getState()
  gesture.set([{ type: 'putGroove', groove: withTake(before, laid, { isInstead, share }) }])
  takeState.setState({ isOn: true, count: laid.length })
}

/** The beat that was heard when a hand struck what sounded on a frame, the engine being at `beatNow`: it sounds a burst after the hand, and is heard later than it is made. */
export function heardBeat(player: Pick<Player, 'frameNow' | 'sampleRateHz' | 'context' | 'clock'>, frame: number, tempoBpm: number, beatNow: number): number {
  const { outputLatency, baseLatency } = player.context
  const later = player.clock.burstFrames() + ((outputLatency || baseLatency || 0) + mixDelaySeconds(player.sampleRateHz)) * player.sampleRateHz
  return beatNow + ((frame - later - player.frameNow()) * tempoBpm) / 60 / player.sampleRateHz
} // prettier-ignore
