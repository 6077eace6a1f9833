import type { Audio } from '../../audio/audio'
import type { AudioHash } from '../../kit/ids'
import type { Clip } from '../../kit/kit'
import { log2 } from '../math'
import type { Reading } from '../program/context'
import { clipKey, clipSamples } from './clip-region'
import { leastRound } from './levels'
import { layLoop, loopKey, loopOfClip } from './loops'
import type { LaidLoop } from './loops'
import { putReadingTable } from './memory'
import type { EngineMemory } from './memory'
import { readingUpTo } from './reading-tables'
import type { Region, SampleStore } from './sample-store'
import { createScratch } from './scratch'

/** What a program that is being compiled holds, and what it has to do without. */
export interface Wants {
  readonly keys: string[]
  /** Audio that is not at hand. */
  readonly lacks: Set<AudioHash>
  /** Audio that there was no memory for. */
  readonly refused: Set<AudioHash>
}

interface Placed {
  region: Region
  users: number
}

export interface ClipPlaces {
  /** Finds or places the samples of a clip, and notes in `now` what the program holds and what it has to do without. */
  regionOf(clip: Clip, reading: Reading, now: Wants): Region | undefined
  /** A program less plays what a key stands for. Returns whether its samples were given back. */
  letGo(key: string): boolean
  /** Whether audio is at hand now. */
  isAtHand(hash: AudioHash): boolean
  /** Whether audio was placed: what lies in memory needs its file no more. */
  wasPlaced(hash: AudioHash): boolean
}

/** Places of clips in the engine's memory, each as it is read, as long as a program plays them. `tableMade` is told of each table by which clips are read. */
export function createClipPlaces(
  memory: EngineMemory,
  store: SampleStore,
  sampleRateHz: number,
  audioOf: (audio: AudioHash) => Audio | undefined,
  tableMade: (table: number, numbers: Float32Array) => void,
): ClipPlaces {
  const placed = new Map<string, Placed>()
  /** Rates of audio that was placed. */
  const rates = new Map<AudioHash, number>()
  const scratch = createScratch()

  /** Makes the tables by which clips are read up to so many octaves above the engine's rate; returns the levels they need for that. */
  function putTables(octaves: number): number {
    const { levels, tables } = readingUpTo(octaves)
    for (let table = 0; table < tables; table++) {
      const numbers = putReadingTable(memory, table)
      if (numbers) tableMade(table, numbers)
    }
    return levels
  }

  function placeIfRoom(channels: readonly Float32Array[], rateHz: number, levels: number, round: boolean | LaidLoop): Region | undefined {
    try {
      return store.place(channels, rateHz, levels, round)
    } catch (error) {
      if (error instanceof RangeError) return undefined // the device gives no more memory
      throw error
    }
  }

  return {
    regionOf(clip, { mostCents, loops, alongLoop }, now) {
      const audio = audioOf(clip.audio)
      const rateHz = audio?.sampleRateHz ?? rates.get(clip.audio) ?? sampleRateHz
      const levels = putTables(mostCents / 1200 + log2(rateHz / sampleRateHz))
      const loop = alongLoop ? loopOfClip(clip, rateHz) : undefined
      const key = `${clipKey(clip)}|${levels}|${loop ? loopKey(loop) : loops}`
      let entry = placed.get(key)
      if (!entry) {
        if (!audio || audio.channels.length === 0) {
          now.lacks.add(clip.audio)
          return undefined
        }
        rates.set(clip.audio, rateHz)
        const plain = clipSamples(audio, clip, scratch.clear().roomFor)
        const { channels, laid } = loop ? layLoop(plain, loop, leastRound(levels)) : { channels: plain, laid: loops }
        const region = placeIfRoom(channels, audio.sampleRateHz, levels, laid)
        if (!region) {
          now.refused.add(clip.audio)
          return undefined
        }
        entry = { region, users: 0 }
        placed.set(key, entry)
      }
      entry.users++
      now.keys.push(key)
      return entry.region
    },
    letGo(key) {
      const entry = placed.get(key)
      if (!entry || --entry.users > 0) return false
      store.free(entry.region)
      placed.delete(key)
      return true
    },
    isAtHand: (hash) => audioOf(hash) !== undefined,
    wasPlaced: (hash) => rates.has(hash),
  }
}
