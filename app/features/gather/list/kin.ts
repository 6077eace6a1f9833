import { kinSteps, soundingOfMeasured } from '@heliaster/core/alike'
import type { KinWay, Sounding } from '@heliaster/core/alike'
import type { Source, SourceId } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { create } from 'zustand'

import { measureNow } from '../../../audio/files/measure-later'

/** What others are ordered by. A hit is no sound of the list, so it has no id. */
export interface KinQuery {
  readonly name: string
  readonly sounding: Sounding
  readonly id?: SourceId
}

/** The sound whose kin the list shows, and which way they are to lie from it; all of the list without one. */
export const kin = create<{ readonly query?: KinQuery; readonly way?: KinWay }>(() => ({}))

export function showKin(query: KinQuery): void {
  kin.setState({ query, way: undefined }, true)
}

export function endKin(): void {
  kin.setState({}, true)
}

const known = new WeakMap<NonNullable<Source['measured']>, Sounding | null>()

/** What a sound is found by; read from its document once. */
export function soundingOfSource({ measured }: Source): Sounding | undefined {
  if (!measured) return undefined
  const before = known.get(measured)
  if (before !== undefined) return before ?? undefined
  const sounding = soundingOfMeasured(measured)
  known.set(measured, sounding ?? null)
  return sounding
}

/** Those that are shown, by likeness to what was asked for, the nearest first; in short steps. */
export function kinShown(shown: readonly Source[], query: KinQuery, way?: KinWay): Generator<void, Source[], void> {
  return kinSteps(query.sounding, shown.filter(({ id }) => id !== query.id), soundingOfSource, way) // prettier-ignore
}

const SLICE_MS = 8

/** The kin of the sound that is asked for, found without holding up the page; what was found before stands until then. */
export function useKin(sounds: readonly Source[], query: KinQuery | undefined, way: KinWay | undefined): readonly Source[] {
  const [found, setFound] = useState<readonly Source[]>(NONE)
  useEffect(() => {
    if (!query) return setFound(NONE)
    const steps = kinShown(sounds, query, way)
    let timer: ReturnType<typeof setTimeout>
    const goOn = () => {
      const until = performance.now() + SLICE_MS
      while (performance.now() < until) {
        const { done, value } = steps.next()
        if (done) return setFound(value)
      }
      timer = setTimeout(goOn)
    }
    timer = setTimeout(goOn)
    return () => clearTimeout(timer)
  }, [sounds, query, way])
  return found
}

const NONE: readonly Source[] = []

/** Longer ones are recordings of many things, which are like nothing. */
const ONE_THING_SECONDS = 6

/** Sounds that came in before likeness was measured. */
export function unmeasured(all: readonly Source[]): Source[] {
  return all.filter((source) => !source.measured?.portrait && source.info.frames <= ONE_THING_SECONDS * source.info.sampleRateHz)
}

/** Measures them one after another, until someone stops it. */
export async function measureAll(sounds: readonly Source[], goesOn: () => boolean, onTried: (id: SourceId) => void): Promise<void> {
  for (const source of sounds) {
    if (!goesOn()) return
    await measureNow(source)
    if (goesOn()) onTried(source.id)
  }
}
