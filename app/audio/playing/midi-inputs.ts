import { controlNumbers } from '@heliaster/core/engine'
import { bendShare } from '@heliaster/core/groove'
import { notesOfPads } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../../ui/device/device-settings'
import type { Player } from '../engine/player'
import { releasePad, sound, strikePad } from '../engine/sound'

interface MidiState {
  /** `none`: this browser has no MIDI. `refused`: it was not allowed. */
  readonly status: 'off' | 'asking' | 'on' | 'none' | 'refused'
  /** Inputs that are there now, by the names their makers gave them. */
  readonly devices: readonly string[]
  /** What came last, in words. */
  readonly heard?: string
}

export const midiState = createStore<MidiState>(() => ({ status: 'off', devices: [] }))

/** Whether pads are played from MIDI on this device, once that was asked for. */
const wish = deviceSettings('heliaster-midi', z.object({ isOn: z.boolean() }), { isOn: false })

/** What a message of an input does, apart from any device: the player's part of it. */
export interface MidiTarget {
  strike(padId: PadId, velocity: number, note: number, key: number): void
  release(padId: PadId, key: number): void
  readonly player: Pick<Player, 'moveControl' | 'press' | 'stopAll'> | undefined
}

const FIRST_KEY = 2000
const noteWords = (note: number, velocity: number) => `note ${note}, ${velocity} hard`

/** Lets one message act, as the MIDI standard says it; returns what it was, in words, or nothing for what is not played. */
export function takeMidi(message: Uint8Array, kit: Kit | undefined, target: MidiTarget): string | undefined {
  const [status, first = 0, second = 0] = message
  const channel = status & 15
  const padsOf = (note: number) => (kit ? [...notesOfPads(kit)].filter(([, notes]) => notes.includes(note)).map(([padId]) => padId) : [])
  const key = FIRST_KEY + 128 * channel + first
  switch (status >> 4) {
    case 9:
      if (second > 0) {
        for (const padId of padsOf(first)) target.strike(padId, second, first, key)
        return noteWords(first, second)
      }
      for (const padId of padsOf(first)) target.release(padId, key)
      return undefined
    case 8:
      for (const padId of padsOf(first)) target.release(padId, key)
      return undefined
    case 10:
      for (const padId of padsOf(first)) target.player?.press(padId, second / 127)
      return `pressure ${second} on note ${first}`
    case 11:
      if (first === 120 || first === 123) target.player?.stopAll()
      else if (first < 120) target.player?.moveControl(first, second)
      return first < 120 ? `${first === controlNumbers.wheel ? 'wheel' : `controller ${first}`} at ${second}` : 'all notes off'
    case 13:
      target.player?.moveControl(controlNumbers.pressure, first / 127)
      return `pressure ${first}`
    case 14: {
      const bend = ((second << 7) | first) - 8192
      target.player?.moveControl(controlNumbers.bend, bendShare(bend))
      return `bend at ${bend}`
    }
    default:
      return undefined
  }
}

const target: MidiTarget = {
  strike: (padId, velocity, note, key) => strikePad({ padId, velocity, note, key }),
  release: releasePad,
  get player() {
    return sound.getState().player
  },
}

let access: MIDIAccess | undefined
let kitNow: () => Kit | undefined = () => undefined

/** Plays a kit's pads from MIDI, where that was asked for before. Returns the way to stop. */
export function connectMidi(kit: () => Kit | undefined): () => void {
  kitNow = kit
  if (wish.getState().isOn) void switchMidi(true)
  return () => {
    kitNow = () => undefined
  }
}

/** Asks for MIDI and listens to all inputs, those that are plugged in later too; or listens no more. */
export async function switchMidi(isOn: boolean): Promise<void> {
  wish.setState({ isOn })
  if (!isOn) {
    for (const input of access?.inputs.values() ?? []) input.onmidimessage = null
    access = undefined
    midiState.setState({ status: 'off', devices: [], heard: undefined })
    return
  }
  if (typeof navigator.requestMIDIAccess !== 'function') {
    midiState.setState({ status: 'none' })
    return
  }
  midiState.setState({ status: 'asking' })
  try {
    access = await navigator.requestMIDIAccess()
    access.onstatechange = listen
    listen()
  } catch {
    midiState.setState({ status: 'refused' })
  }
}

function listen(): void {
  const inputs = [...(access?.inputs.values() ?? [])].filter(({ state }) => state === 'connected')
  for (const input of inputs)
    input.onmidimessage = ({ data }) => {
      const heard = data && takeMidi(data, kitNow(), target)
      if (heard) midiState.setState({ heard })
    }
  midiState.setState({ status: 'on', devices: inputs.map(({ name }, i) => name || `Input ${i + 1}`) })
}
