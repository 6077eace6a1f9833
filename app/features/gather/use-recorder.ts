import type { Audio } from '@heliaster/core/audio'
import { useCallback, useEffect, useRef, useState } from 'react'

import { keepRecording } from '../../audio/import'
import { startRecording } from '../../audio/recorder'
import type { InputKind, Recording } from '../../audio/recorder'
import { sources } from '../../stores/documents'
import { notify } from '../../ui/notices'
import { createHitCounter } from './hit-counter'

export type RecorderState = 'idle' | 'starting' | 'recording' | 'keeping'

/** What the meter and the running picture read, frame by frame; never React state. */
export interface Moment {
  peaks: number[]
  hits: number[]
  peak: number
  held: number
  clipped: boolean
  seconds: number
}

const emptyMoment = (): Moment => ({ peaks: [], hits: [], peak: 0, held: 0, clipped: false, seconds: 0 })

/** One recording after another: starts at once, and hands each over when it is stopped. */
export function useRecorder(onTaken: (source: Awaited<ReturnType<typeof keepRecording>>) => void) {
  const [state, setState] = useState<RecorderState>('idle')
  const [problem, setProblem] = useState<string>()
  const recording = useRef<Recording>(undefined)
  const moment = useRef<Moment>(emptyMoment())

  const stop = useCallback(async () => {
    const running = recording.current
    recording.current = undefined
    if (!running) return
    setState('keeping')
    try {
      const audio = await running.stop()
      if (audio) onTaken(await keepRecording(audio, freeRecordingName()))
      else notify('Nothing came in, so nothing was recorded. Check the input and try again.')
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error))
    }
    setState('idle')
  }, [onTaken])

  const start = useCallback(
    async (input: InputKind) => {
      setProblem(undefined)
      setState('starting')
      moment.current = emptyMoment()
      let counter: ReturnType<typeof createHitCounter> | undefined
      try {
        recording.current = await startRecording(input, {
          onPiece(channels) {
            counter ??= createHitCounter(recording.current?.sampleRateHz ?? 48000)
            takePiece(moment.current, channels, recording.current?.sampleRateHz ?? 48000, counter)
          },
          onEnded(reason) {
            notify(reason)
            void stop()
          },
        })
        setState('recording')
      } catch (error) {
        setProblem(error instanceof Error ? error.message : String(error))
        setState('idle')
      }
    },
    [stop],
  )

  useEffect(
    () => () => void recording.current?.stop().then((audio: Audio | undefined) => audio && keepRecording(audio, freeRecordingName())),
    [],
  )
  return { state, problem, moment, start, stop }
}

function takePiece(
  moment: Moment,
  channels: readonly Float32Array[],
  sampleRateHz: number,
  counter: ReturnType<typeof createHitCounter>,
): void {
  let peak = 0
  for (const channel of channels) for (let i = 0; i < channel.length; i++) peak = Math.max(peak, Math.abs(channel[i]))
  moment.peak = peak
  moment.held = Math.max(moment.held * 0.995, peak)
  if (peak >= 0.999) moment.clipped = true
  moment.peaks.push(peak)
  moment.seconds += channels[0].length / sampleRateHz
  moment.hits = counter.take(channels[0])
}

function freeRecordingName(): string {
  const taken = new Set(Object.values(sources.store.getState().entries).map((entry) => entry.doc.name))
  let n = 1
  while (taken.has(`Recording ${n}`)) n++
  return `Recording ${n}`
}
