import type { EffectMemory, PlacedEffect } from '../program/context'
import { MAX_UNITS } from '../program/layout'
import { createSlots } from './arena'
import type { Region, SampleStore } from './sample-store'

interface Entry {
  readonly place: PlacedEffect<EffectMemory>
  readonly region: Region | undefined
  users: number
}

/** Places and memory of effects by their keys, as long as a program holds them. */
export function createEffectPlaces(store: SampleStore) {
  const entries = new Map<string, Entry>()
  const units = createSlots<string>(0, MAX_UNITS)

  function lay({ floats, samples }: EffectMemory): Region | undefined {
    if (samples) return store.place([samples], 0)
    return floats > 0 ? store.reserve(floats) : undefined
  }

  return {
    /** Holds the effect of a key once more. Undefined where `make` gives nothing or all places are taken; throws a RangeError where there is no memory. */
    hold(key: string, make: () => EffectMemory | undefined): PlacedEffect<EffectMemory> | undefined {
      let entry = entries.get(key)
      if (!entry) {
        const made = make()
        const unit = made && units.of(key)
        if (!made || unit === undefined) return undefined
        try {
          const region = lay(made)
          const { samples: _laid, ...kept } = made
          entry = { place: { unit, chunk: region?.chunk ?? -1, lines: region?.left ?? 0, made: kept }, region, users: 0 }
        } catch (error) {
          units.giveBack(key)
          throw error
        }
        entries.set(key, entry)
      }
      entry.users++
      return entry.place
    },
    /** Returns whether the effect was known, and let go of. */
    letGo(key: string): boolean {
      const entry = entries.get(key)
      if (!entry) return false
      if (--entry.users > 0) return true
      if (entry.region) store.free(entry.region)
      entries.delete(key)
      units.giveBack(key)
      return true
    },
    unitOf: (start: string): number | undefined => [...units.slots].find(([key]) => key.startsWith(start))?.[1],
  }
}
