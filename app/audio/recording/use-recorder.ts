import { useEffect } from 'react'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { mayListen } from './inputs'
import { preparePractice } from './practice-microphone'
import { arm, disarm, recorder } from './recorder'
import type { Recorder } from './recorder'

/** How many screens with a record button are seen; with none, a line elsewhere says that a recording goes on. */
export const recordScreens = createStore<{ count: number }>(() => ({ count: 0 }))

/**
 * The recorder while a screen with a record button is seen. The input is open for its level and for the second before
 * the press, where that needs no question to be asked; away from the screen, or hidden, it is let go. A take goes on.
 */
export function useRecorder(): Recorder {
  const state = useStore(recorder)
  const { input, listens } = state.settings
  useEffect(() => {
    const count = (by: number) => recordScreens.setState((now) => ({ count: now.count + by }))
    count(1)
    return () => count(-1)
  }, [])
  useEffect(() => {
    if (input === 'practice') void preparePractice()
    let gone = false
    const listen = async () => {
      if (document.hidden) return void disarm()
      const { state: now, settings, problem } = recorder.getState()
      if (gone || now !== 'closed' || !settings.listens || problem) return
      if (settings.input !== 'microphone' || (await mayListen())) if (!gone && recorder.getState().state === 'closed') await arm()
    }
    void listen()
    // What could not be opened is tried again once its input is chosen again.
    const stop = recorder.subscribe((now, before) => {
      if (now.state === 'closed' && (before.state !== 'closed' || (before.problem && !now.problem))) void listen()
    })
    const onVisible = () => void listen()
    document.addEventListener('visibilitychange', onVisible)
    return () => {
      gone = true
      stop()
      document.removeEventListener('visibilitychange', onVisible)
      void disarm()
    }
  }, [input, listens])
  return state
}
