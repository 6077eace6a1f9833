import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../../../ui/device/device-settings'
import { connectClock, takeClock } from './midi-clock'
import { handsState, inputIsGone, takeMessage } from './hands'

interface MidiState {
  /** `none`: this browser has no MIDI. `refused`: it was not allowed. */
  readonly status: 'off' | 'asking' | 'on' | 'none' | 'refused'
  /** Inputs that are there now, by the names their makers gave them. */
  readonly devices: readonly string[]
  /** Outputs, in the same way. */
  readonly outputs: readonly string[]
}

export const midiState = createStore<MidiState>(() => ({ status: 'off', devices: [], outputs: [] }))

/** Whether pads are played from MIDI on this device, once that was asked for. */
const wish = deviceSettings('heliaster-midi', z.object({ isOn: z.boolean() }), { isOn: false })

let access: MIDIAccess | undefined
let isConnected = false

/** Plays the open kit from MIDI, where that was asked for before. Returns the way to stop. */
export function connectMidi(): () => void {
  isConnected = true
  if (wish.getState().isOn && midiState.getState().status !== 'on') void switchMidi(true)
  const endClock = connectClock(sendTo)
  return () => {
    endClock()
    isConnected = false
    for (const input of midiState.getState().devices) inputIsGone(input)
  }
}

/** Asks for MIDI and listens to all inputs, those that are plugged in later too; or listens no more. */
export async function switchMidi(isOn: boolean): Promise<void> {
  wish.setState({ isOn })
  if (!isOn) return stopListening()
  if (typeof navigator.requestMIDIAccess !== 'function') return midiState.setState({ status: 'none' })
  midiState.setState({ status: 'asking' })
  try {
    access = await navigator.requestMIDIAccess()
    if (!wish.getState().isOn) return stopListening() // thought better of while the browser asked
    access.onstatechange = listen
    listen()
  } catch {
    midiState.setState({ status: 'refused' })
  }
}

function stopListening(): void {
  for (const input of access?.inputs.values() ?? []) input.onmidimessage = null
  if (access) access.onstatechange = null
  access = undefined
  for (const input of midiState.getState().devices) inputIsGone(input)
  midiState.setState({ status: 'off', devices: [], outputs: [] })
  handsState.setState({ heard: undefined })
}

/** Listens to the inputs there are; what one held that is gone is let go. */
function listen(): void {
  const inputs = [...(access?.inputs.values() ?? [])].filter(({ state }) => state === 'connected')
  const devices = namesOf(inputs)
  inputs.forEach((input, i) => {
    input.onmidimessage = ({ data, timeStamp }) => {
      if (data && isConnected && !takeClock(devices[i]!, data, timeStamp)) takeMessage(devices[i]!, data, timeStamp)
    }
  })
  for (const before of midiState.getState().devices) if (!devices.includes(before)) inputIsGone(before)
  midiState.setState({ status: 'on', devices, outputs: namesOf(outputsNow()) })
}

const outputsNow = (): MIDIOutput[] => [...(access?.outputs?.values() ?? [])].filter(({ state }) => state === 'connected')

/** Sends bytes to an output by its name; nothing where it is gone. */
function sendTo(output: string, bytes: readonly number[], atMs: number): void {
  const outputs = outputsNow()
  outputs[namesOf(outputs).indexOf(output)]?.send([...bytes], Math.max(atMs, performance.now()))
}

/** Names of ports, each its own: the second of two alike ones is number 2. */
function namesOf(inputs: readonly MIDIPort[]): string[] {
  const seen = new Map<string, number>()
  return inputs.map(({ name }, i) => {
    const own = name || `Device ${i + 1}`
    const count = (seen.get(own) ?? 0) + 1
    seen.set(own, count)
    return count === 1 ? own : `${own} ${count}`
  })
}
