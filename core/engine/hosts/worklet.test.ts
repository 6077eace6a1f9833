import { seeded } from '../../kit/builders'
import { StatusField } from '../program/layout'
import type { EngineState } from '../state'
import type { FromRecorder, ToRecorder } from './messages'
import { registerProcessors } from './worklet'

interface Processor {
  readonly port: { onmessage?: (event: { data: unknown }) => void; readonly sent: { type: string }[] }
  process(inputs: Float32Array[][], outputs: Float32Array[][]): boolean
}
const made = new Map<string, new (options?: object) => Processor>()
const host = Object.assign(globalThis, {
  AudioWorkletProcessor: class {
    readonly port = { sent: [] as unknown[], postMessage: (message: unknown) => void this.port.sent.push(structuredClone(message)) }
  },
  registerProcessor: (name: string, processor: new (options?: object) => Processor) => void made.set(name, processor),
  sampleRate: 48000,
  currentFrame: 0,
})
registerProcessors()

const random = seeded(8)
const block = (channels: number, frames: number) => Array.from({ length: channels }, () => Float32Array.from({ length: frames }, random))

/** A recorder that hears one block after another; what it has sent when it is asked for the rest. */
function recorded(heard: readonly { readonly frame: number; readonly channels: Float32Array[] }[]) {
  const recorder = new (made.get('heliaster-recorder')!)()
  const sent: FromRecorder[] = []
  const tell = (data: ToRecorder) => recorder.port.onmessage!({ data })
  recorder.process([block(1, 128)], []) // nobody listens yet
  tell({ type: 'port', port: { postMessage: (piece: FromRecorder) => void sent.push(piece) } as unknown as MessagePort })
  for (const { frame, channels } of heard) {
    host.currentFrame = frame
    expect(recorder.process([channels], [])).toBe(true)
  }
  tell({ type: 'flush', id: 7 })
  expect(sent.pop()).toEqual({ type: 'flushed', id: 7 })
  return sent.flatMap((piece) => (piece.type === 'piece' ? [piece] : []))
}

test('what a recorder hears it sends on to the last sample, whatever the blocks, and a gap or another count of channels begins a piece', () => {
  for (const frames of [128, 100, 441, 1024]) {
    const heard = Array.from({ length: 40 }, (_, i) => ({
      frame: 5000 + frames * (i + (i > 25 ? 3 : 0)),
      channels: block(i > 11 ? 2 : 1, frames),
    }))
    const pieces = recorded(heard)
    for (const { frame, channels } of heard) {
      const piece = pieces.find(({ firstFrame, channels: [first] }) => firstFrame <= frame && frame < firstFrame + first!.length)!
      expect(piece.channels).toHaveLength(channels.length)
      const from = frame - piece.firstFrame
      channels.forEach((samples, i) => expect(Buffer.from(piece.channels[i]!.slice(from, from + frames).buffer).equals(Buffer.from(samples.buffer))).toBe(true)) // prettier-ignore
    }
    expect(pieces.reduce((sum, { channels }) => sum + channels[0]!.length, 0)).toBe(40 * frames)
    expect(Math.max(...pieces.map(({ channels }) => channels[0]!.length))).toBeLessThanOrEqual(1024)
  }
  expect(recorded([])).toEqual([])
})

test('an engine that shares no memory reports after every eighth block, knows where its context is, and says how it stands', () => {
  const engine = new (made.get('heliaster-engine')!)({ processorOptions: {} })
  for (let i = 0; i < 24; i++) {
    host.currentFrame = 900 + 128 * i
    engine.process([], [block(2, 128), block(2, 128), block(4, 128)])
    expect(engine.port.sent).toHaveLength((i + 1) >> 3)
  }
  expect(engine.port.sent.at(-1)).toMatchObject({ type: 'state' })
  engine.port.onmessage!({ data: { type: 'stand' } })
  expect(engine.port.sent.at(-1)).toMatchObject({ type: 'stood' })
  const { memory } = (engine as unknown as { engine: EngineState }).engine
  expect(memory.status[StatusField.hostFrame]).toBe(900)
})
