import { cutoffDb, dampingOf, parameters } from '@heliaster/core/kit'
import { decayOf, filterFallOf, filterOn, pitchFallOf, withDecay, withFilterFall, withPitchFall } from '@heliaster/core/shaping'
import type { Clearable, OwnSettings, PadSettings } from '@heliaster/core/kit'

import type { PoolAxis } from '../../../ui/controls/Pool'
import { decayHeights, driveHeights, fallHeights, filterHeights } from './glyphs'

/** One pool of the recipe: what it shows, what a finger in it changes. */
export interface QuickPool {
  readonly title: string
  readonly x: PoolAxis
  readonly y?: PoolAxis
  readonly heights: readonly number[]
  readonly rest?: number
  /** What of a pad, ray or turn it sets, to go back to what is inherited. */
  readonly names: readonly Clearable[]
  set(x: number, y: number): OwnSettings
}

type Kept = (next: { readonly driveDb: number; readonly driveAfterDb: number }) => number

const time = (label: string, seconds: number, most: number): PoolAxis => ({
  label,
  value: seconds * 1000,
  min: 1,
  max: most * 1000,
  step: 0.1,
  power: 3,
  unit: 'ms',
  format: (ms) => (ms < 100 ? `${ms.toFixed(1)} ms` : ms < 1000 ? `${Math.round(ms)} ms` : `${(ms / 1000).toFixed(2)} s`),
})
const semitones = (label: string, cents: number, most: number): PoolAxis => ({
  label,
  value: cents / 100,
  min: -most,
  max: most,
  step: 0.1,
  unit: 'st',
  format: (st) => `${st > 0 ? '+' : ''}${st.toFixed(1)} st`,
})

/** What makes any noise a drum, in the order in which people do it. `soundSeconds` is how long it sounds now. */
export function quickPools(settings: PadSettings, soundSeconds: number, keptLevel: Kept): QuickPool[] {
  return [
    decayPool(settings, soundSeconds),
    tunePool(settings),
    fallPool(settings),
    filterPool(settings),
    filterFallPool(settings),
    drivePool(settings, keptLevel),
  ]
}

const LONGEST_SECONDS = 8

function decayPool(settings: PadSettings, soundSeconds: number): QuickPool {
  const { seconds, bend } = decayOf(settings) ?? { seconds: soundSeconds, bend: -0.3 }
  return {
    title: 'Decay',
    x: time('length', seconds, LONGEST_SECONDS),
    y: { label: 'bend', value: bend, min: -1, max: 1, step: 0.01, unit: '', format: bendWords },
    heights: decayHeights(seconds, bend),
    names: ['level', 'decayScale'],
    set: (ms, wanted) => withDecay(settings, { seconds: ms / 1000, bend: wanted }),
  }
}

const bendWords = (bend: number) => (Math.abs(bend) < 0.05 ? 'even' : bend < 0 ? 'early' : 'late')

function tunePool({ values }: PadSettings): QuickPool {
  const octaves = values.tuneCents / 1200
  return {
    title: 'Tune',
    x: semitones('tuning', values.tuneCents, 36),
    heights: Array.from({ length: 2 }, () => 0.5 + octaves / 6),
    rest: 0.5,
    names: ['tuneCents'],
    set: (st) => ({ values: { tuneCents: Math.round(st * 100) } }),
  }
}

function fallPool(settings: PadSettings): QuickPool {
  const { seconds, cents } = pitchFallOf(settings) ?? { seconds: 0.06, cents: 0 }
  return {
    title: 'Pitch fall',
    x: time('time', seconds, 3),
    y: semitones('from', cents, 48),
    heights: fallHeights(seconds, cents),
    rest: 0.5,
    names: ['pitch'],
    set: (ms, st) => withPitchFall(settings, { seconds: ms / 1000, cents: Math.round(st * 100) }),
  }
}

const { min: MIN_DAMPING, max: MAX_DAMPING } = parameters.filter1Damping

function filterPool(settings: PadSettings): QuickPool {
  const { values, choices } = settings
  const { filter1CutoffHz: cutoffHz, filter1Damping: damping, filter1GainDb: gainDb } = values
  const isOff = choices.filter1Kind === 'off'
  const hzWords = (hz: number) => (isOff ? 'off' : hz < 1000 ? `${Math.round(hz)} Hz` : `${(hz / 1000).toFixed(1)} kHz`)
  return {
    title: 'Filter',
    x: { label: 'cutoff', value: isOff ? 18000 : cutoffHz, min: 20, max: 18000, step: 1, power: 4, unit: 'Hz', format: hzWords },
    y: { label: 'resonance', value: cutoffDb(damping), min: -6, max: 26, step: 0.1, unit: 'dB' },
    heights: filterHeights({ kind: choices.filter1Kind, slope: choices.filter1Slope, cutoffHz, damping, gainDb }),
    rest: 0.5,
    names: ['filter1Kind', 'filter1Slope', 'filter1CutoffHz', 'filter1Damping'],
    set: (hz, db) => ({
      ...filterOn(settings),
      values: { filter1CutoffHz: hz, filter1Damping: Math.min(MAX_DAMPING, Math.max(MIN_DAMPING, dampingOf(db))) },
    }),
  }
}

function filterFallPool(settings: PadSettings): QuickPool {
  const { seconds, cents } = filterFallOf(settings) ?? { seconds: 0.1, cents: 0 }
  return {
    title: 'Filter fall',
    x: time('time', seconds, 3),
    y: semitones('from', cents, 96),
    heights: fallHeights(seconds, cents, 9600),
    rest: 0.5,
    names: ['filter1', 'filter1EnvelopeCents'],
    set: (ms, st) => withFilterFall(settings, { seconds: ms / 1000, cents: Math.round(st * 100) }),
  }
}

function drivePool({ values }: PadSettings, keptLevel: Kept): QuickPool {
  const { driveDb, driveAfterDb } = values
  const db = { min: 0, max: 60, step: 0.1, power: 1.5, unit: 'dB' } as const
  return {
    title: 'Drive',
    x: { ...db, label: 'before the filters', value: driveDb },
    y: { ...db, label: 'after them', value: driveAfterDb },
    heights: driveHeights(driveDb + driveAfterDb),
    rest: 0.5,
    names: ['driveDb', 'driveAfterDb', 'driveLevelDb'],
    set: (before, after) => ({
      values: { driveDb: before, driveAfterDb: after, driveLevelDb: keptLevel({ driveDb: before, driveAfterDb: after }) },
    }),
  }
}
