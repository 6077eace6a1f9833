import { beadsOf, louderBy, withBeads } from '@heliaster/core/groove'
import type { PlacedBead } from '@heliaster/core/groove'
import { padById } from '@heliaster/core/kit'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'

import { padName } from '../../../kit-view/use-kit'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { usePalette } from '../../../ui/theme/theme'
import type { BeadHands } from '../hands/use-bead-hands'
import { beatName } from '../strings/draw-strings'
import { CellField } from './CellField'
import { ClipField } from './ClipField'
import { ChanceField, OffsetField, RepeatsField } from './fields'
import { LapsField } from './LapsField'
import { LocksField } from './LocksField'
import { OthersField } from './OthersField'
import { SeveralPart } from './SeveralPart'

/** What a bead can carry beside its velocity, each shown once it is set or asked for. */
const CARRIES = [
  { name: 'Chance', isSet: ({ bead }: PlacedBead) => bead.chance !== undefined, Field: ChanceField },
  { name: 'Laps', isSet: ({ bead }: PlacedBead) => bead.when?.laps !== undefined, Field: LapsField },
  { name: 'After or unless', isSet: ({ bead }: PlacedBead) => (bead.when?.after ?? bead.when?.unless) !== undefined, Field: OthersField },
  { name: 'Repeats', isSet: ({ bead }: PlacedBead) => bead.repeats !== undefined, Field: RepeatsField },
  { name: 'Off its step', isSet: ({ bead }: PlacedBead) => bead.offset !== undefined, Field: OffsetField },
  { name: 'Turn', isSet: ({ bead }: PlacedBead) => (bead.turn ?? bead.band) !== undefined, Field: CellField },
  { name: 'Another clip', isSet: ({ bead }: PlacedBead) => bead.clip !== undefined, Field: ClipField },
  { name: 'Parameters', isSet: ({ bead }: PlacedBead) => (bead.locks ?? []).length > 0, Field: LocksField },
] as const
type Carried = (typeof CARRIES)[number]['name']

export interface FieldProps {
  readonly hands: BeadHands
  readonly beads: readonly PlacedBead[]
}

/** What is set on the chosen beads: how strong, when, how often, which cell; on a phone under the strings, on a wide screen beside them. */
export function BeadPanel({ hands }: { readonly hands: BeadHands }) {
  const palette = usePalette()
  const isWide = useIsWide()
  const [asked, setAsked] = useState<readonly Carried[]>([])
  const beads = beadsOf(hands.groove).filter(({ bead }) => hands.chosen.has(bead.id))
  if (beads.length === 0) return null
  const shown = CARRIES.filter(({ name, isSet }) => asked.includes(name) || beads.some(isSet))
  const others = CARRIES.filter((one) => !shown.includes(one) && (one.name !== 'Turn' || isOnePad(beads)))
  return (
    <View
      role="region"
      aria-label="Chosen beads"
      style={{ backgroundColor: palette.surface, ...(isWide ? { flex: 1 } : { maxHeight: 196, borderTopWidth: 1, borderTopColor: palette.faint }) }}
    >
      <ScrollView contentContainerStyle={{ paddingHorizontal: 16, paddingBottom: 8, gap: isWide ? 10 : 4 }}>
        <PanelHead hands={hands} beads={beads} />
        <Velocity hands={hands} beads={beads} />
        {shown.map(({ name, Field }) => (
          <Field key={name} hands={hands} beads={beads} />
        ))}
        {beads.length > 1 && <SeveralPart hands={hands} />}
        <More names={others.map(({ name }) => name)} onAsk={(name) => setAsked([...asked, name])} />
      </ScrollView>
    </View>
  )
} // prettier-ignore

interface MoreProps {
  readonly names: readonly Carried[]
  readonly onAsk: (name: Carried) => void
}

/** What it does not carry yet: on a phone on one line that is drawn sideways, so that the strings stay in sight. */
function More({ names, onAsk }: MoreProps) {
  const isWide = useIsWide()
  const buttons = names.map((name) => <Button key={name} label={name} icon="plus" onPress={() => onAsk(name)} />)
  return (
    <View role="group" aria-label="Set on it too">
      {isWide ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>{buttons}</View>
      ) : (
        <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ gap: 6 }}>
          {buttons}
        </ScrollView>
      )}
    </View>
  )
}

const isOnePad = (beads: readonly PlacedBead[]) => new Set(beads.map(({ string }) => string.padId)).size === 1

/** Whom it is about, and what is done to the whole of it. */
function PanelHead({ hands, beads }: FieldProps) {
  const isWide = useIsWide()
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', minHeight: 44 }}>
      <Text look="strong" numberOfLines={2} style={{ flex: 1, lineHeight: 20 }}>
        {wordsOf(hands, beads, isWide)}
      </Text>
      {beads.length === 1 && <IconButton name="ear-hearing" label="Hear this bead" onPress={() => hands.hear(beads[0].bead.id, true)} />}
      <IconButton name="content-copy" label="Copy" onPress={hands.copy} />
      <IconButton name="trash-can-outline" label={beads.length === 1 ? 'Remove this bead' : `Remove ${beads.length} beads`} onPress={hands.remove} />
      <IconButton name="close" label="Choose none" onPress={() => hands.choose(new Set())} />
    </View>
  )
} // prettier-ignore

/** Beside the strings there is little width: where it stands has a line of its own. */
function wordsOf({ kit, groove }: BeadHands, beads: readonly PlacedBead[], isNarrow: boolean): string {
  const pads = [...new Set(beads.map(({ string }) => string.padId))]
  const pad = padById(kit, pads[0]!)
  const name = pads.length === 1 ? (pad ? padName(kit, pad) : 'A pad that is gone') : `${pads.length} strings`
  if (beads.length > 1) return `${beads.length} beads of ${name}`
  const [{ bead, string }] = beads
  const division = string.stepsPerBeat ?? groove.stepsPerBeat
  const inBeat = bead.step % division
  return `${name},${isNarrow ? '\n' : ' '}${beatName(groove, Math.floor(bead.step / division))}${inBeat > 0 ? ` and ${inBeat}/${division}` : ''}`
}

/** One bead's velocity; several are made louder and softer together, as they stand to each other. */
function Velocity({ hands, beads }: FieldProps) {
  const [by, setBy] = useState(0)
  if (beads.length === 1) {
    const [{ bead }] = beads
    const slide = (velocity: number) => hands.slide((before) => withBeads(before, hands.chosen, () => ({ velocity })))
    return <Slider label="Velocity" value={bead.velocity} min={1} max={127} step={1} unit="" onSlide={slide} onDone={hands.done} />
  }
  const slide = (value: number) => {
    setBy(value)
    hands.slide((before) => louderBy(before, hands.chosen, value))
  }
  const done = () => {
    setBy(0)
    hands.done()
  }
  return <Slider label="All louder or softer by" value={by} min={-100} max={100} step={1} unit="" neutral={0} onSlide={slide} onDone={done} />
} // prettier-ignore
