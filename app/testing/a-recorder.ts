import type { Source } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import type { Recorder, RecorderSettings } from '../audio/recording/recorder'

const usual: RecorderSettings = {
  input: 'microphone',
  channels: 'stereo',
  waitsForSound: false,
  thresholdDb: -36,
  silenceSeconds: 0,
  listens: true,
}
const closed: Recorder = { state: 'closed', settings: usual, onDisk: true }
let onTaken: ((source: Source) => void) | undefined

/** Stands in for audio/recording/recorder: the same store, and takes that hold what a test gives them. */
export const recorder = createStore<Recorder>(() => closed)
export const changeRecorder = (changes: Partial<RecorderSettings>) =>
  recorder.setState(({ settings }) => ({ settings: { ...settings, ...changes } }))
export const arm = jest.fn(() => Promise.resolve(recorder.setState({ state: 'armed', label: 'The deck' })))
export const startTake = jest.fn((taken: (source: Source) => void) => {
  onTaken = taken
  recorder.setState({ state: 'recording' })
  return Promise.resolve()
})
export const stopTake = jest.fn(() => Promise.resolve(recorder.setState({ state: 'closed' })))
export const journalWork = jest.fn()
export const freeName = (stem: string) => `${stem} 1`

/** The take that runs has become this sound. */
export function taken(source: Source): void {
  recorder.setState({ state: 'closed' })
  onTaken?.(source)
}

export function resetRecorder(): void {
  recorder.setState(closed, true)
  onTaken = undefined
  for (const one of [arm, startTake, stopTake, journalWork]) one.mockClear()
}
