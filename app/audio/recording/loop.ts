import { chirp, CHIRP_EVERY_SECONDS, CHIRPS, loopDelay } from '@heliaster/core/record'
import type { LoopDelay } from '@heliaster/core/record'

import type { FromRecorder, ToRecorder } from '../../../core/engine/hosts/messages'
import { sound } from '../engine/sound'
import { microphoneStream, NoInput } from './inputs'

/** Until the microphone has settled, and until the last chirp has come back. */
const BEFORE_SECONDS = 0.4
const AFTER_SECONDS = 0.8
const LEVEL = 0.5

/**
 * Plays chirps by the speaker and listens to them by the microphone: how long both take together. A sentence where they
 * were not heard, or where there is no microphone.
 */
export async function measureLoop(): Promise<LoopDelay | string> {
  const { player } = sound.getState()
  if (!player) return 'The sound engine is still starting. Try again in a moment.'
  const { context } = player
  const letSleep = player.sleep.hold()
  let stream: MediaStream | undefined
  try {
    stream = await microphoneStream(undefined, () => undefined)
    await player.resume()
    return await listenToChirps(context, stream)
  } catch (error) {
    if (error instanceof NoInput) return error.message
    throw error
  } finally {
    stream?.getTracks().forEach((track) => track.stop())
    letSleep()
  }
}

async function listenToChirps(context: AudioContext, stream: MediaStream): Promise<LoopDelay | string> {
  const rate = context.sampleRate
  const microphone = context.createMediaStreamSource(stream)
  const node = new AudioWorkletNode(context, 'heliaster-recorder', { numberOfOutputs: 0, channelCount: 1, channelCountMode: 'explicit' })
  const { port1, port2 } = new MessageChannel()
  node.port.postMessage({ type: 'port', port: port2 } satisfies ToRecorder, [port2])
  const pieces: { firstFrame: number; samples: Float32Array }[] = []
  const firstSent = context.currentTime + BEFORE_SECONDS
  const times = Array.from({ length: CHIRPS }, (_, i) => firstSent + i * CHIRP_EVERY_SECONDS)
  const end = Math.round((times[CHIRPS - 1]! + AFTER_SECONDS) * rate)
  const heard = new Promise<void>((resolve) => {
    port1.onmessage = ({ data }: MessageEvent<FromRecorder>) => {
      if (data.type !== 'piece') return
      pieces.push({ firstFrame: data.firstFrame, samples: data.channels[0]! })
      if (data.firstFrame + data.channels[0]!.length >= end) resolve()
    }
  })
  microphone.connect(node)
  const buffer = context.createBuffer(1, chirp(rate).length, rate)
  buffer.copyToChannel(chirp(rate) as Float32Array<ArrayBuffer>, 0)
  const gain = new GainNode(context, { gain: LEVEL })
  gain.connect(context.destination)
  for (const time of times) {
    const source = new AudioBufferSourceNode(context, { buffer })
    source.connect(gain)
    source.start(time)
  }
  await heard
  microphone.disconnect()
  gain.disconnect()
  port1.close()
  const from = pieces[0]!.firstFrame
  const recorded = new Float32Array(end + rate - from)
  for (const { firstFrame, samples } of pieces) recorded.set(samples.subarray(0, recorded.length - (firstFrame - from)), firstFrame - from)
  return loopDelay(recorded, rate, times.map((time) => Math.round(time * rate) - from)) // prettier-ignore
}
