import { controlNumbers } from '@heliaster/core/engine'
import { createHeld, readMessage, velocityThrough } from '@heliaster/core/hands'
import type { HandMessage } from '@heliaster/core/hands'
import { padsOfNotes } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { kitNow, releasePad, sound, strikePad } from '../../engine/sound'
import { FINGERS, handSettings, settingsOfInput } from './hand-settings'
import { begins, ends } from './in-time'
import { leadTiller } from './tillers'
import { noteStrike } from './timing'

/** The last strike of an input. */
export interface Stroke {
  /** Velocity 1..127 as it came, and as it sounds. */
  readonly came: number
  readonly velocity: number
  /** How many strikes came before it, so that two alike ones are told apart. */
  readonly count: number
}

interface HandsState {
  readonly strokes: Readonly<Record<string, Stroke>>
  /** What came last from inputs that speak MIDI, in words. */
  readonly heard?: string
  /** Where wheels, pedals and pressures stand, each as the engine counts it; and the pressure on a pad's own key, 0..1. */
  readonly controls: Readonly<Record<number, number>>
  readonly keyPressures: Readonly<Record<PadId, number>>
}

export const handsState = createStore<HandsState>(() => ({ strokes: {}, controls: {}, keyPressures: {} }))

const FIRST_KEY = 1000
const held = createHeld(
  {
    strike: (padId, velocity, key, note, atMs) => {
      const frame = begins(padId, key)
      const steadyAtMs = frame === undefined && handSettings.getState().isSteady ? atMs : undefined
      const waits = strikePad({ padId, velocity, key, note, steadyAtMs, ...(frame === undefined ? {} : { frame }) })
      if (atMs !== undefined && !waits && frame === undefined) noteStrike(padId, atMs)
    },
    release: (padId, key) => releasePad(padId, key, ends(padId, key)),
  },
  FIRST_KEY,
)

export interface HandStroke {
  readonly input: string
  /** Names the finger or key, so that letting go reaches what it struck. */
  readonly key: string
  readonly padIds: readonly PadId[]
  /** Velocity 1..127 as it came. */
  readonly came: number
  readonly note?: number
  /** When the hand struck, in ms of the page's clock. */
  readonly atMs?: number
}

/** Strikes pads, as strong as the velocity curve of the input makes it. The strike leaves before anything is drawn. */
export function strikeByHand({ input, key, padIds, came, note, atMs }: HandStroke): void {
  const velocity = velocityThrough(settingsOfInput(input).curve, Math.min(127, Math.max(1, Math.round(came))))
  held.strike({ input, key, padIds, velocity, note, atMs })
  const { strokes } = handsState.getState()
  handsState.setState({ strokes: { ...strokes, [input]: { came, velocity, count: (strokes[input]?.count ?? 0) + 1 } } })
}

export function letGoByHand(input: string, key: string): void {
  held.release(input, key)
}

/** Lets go of all that an input holds, since it is gone or cannot tell any more; of every input without one. */
export function letGoAll(input?: string): void {
  held.letGo(input)
}

let notes: { readonly kit: Kit; readonly pads: ReadonlyMap<number, readonly PadId[]> } | undefined

/** The pads that a note strikes in the kit that is open. */
export function padsOfNote(note: number): readonly PadId[] {
  const kit = kitNow()
  if (!kit) return []
  if (notes?.kit !== kit) notes = { kit, pads: padsOfNotes(kit) }
  return notes.pads.get(note) ?? []
}

/** Strikes a note and all pads that answer it. */
export function playNote(input: string, note: number, came: number, key = String(note), atMs?: number): void {
  strikeByHand({ input, key, padIds: padsOfNote(note), came, note, atMs })
}

type NoteListener = (note: number, input: string) => void
const noteListeners = new Set<NoteListener>()

/** Told of each note that comes from an input, whether a pad answers it or not: to learn from. Returns the way to stop. */
export function onNote(listener: NoteListener): () => void {
  noteListeners.add(listener)
  return () => noteListeners.delete(listener)
}

const controllerListeners = new Set<(number: number, input: string) => void>()

/** Told of each controller that is moved, to learn from. Returns the way to stop. */
export function onController(listener: (number: number, input: string) => void): () => void {
  controllerListeners.add(listener)
  return () => controllerListeners.delete(listener)
}

