import { aKit, seeded } from '../../kit/builders'
import type { BusId, InsertId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { createBus } from '../../kit/make'
import { createLoader } from '../memory/loader'
import { createMemory, MAX_CHUNKS } from '../memory/memory'
import { CHUNK_SAMPLES, createSampleStore } from '../memory/sample-store'
import { renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'
import { StatusField } from '../program/layout'
import { createEngine } from '../state'
import type { ToWorklet } from './messages'
import { receive } from './receive'

const RATE = 48000
const random = seeded(3)
const noise = () => ({ sampleRateHz: 44100, channels: [0, 1].map(() => Float32Array.from({ length: 9000 }, () => random() - 0.5)) })
const rig = aKit([{ own: { values: { tuneCents: 300 } }, bands: [[noise(), noise()]] }, { bands: [[noise()]] }])
const echo = { id: 'e' as InsertId, kind: 'echo' as const, values: { seconds: 0.05, mix: 0.4 }, choices: {}, bypass: false }
const kit: Kit = {
  ...rig.kit,
  buses: [{ ...createBus('b' as BusId, 'Lee'), inserts: [echo] }],
  pads: rig.kit.pads.map((pad) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, bus: 'b' as BusId })) })),
}
const events = Array.from({ length: 12 }, (_, i) => ({ frame: 1700 * i, type: EventType.strike, padSlot: i % 2, velocity: 60 + 5 * i }))

/** An engine that is told of a kit in messages; its memory gives out after so many chunks. */
function told(chunks: number) {
  const memory = createMemory(false)
  const engine = createEngine(memory, RATE)
  const grow = memory.wasm!.grow.bind(memory.wasm)
  let left = chunks
  memory.wasm!.grow = (pages) => {
    if (left-- <= 0) throw new RangeError('WebAssembly.Memory.grow(): Unable to grow instance memory')
    return grow(pages)
  }
  const tell = (message: ToWorklet) => void receive(engine, structuredClone(message))
  const page = createMemory(false)
  const backing = {
    createChunk(chunk: number, frames: number) {
      if (frames >= CHUNK_SAMPLES) throw new RangeError('each region has a chunk of its own here')
      tell({ type: 'chunk', chunk, frames, samples: undefined })
      return (page.chunks[chunk] = new Float32Array(frames))
    },
    written: (chunk: number, startFrame: number, frames: number) =>
      tell({ type: 'samples', chunk, startFrame, samples: page.chunks[chunk]!.slice(startFrame, startFrame + frames) }),
  }
  const loader = createLoader(page, createSampleStore(backing, MAX_CHUNKS), RATE, (hash) => rig.audio.get(hash), {
    send(event) {
      tell({ type: 'events', events: event })
      return true
    },
    arenaWritten: (offset, length) => tell({ type: 'arena', offset, doubles: page.arena.slice(offset, offset + length) }),
    tableMade: (table, numbers) => tell({ type: 'table', table, numbers }),
    tablesChanged: () => tell({ type: 'tables', directory: page.directory, programTable: page.programTable }),
  })
  loader.load(kit)
  return { engine, sound: renderOffline(engine, toScore(events), 24_000) }
}

test('where the memory of the kernel gives out, samples and effects lie beside it and sound the same, by the plain form', () => {
  const whole = told(Infinity)
  expect([whole.engine.kernel === undefined, whole.engine.memory.status[StatusField.hasKernel]]).toEqual([false, 1])
  expect(whole.sound[0].some((sample) => Math.abs(sample) > 0.1)).toBe(true)
  for (const chunks of [0, 1, 3]) {
    const refused = told(chunks)
    expect([refused.engine.kernel, refused.engine.memory.status[StatusField.hasKernel]]).toEqual([undefined, 0])
    expect(refused.sound).toEqual(whole.sound)
  }
})
