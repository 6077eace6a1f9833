import type { Audio } from '@heliaster/core/audio'
import type { GrooveChoice, KitLoader } from '@heliaster/core/engine'
import { clipsOfPad, filledPad, padSettings } from '@heliaster/core/kit'
import type { AudioHash, Kit, PadId } from '@heliaster/core/kit'
import { audioForNote, recipeOf } from '@heliaster/core/matter'

import { decodedAudio, isTooMuchAtHand, noteMissing, passingAudio } from '../files/audio-files'
import type { Passing } from '../files/audio-files'
import { bringAlong, hurry } from '../files/from-server'
import { letGo, tidy } from '../workers/let-go'
import { tidyCoreWork } from '../workers/workers'

/** How many files are read at once; more would only make those that are struck wait. */
const READERS = 3
/** The engine is told of so much at once that laying it out holds the page up for a moment only. */
const FRESH_FILES = 24
const FRESH_SAMPLES = 1 << 20
/** A strike whose sound comes later than this would come as a surprise. */
const LATEST_MS = 1500

interface Arriving {
  kit: Kit
  choice: GrooveChoice | undefined
  /** Files, in the order in which they are wanted. */
  readonly wanted: Set<AudioHash>
  readonly beingRead: Map<AudioHash, Promise<void>>
  /** Whether so much comes that what was laid out is not kept at hand besides. */
  isMuch: boolean
  /** What came so; wanted again, it stays at hand. */
  readonly passed: Set<AudioHash>
  /** Could not be had: asked for again when the kit is loaded again. */
  readonly failed: Set<AudioHash>
  /** Whether reading begins only when the screen stands. */
  waitsForQuiet: boolean
  /** Arrived, and not laid out yet. */
  readonly fresh: Map<AudioHash, Passing>
  /** Whether something came since all was there. */
  isComing: boolean
  /** How many files and samples arrived since the engine was last told. */
  freshFiles: number
  freshSamples: number
}

const arriving = new WeakMap<KitLoader, Arriving>()

/** Older programs that sound are given back within a quarter of a second. */
const AGAIN_MS = 60
const again = new WeakMap<KitLoader, ReturnType<typeof setTimeout>>()

const NO_MEMORY =
  'This device gives no more memory for sounds, so this one is silent. Close other pages and open the kit again, or take some pads out of it.'
const refusedBefore = new WeakMap<KitLoader, ReadonlySet<AudioHash>>()

/** Says which sounds there is no memory for, and no more of those that found some. */
function sayRefused(loader: KitLoader): void {
  const refused = loader.refused()
  for (const hash of refusedBefore.get(loader) ?? []) if (!refused.has(hash)) noteMissing(hash, undefined)
  for (const hash of refused) noteMissing(hash, NO_MEMORY)
  refusedBefore.set(loader, refused)
}

/** A kit that is new, and sounds as they come, are laid out for so long at a time, that the page takes taps in between. */
const SLICE_MS = 8
/** No more is read while so many times as much still waits to be laid out. */
const MOST_WAITING = 4

/** Loads a kit, what is left of it in a moment, and what found no room again until it has. `first` is a pad that is wanted now. */
function loadAll(kit: Kit, choice: GrooveChoice | undefined, loader: KitLoader, first?: PadId): boolean {
  clearTimeout(again.get(loader))
  const until = performance.now() + SLICE_MS
  let isOver = false
  const pace = { ...(first ? { first } : {}), isOver: () => (isOver ||= performance.now() > until) }
  const isWhole = loader.load(kit, choice, pace)
  sayRefused(loader)
  const state = arriving.get(loader)
  if (state) {
    const lacking = loader.lacking()
    letGoOfPlaced(state, lacking)
    wantMore(loader, state, lacking)
    if (isWhole) sayWhenAllArrived(state)
  }
  if (isWhole) return true
  again.set(
    loader,
    setTimeout(() => loadAll(kit, choice, loader), isOver ? 0 : AGAIN_MS),
  )
  return false
}

/** What the engine has need not be held any longer; what found no room yet, or was left for later, is tried again soon. */
function letGoOfPlaced({ fresh }: Arriving, lacking: ReadonlySet<AudioHash>): void {
  const placed = [...fresh].filter(([hash]) => !lacking.has(hash))
  for (const [hash, passing] of placed) {
    fresh.delete(hash)
    passing.done()
  }
  if (placed.length > 0) for (const listener of arrivedListeners) listener()
}

/** What was laid out since wants its files as well, after those that are wanted already. */
function wantMore(loader: KitLoader, state: Arriving, lacking: ReadonlySet<AudioHash>): void {
  const isKnown = (hash: AudioHash) => state.fresh.has(hash) || state.beingRead.has(hash) || state.failed.has(hash)
  for (const hash of lacking) if (!isKnown(hash)) state.wanted.add(hash)
  if (!state.waitsForQuiet) readOn(loader, state)
}

/** Loads what is decoded of a kit, as it is played, at once, and the rest as it comes, in the order of the pads. */
export function loadWhenReady(kit: Kit, choice: GrooveChoice | undefined, loader: KitLoader, fresh: Map<AudioHash, Passing>): void {
  const state = arriving.get(loader) ?? {
    kit,
    choice,
    wanted: new Set(),
    beingRead: new Map(),
    isMuch: false,
    passed: new Set(),
    failed: new Set(),
    waitsForQuiet: false,
    fresh,
    isComing: false,
    freshFiles: 0,
    freshSamples: 0,
  }
  if (state.kit.id !== kit.id) state.passed.clear()
  state.kit = kit
  state.choice = choice
  const isTooMuch = isTooMuchAtHand(Object.values(kit.audio).reduce((sum, { frames, channels }) => sum + frames * channels, 0))
  state.failed.clear()
  state.waitsForQuiet = true // until it is known how much there is to read
  state.wanted.clear()
  arriving.set(loader, state)
  bringAlong(() => [...new Set([...state.wanted].map((hash) => recipeOf(hash)?.clip.audio ?? hash))])
  const isWhole = loadAll(kit, choice, loader)
  state.waitsForQuiet = !isWhole || state.wanted.size > FRESH_FILES
  state.isMuch = isTooMuch && state.waitsForQuiet // what is wanted for an edit will be wanted for the next
  if (!state.waitsForQuiet) readOn(loader, state)
  else
    whenQuiet(() => {
      state.waitsForQuiet = false
      readOn(loader, state)
    })
}

