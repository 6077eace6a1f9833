import type { GrooveId, Kit, KitId, PadId, Source, Start } from '@heliaster/core/kit'
import { suggestBands } from '@heliaster/core/place'
import type { BandLevels } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'

import { chooseGroove } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { notify } from '../../../ui/layout/notices'
import { editKit } from '../../../kit-view'
import { inGroup } from '../../../kit-view/GroupChoice'
import { session, useSession } from '../../../kit-view/session'
import { padName } from '../../../kit-view/use-kit'
import { useRhythmChoice } from './RhythmThings'
import { rhythmEdits } from './rhythm-edits'
import { loopEdits, padsToSend, sendEdits, tillerEdits } from './send-hits'
import type { SendOrder, SendWay } from './send-hits'
import type { CutHit } from '../bench/use-source-cut'
import { useThings } from '../bench/use-things'

export interface ToSend {
  readonly kit: Kit
  readonly source: Source
  readonly hits: readonly CutHit[]
}

export type Sending = ReturnType<typeof useSending>

/** How hits are sent to pads, as far as it is chosen: what would be made of them, and the one edit that makes it. */
export function useSending({ kit, source, hits }: ToSend, first: SendWay, onSent: () => void) {
  const [way, setWay] = useState<SendWay>(first)
  const [order, setOrder] = useState<SendOrder>('time')
  const [levels, setLevels] = useState<BandLevels>('kept')
  const [start, setStart] = useState<Start>()
  const [target, setTarget] = useState<PadId | 'new'>('new')
  const suggestedBands = useMemo(() => Math.max(1, suggestBands(hits.map(({ hit }) => hit!.loudnessDb))), [hits])
  const [bandCount, setBandCount] = useState(suggestedBands)
  const [wantsTempo, setWantsTempo] = useState<boolean>()
  const group = useSession((state) => state.newGroup)
  const things = useThings(source, hits)
  const rhythm = useRhythmChoice(source, hits, way === 'rhythm', kit.tempoBpm)
  const groups = way === 'rhythm' ? rhythm.things : things?.groups
  const onto = target === 'new' ? undefined : target
  const pads = useMemo(
    () =>
      padsToSend(kit, source, hits, {
        way,
        order: way === 'loop' ? 'time' : order,
        bandCount,
        levels,
        onto,
        start: start?.pad,
        groups,
      }),
    [kit, source, hits, way, order, bandCount, levels, onto, start, groups],
  )
  const hasGroove = way === 'loop' || way === 'rhythm'
  const into = kit.pads.find((pad) => pad.id === onto)
  const takesTempo = wantsTempo ?? kit.grooves.every(({ strings }) => strings.every(({ beads }) => beads.length === 0))
  const placed = pads.reduce((sum, pad) => sum + pad.bands.reduce((turns, band) => turns + band.turns.length, 0), 0)
  const send = (kitId: KitId) => {
    const grooveId = makeId<GrooveId>('groove')
    editKit(kitId, [
      ...sendEdits(kit, source, inGroup(kit, pads, group), hits),
      ...tillerEdits(kit, pads, start),
      ...(way === 'loop' ? loopEdits(source, hits, pads, grooveId, takesTempo) : []),
      ...(way === 'rhythm' ? rhythmEdits(source, { hits, things: groups ?? [], pads }, grooveId, { ...rhythm, takesTempo }) : []),
    ])
    session.setState({ padId: pads[0]?.id })
    notify(
      pads.length > 1
        ? `${pads.length} pads are on the Board.`
        : `${placed === 1 ? '1 hit is' : `${placed} hits are`} on ${into ? padName(kit, into) : 'a new pad'}.`,
    )
    onSent()
    if (hasGroove) chooseGroove(grooveId)
    router.navigate(`/kit/${kitId}/${hasGroove ? 'groove' : 'board'}`)
  }
  return {
    way,
    setWay,
    order,
    setOrder,
    levels,
    setLevels,
    start,
    setStart,
    target,
    setTarget,
    suggestedBands,
    bandCount,
    setBandCount,
    takesTempo,
    setWantsTempo,
    things,
    rhythm,
    pads,
    /** The pad whose clips are replaced, or from which on they are. */
    into,
    /** Whether hits, or things that were struck, become pads of their own. */
    isEach: way === 'pads' || way === 'loop' || way === 'things' || way === 'rhythm',
    hasGroove,
    loopBpm: source.cut.grid?.kind === 'beats' ? source.cut.grid.tempoBpm : kit.tempoBpm,
    /** Hits that find no place. */
    left: hits.length - placed,
    send,
  }
}
