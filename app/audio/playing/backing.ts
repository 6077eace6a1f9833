import { toMono } from '@heliaster/core/audio'
import type { Pace } from '@heliaster/core/groove/rhythm'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../../ui/device/device-settings'
import type { Player } from '../engine/player'
import { mixDelaySeconds } from '../engine/mix-delay'
import { kitNow, sound } from '../engine/sound'
import { coreWork } from '../workers/workers'
import { tellBeside } from './beside'
import { grooveState, onGrooveStarts } from './groove-player'
import { onBothSides } from './both-sides'

/** A song or a bass line of the person's own, played beside the groove: it stays in this page and is never part of a kit. */
export interface Backing {
  readonly name: string
  readonly seconds: number
  readonly tempoBpm: number
  /** Where its first beat is, s; the groove begins there. */
  readonly firstSeconds: number
  /** Whether both were heard out of it; otherwise they are guesses until somebody says them. */
  readonly isFound: boolean
}

interface BackingState {
  readonly backing?: Backing
  readonly isReading: boolean
  readonly problem?: string
  readonly isOn: boolean
  readonly levelDb: number
}

export const backingState = createStore<BackingState>(() => ({ isReading: false, isOn: true, levelDb: -6 }))

/** What was said of songs, by their names and lengths, so that one that is chosen again is in time at once. */
const known = deviceSettings(
  'heliaster-backing',
  z.object({ songs: z.array(z.object({ key: z.string().max(300), tempoBpm: z.number().min(20).max(400), firstSeconds: z.number().min(-600).max(3600) })).max(50) }),
  { songs: [] as { key: string; tempoBpm: number; firstSeconds: number }[] },
) // prettier-ignore

let buffer: AudioBuffer | undefined
let source: AudioBufferSourceNode | undefined
let gain: GainNode | undefined
/** Of the song that plays: its place at a time of the context, and how fast it goes. */
let running: { at: number; place: number; rate: number } | undefined

const keyOf = (name: string, seconds: number) => `${name.slice(0, 250)} ${seconds.toFixed(2)}`
/** So much of a song tells its tempo. */
const HEARD_SECONDS = 90

/** Reads a file of the person's own; its tempo and first beat as they were said before, else as they are heard. */
export async function chooseBacking(file: File): Promise<void> {
  const { player } = sound.getState()
  if (!player) return
  removeBacking()
  backingState.setState({ isReading: true, problem: undefined })
  try {
    const decoded = await player.context.decodeAudioData(await file.arrayBuffer())
    const name = file.name.replace(/\.\w{1,5}$/, '')
    const before = known.getState().songs.find(({ key }) => key === keyOf(name, decoded.duration))
    const heard = before ?? (await heardIn(decoded))
    buffer = decoded
    const kitBpm = kitNow()?.tempoBpm ?? 120
    backingState.setState({
      isReading: false,
      isOn: true,
      backing: { name, seconds: decoded.duration, tempoBpm: heard?.tempoBpm ?? kitBpm, firstSeconds: heard?.firstSeconds ?? 0, isFound: heard !== undefined },
    })
    sync()
  } catch {
    backingState.setState({ isReading: false, problem: `“${file.name}” is no audio that this browser plays. Choose a WAV, FLAC, MP3, AAC or Ogg file.` })
  }
} // prettier-ignore

async function heardIn(decoded: AudioBuffer): Promise<Pace | undefined> {
  const frames = Math.min(decoded.length, Math.round(HEARD_SECONDS * decoded.sampleRate))
  const channels = Array.from({ length: decoded.numberOfChannels }, (_, i) => decoded.getChannelData(i).slice(0, frames))
  return coreWork().pace(toMono({ sampleRateHz: decoded.sampleRate, channels }), decoded.sampleRate)
}

export function removeBacking(): void {
  silence()
  buffer = undefined
  backingState.setState({ backing: undefined, problem: undefined })
}

/** Says how it goes; kept for when it is chosen again. */
export function setBacking(fields: Partial<Pick<Backing, 'tempoBpm' | 'firstSeconds'>>): void {
  const { backing } = backingState.getState()
  if (!backing) return
  const changed = { ...backing, ...fields, isFound: true }
  backingState.setState({ backing: changed })
  const { name, seconds, tempoBpm, firstSeconds } = changed
  const key = keyOf(name, seconds)
  known.setState({ songs: [{ key, tempoBpm, firstSeconds }, ...known.getState().songs.filter((one) => one.key !== key)].slice(0, 50) })
  sync()
}

export function setBackingLevel(levelDb: number): void {
  backingState.setState({ levelDb })
  if (gain) gain.gain.value = 10 ** (levelDb / 20)
}

