import { engineUrl } from '../engine/engine-url'
import { sound } from '../engine/sound'
import type { SoundState } from '../engine/sound'
import { PRACTICE_RATE, practiceStream } from './practice-microphone'

export type InputKind = 'microphone' | 'practice' | 'pads'

/** Why there is no recording, in words for a person. */
export class NoInput extends Error {}

/** An input that is open: a node in a context, and how to let go of it. */
export interface OpenInput {
  readonly context: AudioContext
  readonly node: AudioNode
  /** Which of the node's outputs carries the sound. */
  readonly output: number
  readonly label: string
  close(): Promise<void>
}

/** Opens an input. Nothing is done to the sound: no echo cancelling, no noise suppression, no gain control. */
export async function openInput(kind: InputKind, deviceId: string | undefined, onEnded: (reason: string) => void): Promise<OpenInput> {
  if (kind === 'pads') return padsInput()
  if (typeof AudioWorkletNode === 'undefined' || !globalThis.isSecureContext)
    throw new NoInput('Recording works only on https or localhost: open Heliaster at one of these addresses.')
  const stream = kind === 'microphone' ? await microphoneStream(deviceId, onEnded) : undefined
  const [track] = stream?.getAudioTracks() ?? []
  const context = contextAt(stream ? track.getSettings().sampleRate : PRACTICE_RATE)
  try {
    await context.audioWorklet.addModule(await engineUrl())
    const practice = stream ? undefined : await practiceStream(context)
    await context.resume()
    return {
      context,
      node: stream ? context.createMediaStreamSource(stream) : practice!.node,
      output: 0,
      label: stream ? track.label || 'Microphone' : 'Practice microphone',
      async close() {
        stream?.getTracks().forEach((one) => one.stop())
        practice?.close()
        await context.close()
      },
    }
  } catch (error) {
    stream?.getTracks().forEach((one) => one.stop())
    await context.close()
    throw error
  }
}

/** A context at the input's own rate, so that nothing is resampled on the way in. */
function contextAt(sampleRate: number | undefined): AudioContext {
  try {
    return new AudioContext({ latencyHint: 'interactive', sampleRate })
  } catch {
    return new AudioContext({ latencyHint: 'interactive' })
  }
}

/** What the pads play, taken from the engine's mix before its limiter. */
async function padsInput(): Promise<OpenInput> {
  const { player, problem } = await started()
  if (!player) throw new NoInput(problem ?? 'The sound engine is still starting. Choose the pads again in a moment.')
  const letSleep = player.sleep.hold()
  await player.resume()
  return { context: player.context, node: player.node, output: 1, label: 'The pads', close: async () => letSleep() }
}

const STARTING_MS = 15_000

/** The engine once it has started, or why it cannot; neither where it takes too long. */
function started(): Promise<SoundState> {
  const isKnown = ({ player, problem }: SoundState) => player !== undefined || problem !== undefined
  return new Promise((resolve) => {
    if (isKnown(sound.getState())) return resolve(sound.getState())
    const end = (state: SoundState) => {
      stop()
      clearTimeout(timer)
      resolve(state)
    }
    const stop = sound.subscribe((state) => isKnown(state) && end(state))
    const timer = setTimeout(() => end(sound.getState()), STARTING_MS)
  })
}

export async function microphoneStream(deviceId: string | undefined, onEnded: (reason: string) => void): Promise<MediaStream> {
  if (!navigator.mediaDevices?.getUserMedia)
    throw new NoInput('This browser gives no microphone here. Open Heliaster at https or localhost, or use the practice microphone.')
  const plain = { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: { ideal: 2 } }
  const ask = (audio: MediaTrackConstraints) => navigator.mediaDevices.getUserMedia({ audio })
  let stream: MediaStream
  try {
    stream = await ask(deviceId ? { ...plain, deviceId: { exact: deviceId } } : plain)
  } catch (error) {
    if (!deviceId || !(error instanceof DOMException) || error.name !== 'OverconstrainedError') throw new NoInput(microphoneFault(error))
    stream = await ask(plain).catch((again) => {
      throw new NoInput(microphoneFault(again))
    })
  }
  const [track] = stream.getAudioTracks()
  track.addEventListener('ended', () => onEnded('The microphone went away. What was recorded until then is kept.'))
  return stream
}

function microphoneFault(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError')
    return 'The microphone was refused. Allow it in the browser’s settings for this page, or use the practice microphone.'
  if (name === 'NotFoundError') return 'There is no microphone. Plug one in and try again, or use the practice microphone.'
  if (name === 'NotReadableError') return 'The microphone is in use by another program. Close that program and try again.'
  return `The microphone cannot be opened (${name || String(error)}). Try again, or use the practice microphone.`
}

export interface InputDevice {
  readonly id: string
  readonly label: string
}

/** Microphones that can be chosen. Browsers name them only once one was allowed. */
export async function listMicrophones(): Promise<InputDevice[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices().catch(() => undefined)) ?? []
  return devices
    .filter((device) => device.kind === 'audioinput' && device.deviceId && device.deviceId !== 'default')
    .map((device, i) => ({ id: device.deviceId, label: device.label || `Microphone ${i + 1}` }))
}

/** Whether a microphone may be opened without asking. */
export async function mayListen(): Promise<boolean> {
  try {
    return (await navigator.permissions.query({ name: 'microphone' as PermissionName })).state === 'granted'
  } catch {
    return false
  }
}
