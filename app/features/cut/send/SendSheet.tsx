import type { GrooveId, PadId, Source, Start } from '@heliaster/core/kit'
import { MOST_TURNS, suggestBands } from '@heliaster/core/place'
import type { BandLevels } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import { chooseGroove } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { notify } from '../../../ui/layout/notices'
import { Sheet } from '../../../ui/layout/Sheet'
import { Slider } from '../../../ui/controls/Slider'
import { Star } from '../../../ui/drawing/Star'
import { Text } from '../../../ui/layout/Text'
import { Toggle } from '../../../ui/controls/Toggle'
import { editKit, useKit, useKitId } from '../../../kit-view'
import { GroupChoice, inGroup } from '../../../kit-view/GroupChoice'
import { session, useSession } from '../../../kit-view/session'
import { StartChips } from '../../starts'
import { padName } from '../../../kit-view/use-kit'
import { LoudnessDots } from '../hits/LoudnessDots'
import { rhythmEdits } from './rhythm-edits'
import { RhythmThings, useRhythmChoice } from './RhythmThings'
import { loopEdits, padsToSend, sendEdits, tillerEdits } from './send-hits'
import type { SendOrder, SendWay } from './send-hits'
import { ThingsBar } from '../bench/ThingsBar'
import type { CutHit } from '../bench/use-source-cut'
import { useThings } from '../bench/use-things'

const WAYS = [
  { value: 'pads', text: 'Each its own pad' },
  { value: 'turns', text: 'One pad, as turns' },
  { value: 'bands', text: 'One pad, by loudness' },
  { value: 'things', text: 'Alike hits together' },
  { value: 'rhythm', text: 'With its groove' },
] as const
const LOOP = { value: 'loop', text: 'As a loop' } as const
const ORDERS = [
  { value: 'time', text: 'As recorded' },
  { value: 'loudness', text: 'Soft to loud' },
  { value: 'pitch', text: 'Low to high' },
] as const
const LEVELS = [
  { value: 'kept', text: 'Levels as struck' },
  { value: 'evened', text: 'Evened in each band' },
] as const
const WORDS: Record<SendWay, string> = {
  pads: 'Every kept hit becomes a pad.',
  turns: 'The hits are takes of one thing: each strike plays another.',
  loop: 'Each slice becomes a pad, and a groove plays them in their order at the tempo of the kit.',
  rhythm: 'Each thing that was struck becomes a pad, and what was played a groove on these pads.',
  things: 'Each thing that was struck becomes a pad: its hits take turns, in bands where soft and loud ones stand apart.',
  bands: 'Soft hits answer soft strikes, loud ones loud; alike ones take turns.',
}

interface Props {
  readonly source: Source
  readonly hits: readonly CutHit[]
  /** The way that is proposed. */
  readonly first?: SendWay
  readonly onHear: (item: CutHit) => void
  readonly onClose: () => void
}

