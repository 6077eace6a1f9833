import { GUARD_FRAMES } from '../program/layout'
import { laidLength, layOut } from './levels'
import type { LaidLoop } from './loops'

/** Where a region lies: its chunk, the frame of its first sample for each channel, and how it is to be played. */
export interface Region {
  readonly chunk: number
  readonly left: number
  /** -1 for one channel. */
  readonly right: number
  readonly frames: number
  readonly sampleRateHz: number
  /** How many levels of lower rates lie behind each channel. */
  readonly levels: number
  /** The part of it that goes round. */
  readonly loop?: LaidLoop
}

/** Keeps the regions that pads play, in memory the engine reads. One interface over shared and copied backings. */
export interface SampleStore {
  /**
   * Samples with so many levels of lower rates; `round` says that their end goes on at their start, or where. Throws a RangeError
   * where there is no more memory.
   */
  place(channels: readonly Float32Array[], sampleRateHz: number, levels?: number, round?: boolean | LaidLoop): Region
  /** As many samples as are asked for, for the engine to write into. Throws as `place` does. */
  reserve(length: number): Region
  free(region: Region): void
  /** Samples that regions take, with their guards and levels. */
  readonly usedSamples: number
}

/** How a chunk comes to be, and who is told when samples have been written into it. */
export interface ChunkBacking {
  createChunk(chunk: number, frames: number): Float32Array
  written(chunk: number, startFrame: number, frames: number): void
}

/** 16 MiB of samples; a longer region gets a chunk of its own. */
export const CHUNK_SAMPLES = 4 * 1024 * 1024

interface Chunk {
  readonly samples: Float32Array
  /** Free runs, in order. */
  free: { start: number; length: number }[]
}

export function createSampleStore(backing: ChunkBacking, maxChunks: number): SampleStore {
  const chunks: Chunk[] = []
  const lengths = new Map<Region, number>()
  let usedSamples = 0

  function take(length: number): { chunk: number; start: number } {
    for (let index = 0; index < chunks.length; index++) {
      const start = takeFrom(chunks[index], length)
      if (start >= 0) return { chunk: index, start }
    }
    if (chunks.length >= maxChunks) throw new RangeError(`The sample store holds at most ${maxChunks} chunks.`)
    const index = chunks.length
    const samples = createChunk(index, length)
    chunks.push({ samples, free: [{ start: 0, length: samples.length }] })
    return { chunk: index, start: takeFrom(chunks[index], length) }
  }

  /** Where a whole chunk cannot be had, as much as is needed now. */
  function createChunk(index: number, length: number): Float32Array {
    if (length >= CHUNK_SAMPLES) return backing.createChunk(index, length)
    try {
      return backing.createChunk(index, CHUNK_SAMPLES)
    } catch {
      return backing.createChunk(index, length)
    }
  }

  return {
    get usedSamples() {
      return usedSamples
    },
    place(channels, sampleRateHz, levels = 0, round = false) {
      const loop = typeof round === 'boolean' ? undefined : round
      const roundFrom = loop ? loop.roundFrom : round ? 0 : -1
      const frames = channels[0].length
      const stride = laidLength(frames, levels)
      const length = stride * channels.length
      const { chunk, start } = take(length)
      const samples = chunks[chunk].samples
      channels.forEach((channel, index) => {
        const at = start + index * stride
        layOut(samples.subarray(at, at + stride), channel, levels, roundFrom)
      })
      backing.written(chunk, start, length)
      usedSamples += length
      const left = start + GUARD_FRAMES
      const region: Region = {
        chunk,
        left,
        right: channels.length > 1 ? left + stride : -1,
        frames,
        sampleRateHz,
        levels,
        ...(loop ? { loop } : {}),
      }
      lengths.set(region, length)
      return region
    },
    reserve(length) {
      const { chunk, start } = take(length + 2 * GUARD_FRAMES)
      usedSamples += length + 2 * GUARD_FRAMES
      const region: Region = { chunk, left: start + GUARD_FRAMES, right: -1, frames: length, sampleRateHz: 0, levels: 0 }
      lengths.set(region, length + 2 * GUARD_FRAMES)
      return region
    },
    free(region) {
      const length = lengths.get(region)
      if (length === undefined) return
      lengths.delete(region)
      usedSamples -= length
      giveBack(chunks[region.chunk], region.left - GUARD_FRAMES, length)
    },
  }
}

function takeFrom(chunk: Chunk, length: number): number {
  const run = chunk.free.find((candidate) => candidate.length >= length)
  if (!run) return -1
  const start = run.start
  run.start += length
  run.length -= length
  if (run.length === 0) chunk.free = chunk.free.filter((other) => other !== run)
  return start
}

function giveBack(chunk: Chunk, start: number, length: number): void {
  const runs = [...chunk.free, { start, length }].sort((a, b) => a.start - b.start)
  const joined: typeof runs = []
  for (const run of runs) {
    const last = joined[joined.length - 1]
    if (last && last.start + last.length === run.start) last.length += run.length
    else joined.push({ ...run })
  }
  chunk.free = joined
}
