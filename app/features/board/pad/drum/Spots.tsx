import { lenderOf, padById, padSettings } from '@heliaster/core/kit'
import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { feetApart, feetOf, feetTogether, spotsOf, spotsProposed, twoFeet, withoutSpot, withSpot, withSpotName } from '@heliaster/core/ties'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../../documents/make-id'
import { editKit } from '../../../../kit-view'
import { padName } from '../../../../kit-view/use-kit'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { NameField } from '../../../../ui/controls/NameField'
import { Toggle } from '../../../../ui/controls/Toggle'
import { notify } from '../../../../ui/layout/notices'
import { Part } from '../../../../ui/layout/Part'
import { Row } from '../../../../ui/layout/Row'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Text } from '../../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

const FULL = 'This kit holds 128 pads, as many as it can: remove one, or take a pad that is there as the spot.'

/** Where on one drum it is struck: its spots, each a pad of its own on one face. */
export function Spots({ kit, pad }: Props) {
  const [isTaking, setTaking] = useState(false)
  const drum = spotsOf(kit, pad.id)
  const taken = new Set((drum?.spots ?? []).map(({ name }) => name))
  const names = spotsProposed(padSettings(kit, pad).family)
  const free = (drum ? names : names.slice(1)).filter((name) => !taken.has(name))
  const add = (name: string, existing?: PadId) => {
    const made = withSpot(makeId, kit, pad.id, name, existing)
    if (!made) return notify(FULL)
    editKit(kit.id, made.edits)
    if (!existing) notify(`${name} is on the face. Touch it there to fill it.`)
  }
  const next = () => free[0] ?? `Spot ${(drum?.spots.length ?? 1) + 1}`
  const others = kit.pads.filter(({ id }) => id !== pad.id && !drum?.spots.some((spot) => spot.pad === id))
  return (
    <Part name="Spots">
      <Text look="small" tone="muted">
        {drum
          ? 'These pads are one drum, on one face: a finger strikes the spot it touches. A spot without sounds borrows those of the nearest one.'
          : 'A drum that is struck in several places: each place is a pad of its own on the same face, and takes what is set on this one.'}
      </Text>
      {drum && (
        <View role="list" aria-label="Spots of this drum">
          {drum.spots.map((spot, i) => {
            const one = padById(kit, spot.pad)
            return (
              one && (
                <Row key={spot.pad} hasLine={i > 0}>
                  <View style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 10, paddingVertical: 4 }}>
                    <View style={{ width: 130 }}>
                      <NameField
                        label={`Name of spot ${i + 1}`}
                        value={spot.name}
                        onName={(name) => editKit(kit.id, withSpotName(drum, spot.pad, name.trim().slice(0, 120)))}
                      />
                    </View>
                    <SpotWords kit={kit} pad={one} isHere={one.id === pad.id} />
                    <Button kind="quiet" label="Take off" onPress={() => editKit(kit.id, withoutSpot(kit, spot.pad))} />
                  </View>
                </Row>
              )
            )
          })}
        </View>
      )}
      <Chips
        label="Add a spot"
        options={[...free.map((name) => ({ value: name, text: name })), ...(drum ? [{ value: '', text: 'Another' }] : [])]}
        value={undefined}
        onChoose={(name) => add(name || next())}
      />
      <Feet kit={kit} pad={pad} />
      {others.length > 0 && <Button label="Take a pad that is there" onPress={() => setTaking(true)} style={{ alignSelf: 'flex-start' }} />}
      {isTaking && (
        <Sheet title="Which pad is a spot of this drum?" isOpen onClose={() => setTaking(false)}>
          <Chips
            label="Pad"
            hideLabel
            options={others.map((other) => ({ value: other.id as string, text: padName(kit, other) }))}
            value={undefined}
            onChoose={(other) => {
              add(next(), other as PadId)
              setTaking(false)
            }}
          />
        </Sheet>
      )}
    </Part>
  )
}

/** Two fingers that walk like two feet: one pool for both, or each its own half. */
function Feet({ kit, pad }: Props) {
  const feet = feetOf(kit, pad.id)
  const begin = () => {
    const edits = twoFeet(makeId, kit, pad.id)
    if (!edits) return notify(FULL)
    editKit(kit.id, edits)
    notify('Left and right are on the face. Two fingers walk on them, no two steps alike.')
  }
  if (feet)
    return (
      <Toggle
        label="Left and right kept apart"
        words={
          feet.areApart
            ? 'Each foot has its own half of the sounds.'
            : 'Both draw from the same sounds: no two alike follow each other, whichever comes down.'
        }
        value={feet.areApart}
        onChange={(apart) => editKit(kit.id, apart ? feetApart(kit, feet) : feetTogether(kit, feet))}
      />
    )
  if (spotsOf(kit, pad.id)) return null
  return <Button label="Two feet, for two fingers" onPress={begin} style={{ alignSelf: 'flex-start' }} />
}

/** The pad of a spot, and from whom its sounds are where it has none. */
function SpotWords({ kit, pad, isHere }: Props & { readonly isHere: boolean }) {
  const lender = lenderOf(kit, pad)
  return (
    <View style={{ flex: 1, minWidth: 0 }}>
      <Text look="small" numberOfLines={1}>
        {isHere ? 'This pad' : padName(kit, pad)}
      </Text>
      {lender && (
        <Text look="small" tone={feetOf(kit, pad.id) ? 'muted' : 'coral'} numberOfLines={2}>
          {feetOf(kit, pad.id) ? `Draws from ${padName(kit, lender)}` : `Empty: sounds as ${padName(kit, lender)}`}
        </Text>
      )}
    </View>
  )
}
