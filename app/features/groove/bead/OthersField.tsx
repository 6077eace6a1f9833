import { beadById, beadsOf } from '@heliaster/core/groove'
import type { PlacedBead } from '@heliaster/core/groove'
import { padById } from '@heliaster/core/kit'
import type { BeadId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'
import { beatName } from '../strings/draw-strings'
import type { FieldProps } from './BeadPanel'
import { withoutCondition } from './conditions'
import { Field } from './Field'

const WAYS = [
  { value: 'after', text: 'Only after' },
  { value: 'unless', text: 'Unless' },
] as const
type Way = (typeof WAYS)[number]['value']

/** It sounds only after another bead sounded when its time last came, or unless that one did: any bead of any string. */
export function OthersField({ hands, beads }: FieldProps) {
  const when = beads.find(({ bead }) => bead.when?.after ?? bead.when?.unless)?.bead.when
  const [way, setWay] = useState<Way>(when?.unless ? 'unless' : 'after')
  const [isChoosing, setChoosing] = useState(false)
  const other = beadById(hands.groove, when?.[way])
  const set = (as: Way, id: BeadId | undefined) => hands.fieldsOf(({ bead }) => {
    const rest = withoutCondition(bead.when, 'after', 'unless')
    return { when: id && id !== bead.id ? { ...rest, [as]: id } : rest }
  }) // prettier-ignore
  const turn = (as: Way) => {
    setWay(as)
    const id = when?.after ?? when?.unless
    if (id) set(as, id)
  }
  return (
    <Field clears="Whatever other beads did" onClear={() => set(way, undefined)}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 10 }}>
        <Chips label="Looks at another bead" hideLabel options={WAYS} value={way} onChoose={turn} />
        <Button label={other ? nameOf(hands, other) : 'Choose a bead'} onPress={() => setChoosing(true)} />
      </View>
      {isChoosing && (
        <OtherBeads
          hands={hands}
          beads={beads}
          value={when?.[way]}
          title={way === 'after' ? 'Only after which bead' : 'Unless which bead'}
          onClose={() => setChoosing(false)}
          onChoose={(id) => {
            set(way, id)
            setChoosing(false)
          }}
        />
      )}
    </Field>
  )
}

/** `Oar, low, 1.3`: whose bead it is, and where. */
function nameOf(hands: BeadHands, placed: PlacedBead): string {
  const pad = padById(hands.kit, placed.string.padId)
  return `${pad ? padName(hands.kit, pad) : 'A pad that is gone'}, ${placeOf(hands, placed)}`
}

function placeOf({ groove }: BeadHands, { bead, string }: PlacedBead): string {
  const division = string.stepsPerBeat ?? groove.stepsPerBeat
  const inBeat = bead.step % division
  return `${beatName(groove, Math.floor(bead.step / division))}${inBeat > 0 ? ` ${inBeat}/${division}` : ''}`
}

interface OthersProps extends FieldProps {
  readonly title: string
  readonly value: BeadId | undefined
  readonly onChoose: (id: BeadId) => void
  readonly onClose: () => void
}

/** All other beads of the groove, string by string. */
function OtherBeads({ hands, beads, title, value, onChoose, onClose }: OthersProps) {
  const own = new Set(beads.map(({ bead }) => bead.id))
  const others = beadsOf(hands.groove).filter(({ bead }) => !own.has(bead.id))
  const options = others.map((placed) => ({ value: placed.bead.id as string, text: placeOf(hands, placed), group: nameOf(hands, placed).replace(/, [^,]*$/, '') })) // prettier-ignore
  return (
    <Sheet title={title} isOpen onClose={onClose}>
      {options.length === 0 ? (
        <Text tone="muted">There is no other bead yet.</Text>
      ) : (
        <Chips label="Beads" hideLabel options={options} value={value as string | undefined} onChoose={(id) => onChoose(id as BeadId)} />
      )}
    </Sheet>
  )
}
