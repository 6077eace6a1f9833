import type * as engineModule from '@heliaster/core/engine'
import type { Audio } from '@heliaster/core/audio'
import type { Kit } from '@heliaster/core/kit'
import type { FromWorklet, ToWorklet } from '../core/engine/hosts/messages'

/** Runs in the page: the same performance in a worker, twice, and in an audio worklet of an offline context. */
export async function renderInPage({ name, rate }: { name: string; rate: number }): Promise<Record<string, string>> {
  interface Performance {
    kit: Kit
    events: { padId: string; frame: number; type: number; velocity?: number; note?: number; key?: number }[]
    audio: [string, { sampleRateHz: number; channels: number[][] }][]
    frames: number
  }
  const given = (window as unknown as { score_(name: string): Promise<Performance> }).score_(name)
  const { kit, events, audio: plain, frames } = await given
  const audio = plain.map(
    ([hash, one]) => [hash, { sampleRateHz: one.sampleRateHz, channels: one.channels.map((c) => Float32Array.from(c)) }] as [string, Audio],
  )
  const url = `/engine/${((await (await fetch('/engine/engine.json')).json()) as { file: string }).file}`
  const hash = async (left: Float32Array, right: Float32Array) => {
    const joined = new Uint8Array(left.byteLength * 2)
    joined.set(new Uint8Array(left.buffer, left.byteOffset, left.byteLength))
    joined.set(new Uint8Array(right.buffer, right.byteOffset, right.byteLength), left.byteLength)
    return [...new Uint8Array(await crypto.subtle.digest('SHA-256', joined))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  }
  const inWorker = (blockFrames: number) =>
    new Promise<string>((resolve) => {
      const worker = new Worker(url, { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<{ left: Float32Array; right: Float32Array }>) => resolve(hash(data.left, data.right))
      worker.postMessage({ id: 1, kit, audio, events, frames, sampleRateHz: rate, blockFrames })
    })
  /** Shared memory, or a copy that messages fill, as on a page that is not isolated. */
  const inWorklet = async (shares: boolean) => {
    const engine = (await import(url)) as typeof engineModule
    const memory = engine.createMemory(true)
    const told: ToWorklet[] = []
    const store = engine.createSampleStore(
      {
        createChunk: (chunk, frames) => {
          told.push({ type: 'chunk', chunk, frames, samples: undefined })
          return engine.addChunk(memory, chunk, frames)
        },
        written: (chunk, startFrame, frames) =>
          told.push({ type: 'samples', chunk, startFrame, samples: memory.chunks[chunk]!.slice(startFrame, startFrame + frames) }),
      },
      engine.MAX_CHUNKS,
    )
    const byHash = new Map(audio)
    const loader = engine.createLoader(memory, store, rate, (wanted) => byHash.get(wanted), {
      send: (event) => (shares ? engine.writeRing(memory, event) : told.push({ type: 'events', events: event }) > 0),
      arenaWritten: (offset, length) => told.push({ type: 'arena', offset, doubles: memory.arena.slice(offset, offset + length) }),
      tableMade: (table, numbers) => told.push({ type: 'table', table, numbers }),
      tablesChanged: () => told.push({ type: 'tables', directory: memory.directory.slice(), programTable: memory.programTable.slice() }),
    })
    loader.load(kit)
    const score = engine.toScore(events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId as Kit['pads'][number]['id']) })))
    const context = new OfflineAudioContext(2, frames, rate)
    await context.audioWorklet.addModule(url)
    const node = new AudioWorkletNode(context, 'heliaster-engine', {
      numberOfInputs: 0,
      outputChannelCount: [2],
      processorOptions: shares ? { memory, score } : { score, told },
    })
    node.connect(context.destination)
    let status = memory.status
    node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => data.type === 'state' && (status = data.status)
    const rendered = await context.startRendering()
    if (status[engine.StatusField.hasKernel] !== 1) return 'not rendered by the kernel'
    return hash(rendered.getChannelData(0), rendered.getChannelData(1))
  }
  return {
    worker: await inWorker(4096),
    workerSmallBlocks: await inWorker(100),
    worklet: await inWorklet(true),
    loneWorklet: await inWorklet(false),
  }
}