/** One question, with a picture of the answer, before anything moves. */
export function SendSheet({ source, hits, first = 'pads', onHear, onClose }: Props) {
  const kit = useKit()
  const kitId = useKitId()
  const [way, setWay] = useState<SendWay>(first)
  const [order, setOrder] = useState<SendOrder>('time')
  const [levels, setLevels] = useState<BandLevels>('kept')
  const [start, setStart] = useState<Start>()
  const [target, setTarget] = useState<PadId | 'new'>('new')
  const suggested = useMemo(() => Math.max(1, suggestBands(hits.map(({ hit }) => hit!.loudnessDb))), [hits])
  const [wantsTempo, setWantsTempo] = useState<boolean>()
  const [bandCount, setBandCount] = useState(suggested)
  const onto = target === 'new' ? undefined : target
  const group = useSession((state) => state.newGroup)
  const things = useThings(source, hits)
  const rhythm = useRhythmChoice(source, hits, way === 'rhythm', kit?.tempoBpm ?? 120)
  const groups = way === 'rhythm' ? rhythm.things : things?.groups
  const pads = useMemo(
    () =>
      kit
        ? padsToSend(kit, source, hits, {
            way,
            order: way === 'loop' ? 'time' : order,
            bandCount,
            levels,
            onto,
            start: start?.pad,
            groups,
          })
        : [],
    [kit, source, hits, way, order, bandCount, levels, onto, start, groups],
  )
  const loudnessOf = useMemo(() => new Map(hits.map(({ marker, hit }) => [marker.id as string, hit!.loudnessDb])), [hits])
  if (!kit) return null
  const isEach = way === 'pads' || way === 'loop' || way === 'things' || way === 'rhythm'
  const hasGroove = way === 'loop' || way === 'rhythm'
  const into = kit.pads.find((pad) => pad.id === onto)
  const loopBpm = source.cut.grid?.kind === 'beats' ? source.cut.grid.tempoBpm : kit.tempoBpm
  const takesTempo = wantsTempo ?? kit.grooves.every(({ strings }) => strings.every(({ beads }) => beads.length === 0))
  const send = () => {
    const grooveId = makeId<GrooveId>('groove')
    editKit(kitId, [
      ...sendEdits(kit, source, inGroup(kit, pads, group), hits),
      ...tillerEdits(kit, pads, start),
      ...(way === 'loop' ? loopEdits(source, hits, pads, grooveId, takesTempo) : []),
      ...(way === 'rhythm' ? rhythmEdits(source, hits, pads, grooveId, { pace: rhythm.pace, share: rhythm.share, takesTempo }) : []),
    ])
    session.setState({ padId: pads[0]?.id })
    notify(
      pads.length > 1
        ? `${pads.length} pads are on the Board.`
        : `${placed === 1 ? '1 hit is' : `${placed} hits are`} on ${into ? padName(kit, into) : 'a new pad'}.`,
    )
    onClose()
    if (hasGroove) chooseGroove(grooveId)
    router.navigate(`/kit/${kitId}/${hasGroove ? 'groove' : 'board'}`)
  }
  const placed = pads.reduce((sum, pad) => sum + pad.bands.reduce((turns, band) => turns + band.turns.length, 0), 0)
  const left = hits.length - placed
  return (
    <Sheet
      title={`Send ${hits.length} ${hits.length === 1 ? 'hit' : 'hits'} to pads`}
      isOpen
      onClose={onClose}
      actions={
        <Button
          label={hasGroove ? 'Send, and open the groove' : 'Send to the Board'}
          kind="main"
          disabled={pads.length === 0}
          onPress={send}
        />
      }
    >
      <Chips<SendWay> label="How" options={source.cut.grid?.kind === 'beats' ? [...WAYS, LOOP] : WAYS} value={way} onChoose={setWay} />
      <Text look="small" tone="muted">
        {WORDS[way]}
      </Text>
      {way === 'things' && <ThingsBar hits={hits} rate={source.info.sampleRateHz} things={things} pads={pads} onHear={onHear} />}
      {way === 'rhythm' && (
        <RhythmThings {...{ hits, source, pads, onHear, rhythm, takesTempo }} kitBpm={kit.tempoBpm} onTakesTempo={setWantsTempo} />
      )}
      {way === 'things' || way === 'rhythm' ? null : way === 'bands' ? (
        pads[0] && <LoudnessDots bands={pads[0].bands} loudnessOf={loudnessOf} height={170} />
      ) : (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, justifyContent: 'center' }} aria-label="What will be made">
          {pads.slice(0, 24).map((pad) => (
            <Star key={pad.id} size={isEach ? 36 : 112} turns={pad.bands.map((band) => band.turns.length)} />
          ))}
          {pads.length > 24 && <Text tone="muted">and {pads.length - 24} more</Text>}
        </View>
      )}
      {way === 'loop' && loopBpm !== kit.tempoBpm && (
        <Toggle
          label={`The kit takes the tempo of the loop, ${loopBpm} BPM`}
          words={`Otherwise it keeps its ${kit.tempoBpm} BPM, and the loop is played at that.`}
          value={takesTempo}
          onChange={setWantsTempo}
        />
      )}
      {way === 'bands' && (
        <>
          <Slider
            label="Bands"
            value={bandCount}
            min={1}
            max={Math.min(12, hits.length)}
            step={1}
            unit=""
            neutral={suggested}
            onSlide={setBandCount}
            onDone={() => undefined}
          />
          <Chips label="Levels" hideLabel options={LEVELS} value={levels} onChoose={setLevels} />
        </>
      )}
      {(way === 'pads' || way === 'turns') && hits.length > 1 && (
        <Chips label="In the order" options={ORDERS} value={order} onChoose={setOrder} />
      )}
      {kit.pads.length > 0 && (
        <Chips
          label={isEach ? 'From' : 'Onto'}
          options={[
            { value: 'new', text: isEach ? 'New pads' : 'A new pad' },
            ...kit.pads.map((pad) => ({ value: pad.id, text: padName(kit, pad) })),
          ]}
          value={target}
          onChoose={setTarget}
        />
      )}
      {into && (
        <Text look="small">
          {isEach
            ? `From ${padName(kit, into)} on, pads take the hits one by one: their clips are replaced, all their settings stay.`
            : `The clips of ${padName(kit, into)} are replaced; all its settings stay.`}
        </Text>
      )}
      {!into && (
        <StartChips
          label={isEach ? 'Each new pad begins' : 'The new pad begins'}
          about="pad"
          plain="Plain"
          value={start?.id}
          onChoose={setStart}
        />
      )}
      {pads.some(({ id }) => !kit.pads.some((pad) => pad.id === id)) && (
        <GroupChoice kit={kit} label={isEach ? 'Group of the new pads' : 'Group of the new pad'} />
      )}
      {left > 0 && (
        <Text look="small" tone="coral">
          {isEach
            ? `A kit holds 128 pads: ${left} hits find no place. Pass some, or send them as turns.`
            : `A band holds ${MOST_TURNS} turns: ${left} hits are left out, evenly from all. Pass some, or choose more bands.`}
        </Text>
      )}
    </Sheet>
  )
}
