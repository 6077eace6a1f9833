import type { Band, BusId, Clip, Groove, GrooveId, InsertId, Kit, Pad, PadId, RayId, Turn } from '@heliaster/core/kit'
import { createBand, createKit, createPad, createTurn } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { makeId } from '../../documents/make-id'
import { decodedAudio } from '../files/audio-files'
import { coreWork } from '../workers/workers'
import { outputsLater } from './outputs-later'
import type { Player, Sounded, Strike } from './player'
import { playerLater } from './player-later'
import { soloed, withSolo } from './solo'

/** The moment: what the engine does now. Polled, and never kept at audio rate in React. */
export interface SoundState {
  readonly player?: Player
  /** Why there is no sound, when there is none. */
  readonly problem?: string
}

export const sound = createStore<SoundState>(() => ({}))

/** Told of all that sounded since the last picture of the screen, in its order. */
type SoundedListener = (sounded: readonly Sounded[]) => void
const listeners = new Set<SoundedListener>()
let openKit: Kit | undefined
let auditionKit: Kit | undefined

/** How often it is looked what sounded: about once for each picture of the screen, but without asking for one. */
const LOOK_MS = 15
/** As often where it may not sound yet, before the first touch. */
const WAITING_MS = 60
/** How often it is asked whether to sleep where no pictures are drawn. */
const UNSEEN_MS = 5000

let isStarted = false

/** Starts the engine, the first time it is asked for; every first touch lets it sound. */
export async function startSound(): Promise<void> {
  if (isStarted) return
  isStarted = true
  try {
    const { createPlayer } = await playerLater()
    const player = await createPlayer()
    sound.setState({ player })
    if (openKit) load(openKit)
    coreWork() // what decodes the first sound is there when it is struck
    void outputsLater().then(({ takeUpOutputs }) => takeUpOutputs())
    const wake = () => void player.resume()
    for (const type of ['pointerdown', 'keydown', 'touchend']) window.addEventListener(type, wake, { capture: true })
    let late = 0
    let next: ReturnType<typeof setTimeout> | undefined
    const poll = () => {
      const { lateBlocks } = player.losses()
      if (lateBlocks > late) performance.mark('heliaster-late', { detail: (late = lateBlocks) })
      player.seeClock()
      const sounded = player.takeSounded()
      if (sounded.length > 0) for (const listener of listeners) listener(sounded)
      if (!player.sleep.rests()) next = setTimeout(poll, player.context.state === 'running' ? LOOK_MS : WAITING_MS)
    }
    /** One poll at a time, whoever wakes it. */
    const begin = () => {
      clearTimeout(next)
      next = setTimeout(poll, LOOK_MS)
    }
    player.sleep.onWake(begin)
    begin()
    setInterval(() => player.sleep.rests(), UNSEEN_MS) // a page out of sight draws no pictures, and sleeps all the same
  } catch (error) {
    sound.setState({ problem: error instanceof Error ? error.message : String(error) })
  }
}

export { soloed, toggleSolo } from './solo'
soloed.subscribe(() => playKit(openKit))

/** What is open and not taken up yet. */
let later: ReturnType<typeof setTimeout> | undefined

/** Keeps the engine in step with the kit that is open; one that was not open before is taken up once it is drawn, or at once when it is struck. */
export function playKit(kit: Kit | undefined): void {
  const isOther = kit?.id !== openKit?.id
  openKit = kit
  tried = undefined
  clearTimeout(later)
  later = undefined
  if (!kit) return
  if (isOther) later = setTimeout(takeUp)
  else load(kit)
  void startSound()
}

function takeUp(): void {
  if (later === undefined) return
  clearTimeout(later)
  later = undefined
  if (openKit) load(openKit)
}

/** The kit that is open as it would be, while that is heard. */
let tried: Kit | undefined

/** Plays the kit that is open as it would be, until it is called without one or the kit changes; nothing of it is kept. */
export function tryKit(kit: Kit | undefined): void {
  tried = kit
  if (openKit) load(openKit)
}

let choice: GrooveId | 'song' | undefined

/** Chooses the groove that plays, or the song; where a kit has no groove of this id, its first one. */
export function playGrooveOf(given: GrooveId | 'song' | undefined): void {
  if (choice === given) return
  choice = given
  if (openKit) load(openKit)
}

function load(kit: Kit): void {
  const plays = choice === 'song' ? 'song' : kit.grooves.find(({ id }) => id === choice) ? choice : kit.grooves[0]?.id
  sound.getState().player?.load(withAudition(tried ?? kit), plays, kit)
  for (const listener of loadedListeners) listener()
}

const loadedListeners = new Set<() => void>()

/** Told whenever the engine was brought in step with a kit. */
export function onLoaded(listener: () => void): () => void {
  loadedListeners.add(listener)
  return () => loadedListeners.delete(listener)
}

let isTrying = false

/**
 * Plays a groove on the pads of the kit that is open without it being one of that kit's; ends when it is called without one, and
 * leaves the kit's own groove alone where none is tried.
 */
export function hearGroove(groove: Groove | undefined): void {
  const { player } = sound.getState()
  if (!player || !openKit || (!groove && !isTrying)) return
  takeUp()
  isTrying = groove !== undefined
  player.stopGroove()
  if (!groove) return load(openKit)
  player.load({ ...openKit, grooves: [groove], song: [] }, groove.id, openKit)
  void player.resume()
  player.beginGroove()
}

/** The kit that is open. */
export const kitNow = (): Kit | undefined => openKit

type WaitingListener = (padId: PadId) => void
const waitingListeners = new Set<WaitingListener>()

