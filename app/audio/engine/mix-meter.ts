import type { MixReading } from '@heliaster/core/audio'
import { useEffect } from 'react'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import type { FromMeter, ToMeter } from '../../../core/engine/hosts/messages'
import type { Player } from './player'
import { sound } from './sound'

/** The engine's second output: the mix before the limiter, which would hide what is too loud. */
const MIX_OUTPUT = 1
/** Above this a level is marked, and stays so until the mark is taken off: full scale. */
const CLIPPED_DB = 0

interface MeterState {
  readonly reading: MixReading | undefined
  /** The highest true peak since the marks were cleared, dB. */
  readonly highestDb: number
  readonly hasClipped: boolean
  /** Pads and buses that were above full scale, by their ids. */
  readonly over: readonly string[]
}

const nothing: MeterState = { reading: undefined, highestDb: -Infinity, hasClipped: false, over: [] }

/** What the mix measures: told ten times a second while someone looks. */
export const mixMeter = createStore<MeterState>(() => nothing)

let node: AudioWorkletNode | undefined
let lookers = 0

function listen({ context, node: engine }: Player): void {
  if (node) return
  node = new AudioWorkletNode(context, 'heliaster-meter', { numberOfOutputs: 0, channelCount: 2, channelCountMode: 'explicit' })
  node.port.onmessage = ({ data }: MessageEvent<FromMeter>) => takeReading(data.reading)
  engine.connect(node, MIX_OUTPUT)
}

export function takeReading(reading: MixReading): void {
  mixMeter.setState(({ highestDb, hasClipped }) => ({
    reading,
    highestDb: Math.max(highestDb, reading.truePeakDb),
    hasClipped: hasClipped || reading.truePeakDb > CLIPPED_DB,
  }))
}

function leave(): void {
  if (!node) return
  sound.getState().player?.node.disconnect(node, MIX_OUTPUT)
  node.port.onmessage = null
  node = undefined
}

/** Takes the marks off, and begins the loudness of all anew. */
export function clearMarks(): void {
  mixMeter.setState({ highestDb: -Infinity, hasClipped: false, over: [] })
  node?.port.postMessage({ type: 'begin' } satisfies ToMeter)
}

/** Marks a pad or a bus that is above full scale, until the marks are taken off. */
export function markOver(id: string): void {
  if (!mixMeter.getState().over.includes(id)) mixMeter.setState(({ over }) => ({ over: [...over, id] }))
}

/** What the mix measures, while this is shown. */
export function useMixMeter(): MeterState {
  const player = useStore(sound, (state) => state.player)
  useEffect(() => {
    if (!player) return undefined
    lookers++
    listen(player)
    return () => {
      if (--lookers === 0) leave()
    }
  }, [player])
  return useStore(mixMeter)
}
