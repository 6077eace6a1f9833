import type { Source } from '@heliaster/core/kit'
import { cellOfFile, patternReader, planByNames, planByPattern, readNames, rolesByExample } from '@heliaster/core/place'
import type { ExampleCell, NamePlan, NameRoles, ReadNames } from '@heliaster/core/place'
import { useMemo, useState } from 'react'

import { keptReading } from './kept-readings'
import { namedFiles } from './place-files'
import { useLikeness } from './use-likeness'
import type { LoudnessOf } from './use-loudness'

/** A file that someone has put into a cell, for others to follow. Bands and turns count from 0. */
export interface ShownFile {
  readonly file: Source
  readonly band: number
  readonly turn: number
}

export interface Reading {
  readonly read: ReadNames
  readonly plan: NamePlan
  /** Whether files are still being listened to, so that the plan may change. */
  readonly isListening: boolean
  /** The file whose name stands for all, by its place. */
  readonly example: number
  /** Whether it is as it was said of these very sounds before, under whatever names. */
  readonly isKept: boolean
  /** Whether someone has said what parts of names are. */
  readonly isTaught: boolean
  /** Whether no reading of the names puts the file that was shown into its cell. */
  readonly isLost: boolean
  /** How names are made, as someone has typed it; empty where they are compared with each other. */
  readonly pattern: string
  readonly patternFault?: string
  setPattern(pattern: string): void
  lookAtAnother(): void
  /** Says what parts of the names are, besides what was said before. */
  say(roles: NameRoles): void
  /** Says in which band or turn the example belongs. False where no reading of the names does that. */
  show(where: Pick<ExampleCell, 'band' | 'turn'>): boolean
  forget(): void
}

/** The first of those that have most parts. */
export function fullest(names: ReadNames['parts']): number {
  return names.reduce((best, parts, i) => (parts.length > names[best]!.length ? i : best), 0)
}

/** What the names of files say, and what someone has said of them. */
export function useReading(files: readonly Source[], loudness: LoudnessOf, shown?: ShownFile): Reading {
  const first = Math.max(
    0,
    files.findIndex(({ id }) => id === shown?.file.id),
  )
  const [chosen, setExample] = useState<number>()
  const [said, setSaid] = useState<NameRoles>()
  const named = useMemo(() => namedFiles(files, loudness), [files, loudness])
  const [pattern, setPattern] = useState('')
  const reader = useMemo(() => (pattern === '' ? undefined : patternReader(pattern)), [pattern])
  const { likeness, isListening } = useLikeness(files, named)
  const taught = useMemo(
    () => (shown ? rolesByExample(named, { ...shown, file: first }, {}, likeness) : undefined),
    [named, shown, first, likeness],
  )
  const roles = said ?? taught
  const read = useMemo(() => readNames(named, roles, likeness), [named, roles, likeness])
  // Where none was shown, the first name that says most shows best how names are read.
  const example = chosen ?? (shown ? first : fullest(read.parts))
  const [isForgotten, setForgotten] = useState(false)
  const kept = useMemo(() => (shown || isForgotten ? undefined : keptReading(files)), [files, shown, isForgotten])
  const isKept = kept !== undefined && said === undefined && pattern === ''
  const plan = useMemo(() => {
    if (typeof reader === 'function') return planByPattern(named, reader)
    return planByNames(named, isKept ? { facts: kept } : read)
  }, [named, read, reader, isKept, kept])
  return {
    read,
    plan,
    isListening,
    example,
    pattern,
    patternFault: typeof reader === 'string' ? reader : undefined,
    setPattern,
    isKept,
    isTaught: isKept || (roles !== undefined && Object.keys(roles).length > 0) || pattern !== '',
    isLost: shown !== undefined && said === undefined && taught === undefined,
    lookAtAnother: () => setExample((example + Math.max(1, Math.floor(files.length / 5))) % files.length),
    say: (more) => setSaid({ ...roles, ...more }),
    show(where) {
      const cell = cellOfFile(plan, example)
      const found =
        rolesByExample(named, { ...cell, ...where, file: example }, roles, likeness) ??
        rolesByExample(named, { ...where, file: example }, roles, likeness)
      if (found) setSaid(found)
      return found !== undefined
    },
    forget() {
      setForgotten(true)
      setSaid({})
      setPattern('')
    },
  }
}