/** Reading many files begins when the screen stands: what is struck before is read at once all the same. */
export function whenQuiet(then: () => void): void {
  if (typeof requestIdleCallback === 'function') requestIdleCallback(then, { timeout: 1000 })
  else setTimeout(then, 300)
}

const samplesOf = ({ channels }: Audio): number => channels.length * (channels[0]?.length ?? 0)

function isFull({ fresh }: Arriving): boolean {
  const samples = [...fresh.values()].reduce((sum, { audio }) => sum + samplesOf(audio), 0)
  return fresh.size >= MOST_WAITING * FRESH_FILES || samples >= MOST_WAITING * FRESH_SAMPLES
}

function readOn(loader: KitLoader, state: Arriving): void {
  for (const hash of state.wanted) {
    if (state.beingRead.size >= READERS || isFull(state)) break
    state.wanted.delete(hash)
    void read(state, hash).then(() => {
      const isEnough = state.freshFiles >= FRESH_FILES || state.freshSamples >= FRESH_SAMPLES
      if (isEnough || state.wanted.size + state.beingRead.size === 0) tellArrived(loader, state)
      readOn(loader, state)
    })
  }
}

/** Reads a file, once however often it is asked for meanwhile; one that cannot be had is noted. */
function read(state: Arriving, hash: AudioHash): Promise<void> {
  const before = state.beingRead.get(hash)
  if (before) return before
  const { frames, channels } = state.kit.audio[hash] ?? { frames: 0, channels: 0 }
  const isOnlyPassed = state.isMuch && !state.passed.has(hash)
  if (isOnlyPassed) state.passed.add(hash)
  const coming = isOnlyPassed ? passingAudio(hash, frames * channels) : decodedAudio(hash).then(({ audio }) => kept(audio))
  const reading = coming
    .then((passing) => keepFresh(state, hash, passing))
    .catch((error: Error) => {
      state.failed.add(hash)
      noteMissing(hash, error.message)
    })
    .finally(() => state.beingRead.delete(hash))
  state.beingRead.set(hash, reading)
  return reading
}

/** Audio that is at hand as well, as long as there is room for it. */
const kept = (audio: Audio): Passing => ({ audio, done: () => letGo(4 * samplesOf(audio)) })

/** Holds on to audio until the engine has it: the device's own cache may have let go of it by then. */
function keepFresh(state: Arriving, hash: AudioHash, passing: Passing): void {
  noteMissing(hash, undefined)
  state.fresh.set(hash, passing)
  state.isComing = true
  state.freshFiles++
  state.freshSamples += samplesOf(passing.audio)
}

const arrivedListeners = new Set<() => void>()

/** Told whenever sounds have come into the engine. Returns the way to stop. */
export function onArrived(listener: () => void): () => void {
  arrivedListeners.add(listener)
  return () => arrivedListeners.delete(listener)
}

/** `first` is a pad that was struck: what has come of it is laid out before all else. */
function tellArrived(loader: KitLoader, state: Arriving, first?: PadId): void {
  state.freshFiles = 0
  state.freshSamples = 0
  loadAll(state.kit, state.choice, loader, first)
}

/** Once the last of a kit is laid out, what lies about of it can go. */
function sayWhenAllArrived(state: Arriving): void {
  if (!state.isComing || state.wanted.size + state.beingRead.size + state.fresh.size > 0) return
  state.isComing = false
  performance.mark?.('heliaster-all-arrived') // what the bench waits for
  whenQuiet(() => tidy(state.isMuch))
  tidyCoreWork()
}

/**
 * A pad was struck whose sound is not here yet: its files are read before all others, and the strike sounds when they
 * have come, unless that took too long. Returns whether the strike has to wait.
 */
export function fetchFirst(
  loader: KitLoader,
  { padId, velocity, note }: { readonly padId: PadId; readonly velocity: number; readonly note?: number },
  then: () => void,
): boolean {
  const state = arriving.get(loader)
  const pad = state?.kit.pads.find(({ id }) => id === padId)
  if (!state || !pad) return false
  if (!loader.isLaidOut(padId)) loadAll(state.kit, state.choice, loader, padId)
  else if (state.wanted.size + state.beingRead.size === 0) return false
  const band = pad.bands.findLast(({ fromVelocity }) => fromVelocity <= velocity)
  const needed = clipsOfPad(band ? { ...pad, bands: [band] } : filledPad(state.kit, pad)).flatMap((clip) =>
    audioForNote(clip, note, padSettings(state.kit, pad).rootNote),
  )
  const lacking = loader.lacking()
  const missing = [...new Set(needed)].filter((hash) => lacking.has(hash) && !state.fresh.has(hash))
  if (missing.length === 0) {
    if (state.fresh.size > 0) tellArrived(loader, state, padId)
    return false
  }
  const struckAt = performance.now()
  for (const hash of missing) {
    state.wanted.delete(hash)
    hurry(hash)
  }
  void Promise.all(missing.map((hash) => read(state, hash))).then(() => {
    tellArrived(loader, state, padId)
    if (performance.now() - struckAt < LATEST_MS) then()
  })
  return true
}
