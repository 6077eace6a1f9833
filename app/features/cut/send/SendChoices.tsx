import { MOST_TURNS } from '@heliaster/core/place'
import { useMemo } from 'react'
import { View } from 'react-native'

import { GroupChoice } from '../../../kit-view/GroupChoice'
import { padName } from '../../../kit-view/use-kit'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { Star } from '../../../ui/drawing/Star'
import { Text } from '../../../ui/layout/Text'
import { StartChips } from '../../starts'
import { ThingsBar } from '../bench/ThingsBar'
import type { CutHit } from '../bench/use-source-cut'
import { LoudnessDots } from '../hits/LoudnessDots'
import { RhythmThings } from './RhythmThings'
import type { Sending, ToSend } from './use-sending'

interface Props {
  readonly toSend: ToSend
  readonly sending: Sending
}

const ORDERS = [
  { value: 'time', text: 'As recorded' },
  { value: 'loudness', text: 'Soft to loud' },
  { value: 'pitch', text: 'Low to high' },
] as const
const LEVELS = [
  { value: 'kept', text: 'Levels as struck' },
  { value: 'evened', text: 'Evened in each band' },
] as const
const MOST_STARS = 24

/** What will be made, drawn. */
export function SendPicture({ toSend, sending, onHear }: Props & { readonly onHear: (item: CutHit) => void }) {
  const { kit, source, hits } = toSend
  const { way, pads, things, rhythm, takesTempo, setWantsTempo, isEach } = sending
  const loudnessOf = useMemo(() => new Map(hits.map(({ marker, hit }) => [marker.id as string, hit!.loudnessDb])), [hits])
  if (way === 'things') return <ThingsBar hits={hits} rate={source.info.sampleRateHz} things={things} pads={pads} onHear={onHear} />
  if (way === 'rhythm')
    return <RhythmThings {...{ hits, source, pads, onHear, rhythm, takesTempo }} kitBpm={kit.tempoBpm} onTakesTempo={setWantsTempo} />
  if (way === 'bands') return pads[0] ? <LoudnessDots bands={pads[0].bands} loudnessOf={loudnessOf} height={170} /> : null
  return (
    <View role="group" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, justifyContent: 'center' }} aria-label="What will be made">
      {pads.slice(0, MOST_STARS).map((pad) => (
        <Star key={pad.id} size={isEach ? 36 : 112} turns={pad.bands.map((band) => band.turns.length)} />
      ))}
      {pads.length > MOST_STARS && <Text tone="muted">and {pads.length - MOST_STARS} more</Text>}
    </View>
  )
}

/** What is asked beside the way itself. */
export function WayChoices({ toSend: { kit, hits }, sending }: Props) {
  const { way, order, setOrder, levels, setLevels, bandCount, setBandCount, suggestedBands, loopBpm, takesTempo, setWantsTempo } = sending
  if (way === 'loop' && loopBpm !== kit.tempoBpm)
    return (
      <Toggle
        label={`The kit takes the tempo of the loop, ${loopBpm} BPM`}
        words={`Otherwise it keeps its ${kit.tempoBpm} BPM, and the loop is played at that.`}
        value={takesTempo}
        onChange={setWantsTempo}
      />
    )
  if (way === 'bands')
    return (
      <>
        <Slider
          label="Bands"
          value={bandCount}
          min={1}
          max={Math.min(12, hits.length)}
          step={1}
          unit=""
          neutral={suggestedBands}
          onSlide={setBandCount}
          onDone={() => undefined}
        />
        <Chips label="Levels" hideLabel options={LEVELS} value={levels} onChoose={setLevels} />
      </>
    )
  if ((way === 'pads' || way === 'turns') && hits.length > 1)
    return <Chips label="In the order" options={ORDERS} value={order} onChoose={setOrder} />
  return null
}

/** Which pads take the hits, and how new ones begin. */
export function WhereTo({ toSend: { kit }, sending }: Props) {
  const { isEach, into, target, setTarget, start, setStart, pads } = sending
  const hasNew = pads.some(({ id }) => !kit.pads.some((pad) => pad.id === id))
  return (
    <>
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
      {into ? (
        <Text look="small">
          {isEach
            ? `From ${padName(kit, into)} on, pads take the hits one by one: their clips are replaced, all their settings stay.`
            : `The clips of ${padName(kit, into)} are replaced; all its settings stay.`}
        </Text>
      ) : (
        <StartChips
          label={isEach ? 'Each new pad begins' : 'The new pad begins'}
          about="pad"
          plain="Plain"
          value={start?.id}
          onChoose={setStart}
        />
      )}
      {hasNew && <GroupChoice kit={kit} label={isEach ? 'Group of the new pads' : 'Group of the new pad'} />}
    </>
  )
}

/** Hits that find no place, and what to do about them. */
export function LeftOut({ sending: { left, isEach } }: Pick<Props, 'sending'>) {
  if (left <= 0) return null
  return (
    <Text look="small" tone="coral">
      {isEach
        ? `A kit holds 128 pads: ${left} hits find no place. Pass some, or send them as turns.`
        : `A band holds ${MOST_TURNS} turns: ${left} hits are left out, evenly from all. Pass some, or choose more bands.`}
    </Text>
  )
}
