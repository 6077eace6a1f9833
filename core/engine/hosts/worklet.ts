import { createMixMeter } from '../../audio/mix-meter'
import { createMemory, doneOf } from '../memory/memory'
import type { EngineMemory } from '../memory/memory'
import type { MixTap } from '../mix/limiter'
import { DoneField, MAX_BUSES, StatusField } from '../program/layout'
import { readActs } from '../acts'
import { render } from '../render'
import { standingOf } from '../standing'
import { createEngine } from '../state'
import type { EngineState } from '../state'
import { receive } from './receive'
import type { EngineOptions, FromMeter, FromRecorder, FromWorklet, ToMeter, ToRecorder, ToWorklet } from './messages'

interface Port<In, Out> {
  onmessage: ((event: { data: In }) => void) | null
  postMessage(message: Out, transfer?: ArrayBuffer[]): void
}
declare class AudioWorkletProcessor {
  readonly port: Port<never, never>
}
declare const registerProcessor: (name: string, processor: unknown) => void
declare const sampleRate: number
declare const currentFrame: number

/** Blocks between two reports to a page that cannot share memory: about 20 ms at 48 kHz. */
const REPORT_BLOCKS = 8
/** Frames of one recorded piece: 21 ms at 48 kHz. */
const PIECE_FRAMES = 1024

/** Not every browser has a fine clock where sound is made; whole milliseconds tell a late block from one in time too. */
const nowMs = (): number => (globalThis.performance as Performance | undefined)?.now() ?? Date.now()

/** Registers the processors; the classes only unpack messages and call the engine. */
export function registerProcessors(): void {
  class EngineProcessor extends AudioWorkletProcessor {
    private readonly engine: EngineState
    private readonly shared: boolean
    private blocks = 0
    private told = 0
    private tapped: Float32Array[] | undefined
    private tap: MixTap | undefined
    private readonly ofSlot = new Int32Array(MAX_BUSES)
    private hasPairs = false

    constructor(options: { processorOptions: EngineOptions }) {
      super()
      const { memory, score, told } = options.processorOptions
      this.shared = memory !== undefined
      this.engine = createEngine(memory ?? createMemory(false), sampleRate)
      if (score) this.engine.score = score
      told?.forEach((message) => receive(this.engine, message))
      const port = this.port as unknown as Port<ToWorklet, FromWorklet>
      port.onmessage = ({ data }) => {
        if (data.type === 'stand') port.postMessage({ type: 'stood', standing: standingOf(this.engine) })
        else if (data.type === 'pairs') this.takePairs(data.ofSlot)
        else receive(this.engine, data)
      }
    }

    private takePairs(ofSlot: readonly number[]): void {
      this.ofSlot.fill(0)
      this.ofSlot.set(ofSlot.slice(0, MAX_BUSES))
      this.hasPairs = this.ofSlot.some((pair) => pair > 0)
      this.tapped = undefined
    }

    process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
      const [output, mix, channels] = outputs
      if (mix && mix !== this.tapped) {
        this.tapped = mix
        const pairs = this.hasPairs && channels ? { pairs: { ofSlot: this.ofSlot, channels } } : {}
        this.tap = { left: mix[0], right: mix[1] ?? mix[0], ...pairs }
      }
      this.engine.memory.status[StatusField.hostFrame] = currentFrame - this.engine.frame
      const fromMs = nowMs()
      render(this.engine, output[0], output[1] ?? output[0], 0, output[0].length, mix && this.tap)
      if (nowMs() - fromMs > (1000 * output[0].length) / sampleRate) this.engine.memory.status[StatusField.lateBlocks]++
      if (!this.shared && ++this.blocks % REPORT_BLOCKS === 0)
        this.told = report(this.engine.memory, this.port as unknown as Port<ToWorklet, FromWorklet>, this.told)
      return true
    }
  }

  class RecorderProcessor extends AudioWorkletProcessor {
    private target: Port<never, FromRecorder> | undefined
    private firstFrame = 0
    private filled = 0
    private piece: Float32Array[] = []

    constructor() {
      super()
      const port = this.port as unknown as Port<ToRecorder, never>
      port.onmessage = ({ data }) => {
        if (data.type === 'port') this.target = data.port as unknown as Port<never, FromRecorder>
        else {
          this.send()
          this.target?.postMessage({ type: 'flushed', id: data.id })
        }
      }
    }

    process(inputs: Float32Array[][]): boolean {
      const input = inputs[0]
      if (!this.target || input.length === 0) return true
      const count = input[0].length
      if (this.piece.length !== input.length || currentFrame !== this.firstFrame + this.filled) {
        this.send()
        if (this.piece.length !== input.length) this.piece = input.map(() => new Float32Array(PIECE_FRAMES))
        this.firstFrame = currentFrame
      }
      for (let channel = 0; channel < input.length; channel++) this.piece[channel].set(input[channel], this.filled)
      this.filled += count
      if (this.filled + count > PIECE_FRAMES) this.send()
      return true
    }

    /** Sends what has gathered, in buffers that change hands; it goes past the page, which may be busy. */
    private send(): void {
      if (this.filled === 0) return
      const channels = this.piece.map((channel) => channel.slice(0, this.filled))
      this.target?.postMessage(
        { type: 'piece', firstFrame: this.firstFrame, channels },
        channels.map((channel) => channel.buffer as ArrayBuffer),
      )
      this.firstFrame += this.filled
      this.filled = 0
    }
  }

  registerProcessor('heliaster-engine', EngineProcessor)
  registerProcessor('heliaster-recorder', RecorderProcessor)
  registerMeter()
}

/** How often a meter tells what it reads, in parts of a second. */
const READINGS_PER_SECOND = 10

/** A meter of what passes: it has an input and nothing that comes out. */
function registerMeter(): void {
  class MeterProcessor extends AudioWorkletProcessor {
    private readonly meter = createMixMeter(sampleRate)
    private readonly out: Port<ToMeter, FromMeter>
    private frames = 0

    constructor() {
      super()
      this.out = this.port as unknown as Port<ToMeter, FromMeter>
      this.out.onmessage = () => this.meter.begin()
    }

    process(inputs: Float32Array[][]): boolean {
      const [left, right = left] = inputs[0]
      if (!left) return true
      this.meter.add(left, right, left.length)
      this.frames += left.length
      if (this.frames * READINGS_PER_SECOND < sampleRate) return true
      this.frames = 0
      this.out.postMessage({ type: 'reading', reading: this.meter.read() })
      return true
    }
  }
  registerProcessor('heliaster-meter', MeterProcessor)
}

/** Tells a page that has a copy how memory stands; of events that acted only those since the last time. Returns how many there are. */
function report(memory: EngineMemory, port: Port<ToWorklet, FromWorklet>, told: number): number {
  const { status, done, uses, log, meters } = memory
  const last = doneOf(memory, DoneField.acts)
  port.postMessage({
    type: 'state',
    status: status.slice(),
    done: done.slice(),
    uses: uses.slice(),
    log: log.slice(),
    acts: readActs(memory, told, last),
    meters: meters.slice(),
  })
  meters.fill(0) // told; the page keeps the highest until it looks
  return last
}
