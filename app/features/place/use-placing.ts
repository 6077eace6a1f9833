import { clipsOfPad } from '@heliaster/core/kit'
import type { Kit, Pad, Source, Start } from '@heliaster/core/kit'
import { compareNames, putRight } from '@heliaster/core/place'
import type { NamePlan } from '@heliaster/core/place'
import { useMemo, useState } from 'react'

import { useSession } from '../../kit-view/session'
import { inGroup } from '../../kit-view/GroupChoice'
import { begunPads } from '../starts'
import { drumsAmong, withDrums } from './DrumsOffer'
import { keepReading } from './kept-readings'
import { placeEdits, placeFiles } from './place-files'
import type { PlaceWay } from './place-files'
import { useLoudness } from './use-loudness'
import { useReading } from './use-reading'
import type { ShownFile } from './use-reading'
import { useWrongFiles } from './use-wrong-files'

/** Files that are to go onto pads. */
export interface Given {
  readonly files: readonly Source[]
  /** A pad whose clips are replaced while its settings stay; new pads without one. */
  readonly onto?: Pad
  /** A file that someone has put into its cell, for the others to follow. */
  readonly shown?: ShownFile
}

/** Files on their way to pads: how they go, what is chosen about it, and what comes of it. */
export function usePlacing(kit: Kit | undefined, { files: given, onto, shown }: Given) {
  const files = useMemo(() => [...given].sort((a, b) => compareNames(a.name, b.name)), [given])
  const [chosenWay, setWay] = useState<PlaceWay>()
  const [stays, setStays] = useState(false)
  const [bandCount, setBandCount] = useState<number>()
  const [start, setStart] = useState<Start>()
  const [drumNames, setDrumNames] = useState<ReadonlySet<string>>(new Set())
  const group = useSession((state) => state.newGroup)
  const loudness = useLoudness(files)
  const reading = useReading(files, loudness, shown)
  const { plan: named } = reading
  const way = chosenWay ?? (saysMore(named, files.length) ? 'names' : onto ? 'turns' : 'pads')
  const wrong = useWrongFiles(files, named, way === 'names')
  const [righted, setRighted] = useState<NamePlan>()
  const names = useMemo(() => files.map((file) => file.name), [files])
  const isRighted = righted === named
  const plan = useMemo(() => (isRighted ? putRight(named, wrong, names) : named), [named, isRighted, wrong, names])
  const placing = useMemo(
    () => (kit ? placeFiles(kit, files, { way, plan, onto, stays, loudness, bandCount }) : undefined),
    [kit, files, way, plan, onto, stays, loudness, bandCount],
  )
  const drums = useMemo(() => (kit && placing && !onto ? drumsAmong(kit, placing.pads) : []), [kit, placing, onto])
  const clips = placing?.pads.reduce((sum, pad) => sum + clipCount(pad), 0) ?? 0
  return {
    files,
    names,
    way,
    chooseWay: (next: PlaceWay) => (setWay(next), setBandCount(undefined)),
    stays,
    setStays,
    setBandCount,
    start,
    setStart,
    drums,
    drumNames,
    setDrumNames,
    reading,
    wrong,
    isRighted,
    setRighted: (right: boolean) => setRighted(right ? named : undefined),
    plan,
    placing,
    placed: Math.min(files.length, clips),
    /** What lays the files down, and keeps how their names were read where someone has taught it. */
    edits(toKit: Kit) {
      const pads = placing?.pads ?? []
      const begun = begunPads(toKit, inGroup(toKit, pads, group), onto ? undefined : start)
      const laid = [...placeEdits(toKit, files, { ...placing!, pads: begun.pads }), ...begun.edits]
      if (way === 'names' && reading.isTaught && !reading.isKept) keepReading(files, plan)
      return withDrums(toKit, laid, drums.filter(({ name }) => drumNames.has(name))) // prettier-ignore
    },
  }
}

export type Placing = ReturnType<typeof usePlacing>

/** Names decide where they tell more than that each file is another thing: of half of them, which belong together. */
function saysMore({ pads }: NamePlan, files: number): boolean {
  const counts = pads.map(({ bands }) => bands.flatMap(({ turns }) => turns.map((turn) => turn.files.size)).reduce((sum, own) => sum + own, 0)) // prettier-ignore
  return counts.filter((count) => count > 1).reduce((sum, count) => sum + count, 0) >= Math.max(2, files / 2)
}

function clipCount(pad: Pad): number {
  return clipsOfPad(pad).length
}