/** Controls that go back to where they rest when their input is gone. */
const RESTING = [controlNumbers.bend, controlNumbers.pressure, controlNumbers.pedal]
const moved = new Map<string, Set<number>>()

function move(input: string, control: number, value: number): void {
  sound.getState().player?.moveControl(control, value)
  handsState.setState(({ controls }) => ({ controls: { ...controls, [control]: value } }))
  if (RESTING.includes(control as never)) moved.set(input, (moved.get(input) ?? new Set()).add(control))
}

/** How hard pads are pressed, 0..1. */
function press(padIds: readonly PadId[], pressure: number): void {
  for (const padId of padIds) sound.getState().player?.press(padId, pressure)
  handsState.setState(({ keyPressures }) => ({ keyPressures: { ...keyPressures, ...Object.fromEntries(padIds.map((id) => [id, pressure])) } })) // prettier-ignore
}

/**
 * A finger that moves on a pad that goes on while it is held: from left to right is the wheel, upward presses harder;
 * both 0..1. Let go it presses no more, and the wheel stays.
 */
export function leadByHand(padId: PadId, across: number, up: number): void {
  move(FINGERS, controlNumbers.wheel, Math.round(127 * Math.min(1, Math.max(0, across))))
  press([padId], Math.min(1, Math.max(0, up)))
}

export const pressNoMore = (padId: PadId): void => press([padId], 0)

/** An input is gone: nothing of it sounds on, nothing stays bent, pressed or trodden. */
export function inputIsGone(input: string): void {
  held.letGo(input)
  for (const control of [...(moved.get(input) ?? [])]) move(input, control, 0)
  moved.delete(input)
}

/** Lets one message of an input act, as the MIDI standard says it. */
export function takeMessage(input: string, bytes: Uint8Array, atMs?: number): void {
  const message = readMessage(bytes)
  const { isOn, channel } = settingsOfInput(input)
  if (!message || !isOn || (channel !== 0 && channel !== message.channel)) return
  act(input, message, atMs)
  const heard = wordsOf(message)
  if (heard) handsState.setState({ heard: `${heard}, channel ${message.channel}, ${input}` })
}

const HALF_DOWN = 64

function act(input: string, message: HandMessage, atMs: number | undefined): void {
  switch (message.type) {
    case 'noteOn':
      playNote(input, message.note, message.velocity, `${message.channel} ${message.note}`, atMs)
      for (const listener of noteListeners) listener(message.note, input)
      return
    case 'noteOff':
      return held.release(input, `${message.channel} ${message.note}`)
    case 'keyPressure': {
      const struck = held.padsOf(input, `${message.channel} ${message.note}`)
      const padIds = struck.length > 0 ? struck : padsOfNote(message.note)
      const pressure = message.pressure / 127
      return press(padIds, pressure)
    }
    case 'controller':
      if (message.number === controlNumbers.pedal) held.pedal(input, message.value >= HALF_DOWN)
      for (const listener of controllerListeners) listener(message.number, input)
      for (const [place, number] of Object.entries(handSettings.getState().tillers))
        if (number === message.number) leadTiller(kitNow(), Number(place), message.value / 127)
      return move(input, message.number, message.value)
    case 'pressure':
      return move(input, controlNumbers.pressure, message.pressure / 127)
    case 'bend':
      return move(input, controlNumbers.bend, message.bend)
    case 'allOff':
      held.letGo(input)
      sound.getState().player?.stopAll()
  }
}

const CONTROLLERS: Readonly<Record<number, string>> = { 1: 'wheel', 64: 'pedal' }

/** What a message was, in words; nothing for the end of a note. */
export function wordsOf(message: HandMessage): string | undefined {
  switch (message.type) {
    case 'noteOn':
      return `note ${message.note}, ${message.velocity} hard`
    case 'noteOff':
      return undefined
    case 'keyPressure':
      return `pressure ${message.pressure} on note ${message.note}`
    case 'controller':
      return `${CONTROLLERS[message.number] ?? `controller ${message.number}`} at ${message.value}`
    case 'pressure':
      return `pressure ${message.pressure}`
    case 'bend':
      return `bend at ${Math.round(message.bend * 100)} %`
    case 'allOff':
      return 'all notes off'
  }
}