/** Strikes a pad; returns whether the strike waits for its sound to arrive. */
export function strikePad(strike: Strike): boolean {
  takeUp()
  const waits = sound.getState().player?.strike(strike) ?? false
  if (waits) for (const listener of waitingListeners) listener(strike.padId)
  return waits
}

/** Told of strikes whose sound is still on its way. */
export function onWaiting(listener: WaitingListener): () => void {
  waitingListeners.add(listener)
  return () => waitingListeners.delete(listener)
}

export function releasePad(padId: PadId, key: number, frame?: number): void {
  sound.getState().player?.release(padId, key, frame)
}

export function onSounded(listener: SoundedListener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

const AUDITION = 'pad-audition' as PadId

/** Sounds a clip by itself, through the same engine as the pads. A new one takes the place of the last. */
export async function hearClip(clip: Clip, gainDb = 0): Promise<void> {
  const { player } = sound.getState()
  if (!player) return
  await decodedAudio(clip.audio)
  const pad = { ...createPad(makeId, { maxStrikes: 1, responses: [] }), id: AUDITION }
  const bands = [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0].id]: { ...clip, gainDb: clip.gainDb + gainDb } })])]
  auditionKit = { ...createKit(makeId, ''), pads: [{ ...pad, bands }] }
  load(openKit ?? createKit(makeId, ''))
  player.strike({ padId: AUDITION, velocity: 127 })
}

/** Sounds one ray of a pad by itself, as the pad would strike it. */
export function hearRay(pad: Pad, rayId: RayId, velocity = 100): void {
  const { player } = sound.getState()
  if (!player || !openKit) return
  const alone = pad.rays.map((ray) => ({ ...ray, mute: ray.id !== rayId }))
  auditionKit = { ...openKit, pads: [{ ...pad, id: AUDITION, notes: [], own: { ...pad.own, mute: false }, rays: alone }] }
  load(openKit)
  player.strike({ padId: AUDITION, velocity })
}

/** Sounds a pad as it was, or as only part of it is, at another level. */
export function hearVersion(pad: Pad, gainDb = 0, velocity = 100): void {
  const { player } = sound.getState()
  if (!player || !openKit) return
  const rays = pad.rays.map((ray) => ({ ...ray, values: { ...ray.values, gainDb: (ray.values.gainDb ?? 0) + gainDb } }))
  auditionKit = { ...openKit, pads: [{ ...pad, id: AUDITION, notes: [], rays }] }
  load(openKit)
  player.strike({ padId: AUDITION, velocity })
}

/** Sounds one turn of a pad with all its rays, whatever would be next. */
export function hearTurn(pad: Pad, turn: Turn, band: Band, velocity = 100): void {
  const { player } = sound.getState()
  if (!player || !openKit) return
  const rays = pad.rays.filter((ray) => ray.source.kind !== 'clips' || !ray.source.bands)
  const bands = [{ ...band, fromVelocity: 1, blendVelocities: 0, turns: [turn] }]
  auditionKit = { ...openKit, pads: [{ ...pad, id: AUDITION, notes: [], own: { ...pad.own, mute: false }, rays, bands }] }
  load(openKit)
  player.strike({ padId: AUDITION, velocity })
}

function withAudition(kit: Kit): Kit {
  const played = withSolo(kit)
  return auditionKit ? { ...played, pads: [...played.pads, auditionKit.pads[0]] } : played
}

/** How fast a meter falls back, dB a second. */
const FALL_DB_PER_SECOND = 26
const levels = new Map<PadId, { readonly peaks: Float64Array; at: number; soundedAt: number }>()
/** What is softer is not heard any more; and what was not that loud for so long has died away. */
const HEARD = 0.001
const DIED_AWAY_MS = 140

/**
 * The level of a pad's rays now, 0..1 and above: highest sample, falling back slowly. The engine's own meters are read
 * once for all who look within a frame.
 */
export function raysLevel(padId: PadId): Float64Array {
  const now = performance.now()
  const held = levels.get(padId) ?? { peaks: new Float64Array(32), at: now, soundedAt: -Infinity }
  levels.set(padId, held)
  if (now - held.at < 12 && now !== held.at) return held.peaks
  const fall = 10 ** ((-FALL_DB_PER_SECOND * (now - held.at)) / 20000)
  const peaks = sound.getState().player?.takePeaks(padId)
  for (let ray = 0; ray < held.peaks.length; ray++) held.peaks[ray] = Math.max(peaks?.[ray] ?? 0, held.peaks[ray] * fall)
  if (peaks?.some((peak) => peak > HEARD)) held.soundedAt = now
  held.at = now
  return held.peaks
}

/** Whether a pad is heard now. */
export function padSounds(padId: PadId): boolean {
  raysLevel(padId)
  return performance.now() - (levels.get(padId)?.soundedAt ?? -Infinity) < DIED_AWAY_MS
}

const busLevels = new Map<BusId | 'master', { peak: number; at: number }>()

/** The level of a bus now, or of the master, in the same way. */
export function busLevel(busId?: BusId): number {
  const now = performance.now()
  const held = busLevels.get(busId ?? 'master') ?? { peak: 0, at: now }
  busLevels.set(busId ?? 'master', held)
  const fall = 10 ** ((-FALL_DB_PER_SECOND * (now - held.at)) / 20000)
  held.peak = Math.max(sound.getState().player?.takeBusPeak(busId) ?? 0, held.peak * fall)
  held.at = now
  return held.peak
}

/** By how many dB an effect lowers now: the most since this was asked last. */
export function takenByEffect(insertId: InsertId, busId?: BusId): number {
  return sound.getState().player?.takeReduction(insertId, busId) ?? 0
}
