import { createGate } from '../audio/gate'
import type { GateSettings } from '../audio/gate'
import { encodeFrames } from './wav-stream'
import type { WavForm } from './wav-stream'

/** Which of the input's channels are kept; mono is the mean of all. */
export type ChannelPlan = 'mono' | 'stereo' | 'left' | 'right'

export interface TakeSettings {
  readonly sampleRateHz: number
  readonly channels: ChannelPlan
  readonly bits: 24 | 32
  /** How much of what was heard before the start is kept. */
  readonly preRollSeconds: number
  /** Waits for sound, and ends after silence; without it the take begins at once and ends when it is told to. */
  readonly gate?: GateSettings
  /** With a gate: do not end by itself. */
  readonly goesOn?: boolean
}

/** Armed: listening. Waiting: started, for sound to begin. Ended: by the gate. */
export type TakeState = 'armed' | 'waiting' | 'running' | 'ended'

/** Where a take is written to. */
export interface TakeSink {
  /** Told once, before the first frames. */
  open(form: WavForm): void
  write(bytes: Uint8Array<ArrayBuffer>): void
  /** The same frames as samples, for whoever looks at what is taken. */
  heard?(channels: readonly Float32Array[]): void
}

interface Piece {
  readonly firstFrame: number
  readonly channels: readonly Float32Array[]
}

export interface Take {
  readonly state: TakeState
  readonly frames: number
  /** The frame of the input that is the take's first; undefined as long as it has none. */
  readonly startFrame: number | undefined
  /** Frames that never arrived; they are silence in the file, so that what follows keeps its place. */
  readonly lostFrames: number
  /** Takes what was heard from `firstFrame` on. Pieces come in order; a gap is filled, an overlap is dropped. */
  piece(firstFrame: number, channels: readonly Float32Array[]): void
  /** Starts at the frame at which the button was pressed, with what was heard just before. */
  begin(pressedFrame: number): void
}

/** A recording from pieces that an input sends, written frame by frame as they come: nothing lost, nothing doubled. */
export function createTake(settings: TakeSettings, sink: TakeSink): Take {
  const preRollFrames = Math.round(settings.preRollSeconds * settings.sampleRateHz)
  const gate = settings.gate && createGate(settings.gate, settings.sampleRateHz)
  let heard: Piece[] = []
  let state: TakeState = 'armed'
  let next = 0
  let frames = 0
  let startFrame: number | undefined
  let lostFrames = 0
  let form: WavForm | undefined

  function remember(piece: Piece): void {
    heard.push(piece)
    const from = endOf(piece) - preRollFrames
    while (heard.length > 0 && endOf(heard[0]) <= from) heard.shift()
  }

  function start(atFrame: number): void {
    state = 'running'
    next = heard.length > 0 ? Math.max(atFrame - preRollFrames, heard[0].firstFrame) : -Infinity
    const kept = heard
    heard = []
    for (const piece of kept) write(piece)
  }

  function write({ firstFrame, channels }: Piece): void {
    if (next === -Infinity) next = firstFrame
    const skipped = Math.max(0, next - firstFrame)
    if (skipped >= channels[0].length) return
    startFrame ??= next
    const planned = plan(
      channels.map((channel) => channel.subarray(skipped)),
      settings.channels,
    )
    if (!form) {
      form = { sampleRateHz: settings.sampleRateHz, channels: planned.length, bits: settings.bits }
      sink.open(form)
    }
    const gap = firstFrame - next
    if (gap > 0) {
      lostFrames += gap
      put(planned.map(() => new Float32Array(gap)))
    }
    put(planned)
    next = firstFrame + channels[0].length
  }

  function put(planned: readonly Float32Array[]): void {
    const fitting = Array.from({ length: form!.channels }, (_, i) => planned[Math.min(i, planned.length - 1)])
    sink.write(encodeFrames(fitting, form!.bits))
    sink.heard?.(fitting)
    frames += fitting[0].length
  }

  return {
    get state() {
      return state
    },
    get frames() {
      return frames
    },
    get startFrame() {
      return startFrame
    },
    get lostFrames() {
      return lostFrames
    },
    begin(pressedFrame) {
      if (state !== 'armed') return
      if (gate) state = 'waiting'
      else start(pressedFrame)
    },
    piece(firstFrame, channels) {
      const piece = { firstFrame, channels }
      if (state === 'running') write(piece)
      else if (state !== 'ended') remember(piece)
      if (!gate || state === 'armed' || state === 'ended') return
      const heardNow = gate.take(peakOf(channels), channels[0].length)
      if (state === 'waiting' && heardNow === 'open') start(firstFrame)
      else if (state === 'running' && heardNow === 'ended' && !settings.goesOn) state = 'ended'
    },
  }
}

const endOf = (piece: Piece) => piece.firstFrame + piece.channels[0].length

function plan(channels: readonly Float32Array[], plan: ChannelPlan): readonly Float32Array[] {
  if (plan === 'stereo') return channels.slice(0, 2)
  if (plan === 'left') return [channels[0]]
  if (plan === 'right') return [channels[1] ?? channels[0]]
  if (channels.length === 1) return channels
  const mean = new Float32Array(channels[0].length)
  for (const channel of channels) for (let i = 0; i < mean.length; i++) mean[i] += channel[i] / channels.length
  return [mean]
}

function peakOf(channels: readonly Float32Array[]): number {
  let peak = 0
  for (const channel of channels) for (let i = 0; i < channel.length; i++) peak = Math.max(peak, Math.abs(channel[i]))
  return peak
}