export function turnBacking(isOn: boolean): void {
  backingState.setState({ isOn })
  sync()
}

/** Further off than this it is set right again, s. */
const OFF_SECONDS = 0.004
const LOOK_MS = 200
let timer: ReturnType<typeof setInterval> | undefined

/** Keeps the song with the groove: begins, ends and follows its tempo, from wherever the groove is. */
function sync(): void {
  const { player } = sound.getState()
  const { isOn, backing } = backingState.getState()
  const isWanted = isOn && backing !== undefined && buffer !== undefined && grooveState.getState().playing
  if (!player || !isWanted) {
    clearInterval(timer)
    timer = undefined
    return silence()
  }
  timer ??= setInterval(sync, LOOK_MS)
  const wanted = placeWanted(player, backing)
  if (!wanted) return
  if (running && running.rate === wanted.rate && Math.abs(running.place + (wanted.at - running.at) * running.rate - wanted.place) < OFF_SECONDS) return // prettier-ignore
  begin(player, wanted)
}

/** How far ahead it is begun, so that it is not late, s. */
const AHEAD_SECONDS = 0.05

/** Where in the song it should be a moment from now, in the context's time; nothing while the groove has no beat. */
export function placeWanted(player: Pick<Player, 'songBeat' | 'frameNow' | 'hostFrame' | 'sampleRateHz'>, { tempoBpm, firstSeconds }: Backing): { at: number; place: number; rate: number } | undefined {
  const beat = player.songBeat()
  const kitBpm = kitNow()?.tempoBpm
  if (beat < 0 || kitBpm === undefined) return undefined
  const now = (player.frameNow() + player.hostFrame()) / player.sampleRateHz + mixDelaySeconds(player.sampleRateHz)
  const rate = kitBpm / tempoBpm
  return { at: now + AHEAD_SECONDS, place: firstSeconds + ((beat + (AHEAD_SECONDS * kitBpm) / 60) * 60) / tempoBpm, rate }
} // prettier-ignore

function begin(player: Player, { at, place, rate }: { at: number; place: number; rate: number }): void {
  silence()
  if (!buffer || place >= buffer.duration) return
  const { context } = player
  const node = context.createBufferSource()
  gain = onBothSides(context.createGain())
  gain.gain.value = 10 ** (backingState.getState().levelDb / 20)
  node.buffer = buffer
  node.playbackRate.value = rate
  node.connect(gain).connect(context.destination)
  // Before its first sample it waits.
  if (place < 0) node.start(at - place / rate, 0)
  else node.start(at, place)
  source = node
  running = { at, place, rate }
}

function silence(): void {
  source?.stop()
  source?.disconnect()
  gain?.disconnect()
  source = gain = running = undefined
}

/** See beside.ts. */
function songPart(kitBpm: number, seconds: number, sampleRateHz: number): Float32Array | undefined {
  const { isOn, backing, levelDb } = backingState.getState()
  if (!isOn || !backing || !buffer) return undefined
  const channels = Array.from({ length: buffer.numberOfChannels }, (_, i) => buffer!.getChannelData(i))
  const level = 10 ** (levelDb / 20) / channels.length
  const [from, step] = [backing.firstSeconds * buffer.sampleRate, ((kitBpm / backing.tempoBpm) * buffer.sampleRate) / sampleRateHz]
  return Float32Array.from({ length: Math.round(seconds * sampleRateHz) }, (_, i) => {
    const place = from + i * step
    const whole = Math.floor(place)
    return channels.reduce((sum, channel) => {
      const [one, next] = [channel[whole] ?? 0, channel[whole + 1] ?? 0]
      return sum + level * (one + (place - whole) * (next - one))
    }, 0)
  })
}

tellBeside(songPart)

/** The groove waits so long for the song, s: both begin together. */
const WAIT_SECONDS = 0.12

onGrooveStarts((player, beat) => {
  const { isOn, backing } = backingState.getState()
  const kitBpm = kitNow()?.tempoBpm
  if (!isOn || !backing || !buffer || kitBpm === undefined) return 0
  const frames = Math.round(WAIT_SECONDS * player.sampleRateHz)
  const at = (player.frameNow() + player.hostFrame() + frames) / player.sampleRateHz + mixDelaySeconds(player.sampleRateHz)
  begin(player, { at, place: backing.firstSeconds + (beat * 60) / backing.tempoBpm, rate: kitBpm / backing.tempoBpm })
  return frames
})
grooveState.subscribe((now, before) => {
  if (now.playing !== before.playing) sync()
})
