import { ACT_RECORDS, addChunk, DoneField, EventField } from '@heliaster/core/engine'
import type { EngineMemory } from '@heliaster/core/engine'

import type { ToWorklet, WorkletState } from '../../../core/engine/hosts/messages'

/** Where samples lie: in memory that page and worklet share, else in two copies that messages keep alike. */
export function chunkBacking(memory: EngineMemory, shared: boolean, tell: (message: ToWorklet, transfer?: Transferable[]) => void) {
  return {
    createChunk(chunk: number, frames: number): Float32Array {
      const samples = shared ? addChunk(memory, chunk, frames) : (memory.chunks[chunk] = new Float32Array(frames))
      tell({ type: 'chunk', chunk, frames, samples: shared ? samples : undefined })
      return samples
    },
    written(chunk: number, startFrame: number, frames: number): void {
      if (shared) return
      const samples = memory.chunks[chunk]!.slice(startFrame, startFrame + frames)
      tell({ type: 'samples', chunk, startFrame, samples }, [samples.buffer])
    },
  }
}

/** Takes up what the worklet says of itself, where nothing is shared. */
export function takeState(memory: EngineMemory, { status, done, uses, log, acts, meters }: WorkletState): void {
  memory.status.set(status)
  memory.done.set(done)
  memory.uses.set(uses)
  memory.log.set(log)
  const width = EventField.length
  const first = done[DoneField.acts] - acts.length / width
  for (let i = 0; i < acts.length / width; i++)
    memory.acts.set(acts.subarray(i * width, (i + 1) * width), ((first + i) % ACT_RECORDS) * width)
  for (let i = 0; i < meters.length; i++) if (meters[i] > memory.meters[i]) memory.meters[i] = meters[i]
}
