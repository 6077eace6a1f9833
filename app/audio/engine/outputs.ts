import type { BusId } from '@heliaster/core/kit'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../../ui/device/device-settings'
import { mixDelaySeconds } from './mix-delay'
import { onLoaded, sound } from './sound'

/** What of this device's outputs was chosen: which one, and by which of its pairs buses leave. */
export const outputChoice = deviceSettings(
  'heliaster-outputs',
  z.object({ deviceId: z.string().max(400), pairs: z.record(z.string(), z.number().int().min(1).max(15)) }),
  { deviceId: '', pairs: {} as Readonly<Record<string, number>> },
)

/** One output of the computer. */
export interface OutputDevice {
  readonly id: string
  readonly name: string
}

/** How outputs stand now: channels of the one that sounds, all that are known, and why one that was chosen does not sound. */
export interface OutputState {
  readonly channels: number
  readonly devices: readonly OutputDevice[]
  readonly problem?: string
}
export const outputState = createStore<OutputState>(() => ({ channels: 2, devices: [] }))

const USUAL: OutputDevice = { id: '', name: 'As the computer plays' }
type WithSink = AudioContext & { setSinkId?(id: string): Promise<void> }

/** Whether this browser lets a page choose where it sounds. */
export const canChooseOutput = (): boolean => typeof AudioContext !== 'undefined' && 'setSinkId' in AudioContext.prototype

/** Pairs beside that of the mix: 1 is channels 3 and 4. */
export const pairsOf = (channels: number): number[] => Array.from({ length: Math.max(0, Math.floor(channels / 2) - 1) }, (_, i) => i + 1)
export const pairWords = (pair: number): string => `Outputs ${2 * pair + 1} and ${2 * pair + 2}`

/** Looks which outputs there are; those that the browser does not name are called by their number. */
export async function findOutputs(): Promise<void> {
  const found = (await navigator.mediaDevices?.enumerateDevices?.().catch(() => [])) ?? []
  const others = found.filter(({ kind, deviceId }) => kind === 'audiooutput' && deviceId !== '' && deviceId !== 'default')
  const devices = [USUAL, ...others.map(({ deviceId, label }, i) => ({ id: deviceId, name: label || `Output ${i + 1}` }))]
  outputState.setState({ devices })
}

/** Asks for the microphone, which is let go at once: a browser names outputs only to pages that may use one. */
export async function askForNames(): Promise<void> {
  try {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    for (const track of stream.getTracks()) track.stop()
    outputState.setState({ problem: undefined })
  } catch {
    outputState.setState({ problem: 'The browser was not allowed to name the outputs. Allow the microphone for this page, or choose the output in the computer’s own settings.' }) // prettier-ignore
  }
  await findOutputs()
}

/** Sounds by another output from now on. Where that cannot be had it stays as it is, and that is said. */
export async function chooseOutput(deviceId: string): Promise<void> {
  const context = sound.getState().player?.context as WithSink | undefined
  if (!context?.setSinkId) return
  try {
    await context.setSinkId(deviceId)
    outputChoice.setState({ deviceId })
    outputState.setState({ problem: undefined })
  } catch {
    outputState.setState({ problem: 'This output cannot be had now: it may be gone, or another program keeps it. It sounds as before.' })
  }
  route()
}

/** A bus leaves by a pair of its own, or with the mix again (0). */
export function choosePair(busId: BusId, pair: number): void {
  const { [busId]: _before, ...others } = outputChoice.getState().pairs
  outputChoice.setState({ pairs: pair > 0 ? { ...others, [busId]: pair } : others })
  route()
}

interface Routed {
  readonly key: string
  end(): void
}
let routed: Routed | undefined

/** Brings the ways from the engine to the device in step with what was chosen and what the device has. */
export function route(): void {
  const { player } = sound.getState()
  if (!player) return
  const { context, node } = player
  const channels = Math.min(32, context.destination.maxChannelCount)
  outputState.setState({ channels })
  const most = pairsOf(channels).length
  const chosen = Object.entries(outputChoice.getState().pairs).filter(([, pair]) => pair <= most) as [BusId, number][]
  player.setPairs(new Map(chosen))
  const highest = Math.max(0, ...chosen.map(([, pair]) => pair))
  const key = `${highest} ${channels}`
  if (routed?.key !== key) {
    routed?.end()
    routed = highest > 0 ? { key, end: connect(context, node, highest, channels) } : undefined
  }
  settleLag()
}

function settleLag(): void {
  if (lag) lag.delayTime.value = mixDelaySeconds()
}

/** What a limiter on the whole makes later, pairs beside the mix wait for. */
let lag: DelayNode | undefined
const MOST_LAG_SECONDS = 0.1

/** Lays the mix on the first two channels of the device and pairs on those behind them. */
function connect(context: AudioContext, node: AudioWorkletNode, pairs: number, channels: number): () => void {
  const { destination } = context
  const before = destination.channelCount
  destination.channelCount = channels
  const merger = context.createChannelMerger(channels)
  const mix = context.createChannelSplitter(2)
  const others = context.createChannelSplitter(30)
  const delay = context.createDelay(MOST_LAG_SECONDS)
  delay.channelCount = 2 * 15
  delay.channelCountMode = 'explicit'
  delay.channelInterpretation = 'discrete'
  node.disconnect(destination)
  node.connect(mix, 0)
  node.connect(delay, 2)
  delay.connect(others)
  for (const side of [0, 1]) mix.connect(merger, side, side)
  for (let at = 0; at < 2 * pairs; at++) others.connect(merger, at, 2 + at)
  merger.connect(destination)
  lag = delay
  return () => {
    merger.disconnect()
    node.disconnect(mix)
    node.disconnect(delay)
    node.connect(destination, 0)
    destination.channelCount = Math.min(before, destination.maxChannelCount)
    lag = undefined
  }
}

/** Takes up what was chosen before, once the engine is there. */
export async function takeUpOutputs(): Promise<void> {
  const { deviceId } = outputChoice.getState()
  onLoaded(settleLag) // a limiter may have come or gone
  await findOutputs()
  if (deviceId) await chooseOutput(deviceId)
  else route()
}
