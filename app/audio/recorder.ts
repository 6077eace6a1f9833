import type { Audio } from '@heliaster/core/audio'

import type { RecordedPiece, ToRecorder } from '../../core/engine/hosts/messages'
import { engineUrl } from './player'
import { practiceStream } from './practice-microphone'

export type InputKind = 'microphone' | 'practice'

/** A recording under way. */
export interface Recording {
  readonly sampleRateHz: number
  /** Ends it and gives what was recorded; undefined when nothing came in. */
  stop(): Promise<Audio | undefined>
}

export interface RecordingEvents {
  /** Each new piece as it arrives, one array for each channel. */
  onPiece(channels: Float32Array[]): void
  /** The input went away by itself: unplugged, or taken by the system. */
  onEnded(reason: string): void
}

/** Why there is no recording, in words for a person. */
export class NoInput extends Error {}

/** Starts at once. Nothing is done to the sound: no echo cancelling, no noise suppression, no gain control. */
export async function startRecording(input: InputKind, events: RecordingEvents): Promise<Recording> {
  const context = new AudioContext({ latencyHint: 'interactive' })
  try {
    if (!context.audioWorklet) throw new NoInput('Recording works only on https or localhost: open Heliaster at one of these addresses.')
    await context.audioWorklet.addModule(await engineUrl())
    const source = input === 'practice' ? await practiceStream(context) : await microphoneStream(context, events)
    return record(context, source, events)
  } catch (error) {
    await context.close()
    throw error
  }
}

interface Input {
  readonly node: AudioNode
  close(): void
}

async function microphoneStream(context: AudioContext, events: RecordingEvents): Promise<Input> {
  if (!navigator.mediaDevices?.getUserMedia)
    throw new NoInput('This browser gives no microphone here. Open Heliaster at https or localhost, or use the practice microphone.')
  let stream: MediaStream
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    })
  } catch (error) {
    throw new NoInput(microphoneFault(error))
  }
  for (const track of stream.getAudioTracks())
    track.addEventListener('ended', () => events.onEnded('The microphone went away. What was recorded until then is kept.'))
  return { node: context.createMediaStreamSource(stream), close: () => stream.getTracks().forEach((track) => track.stop()) }
}

function microphoneFault(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError')
    return 'The microphone was refused. Allow it in the browser’s settings for this page, or use the practice microphone.'
  if (name === 'NotFoundError') return 'There is no microphone. Plug one in and try again, or use the practice microphone.'
  if (name === 'NotReadableError') return 'The microphone is in use by another program. Close that program and try again.'
  return `The microphone cannot be opened (${name || String(error)}). Try again, or use the practice microphone.`
}

async function record(context: AudioContext, input: Input, events: RecordingEvents): Promise<Recording> {
  const node = new AudioWorkletNode(context, 'heliaster-recorder', { numberOfOutputs: 1 })
  const pieces: Float32Array[][] = []
  let expected = 0
  let drained: (() => void) | undefined
  node.port.onmessage = ({ data }: MessageEvent<RecordedPiece>) => {
    if (data.firstFrame > expected) pieces.push(data.channels.map(() => new Float32Array(data.firstFrame - expected))) // a gap stays a gap
    expected = data.firstFrame + data.channels[0].length
    pieces.push(data.channels)
    events.onPiece(data.channels)
    drained?.()
  }
  input.node.connect(node)
  node.connect(context.destination) // silent; an unconnected worklet may not be run
  await context.resume()
  node.port.postMessage({ type: 'start' } satisfies ToRecorder)
  return {
    sampleRateHz: context.sampleRate,
    async stop() {
      const last = new Promise<void>((resolve) => (drained = resolve))
      node.port.postMessage({ type: 'stop' } satisfies ToRecorder)
      await Promise.race([last, new Promise((resolve) => setTimeout(resolve, 300))])
      input.close()
      await context.close()
      return joined(pieces, context.sampleRate)
    },
  }
}

/** Pieces as one recording. A microphone that changes its channels keeps the most it had. */
function joined(pieces: readonly Float32Array[][], sampleRateHz: number): Audio | undefined {
  const frames = pieces.reduce((sum, piece) => sum + piece[0].length, 0)
  if (frames === 0) return undefined
  const count = Math.max(...pieces.map((piece) => piece.length))
  const channels = Array.from({ length: count }, () => new Float32Array(frames))
  let at = 0
  for (const piece of pieces) {
    channels.forEach((channel, i) => channel.set(piece[Math.min(i, piece.length - 1)], at))
    at += piece[0].length
  }
  return { sampleRateHz, channels: sameChannels(channels) ? [channels[0]] : channels }
}

/** Many microphones come as two equal channels; one is enough. */
function sameChannels(channels: readonly Float32Array[]): boolean {
  return channels.length === 2 && channels[0].every((sample, i) => sample === channels[1][i])
}
