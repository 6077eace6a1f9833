import { evenGains } from '@heliaster/core/cut'
import type { LiveMarker } from '@heliaster/core/cut'
import type { HitSettings, Repairs, Source } from '@heliaster/core/kit'
import { fitWords } from '@heliaster/core/ship'
import type { Fit } from '@heliaster/core/ship'
import { useRef, useState } from 'react'

import { notify } from '../../../ui/layout/notices'
import type { CutHit } from '../bench/use-source-cut'
import { writeOut } from './write-out'

export type Measure = 'loudness' | 'peak'
type Changes = readonly { readonly marker: LiveMarker; readonly clip: HitSettings }[]

export interface RepairNeeds {
  readonly source: Source
  readonly chosen: CutHit | undefined
  /** What the list shows and nobody has passed. */
  readonly listed: readonly CutHit[]
  readonly onSlide: (changes: Changes) => void
  readonly onDone: () => void
  readonly onHear: (item: CutHit) => void
}

/** Repairs of one hit or of all that are listed: what they are, and what changes them. */
export function useRepairs({ source, chosen, listed, onSlide, onDone, onHear }: RepairNeeds) {
  const [scope, setScope] = useState<'one' | 'all'>(chosen ? 'one' : 'all')
  const [by, setBy] = useState<Measure>('loudness')
  const [share, setShare] = useState(0)
  const [targets, setTargets] = useState({ peak: -1, loudness: -14 })
  const items = scope === 'one' && chosen ? [chosen] : listed
  const settings = items.map(({ marker }) => marker.clip ?? {})
  const changed = useRef<Changes>([])
  const change = (make: (before: HitSettings, i: number) => HitSettings) => {
    changed.current = items.map(({ marker }, i) => ({ marker, clip: tidy(make(marker.clip ?? {}, i)) }))
    onSlide(changed.current)
  }
  /** Ends the change and sounds a hit as it is now, not as it was drawn last. */
  const hearThem = () => {
    onDone()
    const item = items.includes(chosen as CutHit) ? chosen : items[0]
    const now = changed.current.find(({ marker }) => marker.id === item?.marker.id)
    if (item) onHear({ ...item, marker: { ...item.marker, clip: now?.clip ?? item.marker.clip } })
  }
  const levelOf = ({ hit }: CutHit) => (by === 'loudness' ? hit?.loudnessDb : hit?.peakDb) ?? -Infinity
  const highest = Math.max(-Infinity, ...items.map((item) => levelOf(item) + (item.marker.clip?.gainDb ?? 0)))
  return {
    scope,
    setScope,
    by,
    setBy,
    share,
    items,
    isUntouched: settings.every((clip) => Object.keys(clip).length === 0),
    /** The setting that all share, if they do. */
    one: <K extends keyof HitSettings>(key: K) => same(settings.map((clip) => clip[key])),
    fix: <K extends keyof Repairs>(key: K) => same(settings.map((clip) => clip.repairs?.[key])),
    /** Follows a drag; `hearThem` ends it. */
    slide: (changes: HitSettings) => change((before) => ({ ...before, ...changes })),
    repair: (changes: Partial<Repairs>) => change((before) => ({ ...before, repairs: { ...before.repairs, ...changes } })),
    set(changes: HitSettings) {
      change((before) => ({ ...before, ...changes }))
      hearThem()
    },
    hearThem,
    /** Brings all nearer to one level, by `percent` of the way. */
    even(percent: number) {
      setShare(percent)
      const gains = evenGains(items.map(levelOf), percent / 100)
      change((before, i) => ({ ...before, gainDb: Math.min(60, Math.round(gains[i] * 100) / 100) }))
    },
    onDone,
    target: targets[by],
    setTarget: (db: number) => setTargets({ ...targets, [by]: Math.min(0, Math.max(-60, db)) }),
    canReach: Number.isFinite(highest),
    /** Brings the loudest to the level to reach, and all others as far. */
    bringThere() {
      const byDb = targets[by] - highest
      change((before) => ({ ...before, gainDb: Math.max(-120, Math.min(60, Math.round(((before.gainDb ?? 0) + byDb) * 100) / 100)) }))
      hearThem()
    },
    undoAll() {
      setShare(0)
      change(() => ({}))
      hearThem()
    },
    ...useWriting(source, items),
  }
}

export type Repairing = ReturnType<typeof useRepairs>

/** Writing hits out as new files, and what is said of those that are too loud for one. */
function useWriting(source: Source, items: readonly CutHit[]) {
  const [isWriting, setIsWriting] = useState(false)
  const [fit, setFit] = useState<Fit>('together')
  const peaks = items.map(({ hit, marker }) => 10 ** (((hit?.peakDb ?? -Infinity) + (marker.clip?.gainDb ?? 0)) / 20))
  const write = async () => {
    setIsWriting(true)
    const written = await writeOut(source, items, fit)
    setIsWriting(false)
    notify(written)
  }
  const tooLoud = fitWords(
    peaks.filter((peak) => peak > 0),
    fit,
  )
  return { isWriting, fit, setFit, tooLoud, write }
}

/** The value all share, or undefined. */
function same<T>(values: readonly (T | undefined)[]): T | undefined {
  return values.every((value) => value === values[0]) ? values[0] : undefined
}

/** Leaves out what is not set, so that a hit without repairs carries none. */
function tidy(clip: HitSettings): HitSettings {
  const repairs = clip.repairs && without(clip.repairs)
  return without({ ...clip, repairs: repairs && Object.keys(repairs).length > 0 ? repairs : undefined })
}

function without<T extends object>(given: T): T {
  return Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)) as T
}
