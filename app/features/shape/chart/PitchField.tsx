import { centsTo, hzAt, pitchUnits } from '@heliaster/core/shaping'
import type { PitchUnit } from '@heliaster/core/shaping'
import { useState } from 'react'
import { View } from 'react-native'

import { nearestNote, noteHz, noteOf, useNoteName } from '../../../kit-view/note-name'
import { TypedField } from '../../../ui/controls/TypedField'
import { UnitField, UnitSign } from './UnitField'

interface Props {
  readonly cents: number
  /** The pitch of the hit where its envelope stands at 0; without it only cents and semitones are known. */
  readonly baseHz: number | undefined
  readonly tuningA4Hz: number
  readonly unit: PitchUnit
  readonly onUnit: (unit: PitchUnit) => void
  readonly onCents: (cents: number) => void
}

const LABEL = 'Pitch of the point'

/** The pitch of a point, in whichever unit it is known. */
export function PitchField({ cents, baseHz, tuningA4Hz, unit: wanted, onUnit, onCents }: Props) {
  const units = baseHz === undefined ? pitchUnits.slice(0, 2) : pitchUnits
  const unit = units.includes(wanted) ? wanted : 'ct'
  if (unit === 'note') return <NoteField cents={cents} baseHz={baseHz!} tuningA4Hz={tuningA4Hz} onUnit={onUnit} onCents={onCents} />
  const texts = { ct: cents.toFixed(0), st: (cents / 100).toFixed(2), Hz: hzAt(cents, baseHz ?? 1).toFixed(1) }
  const take = (typed: number) => {
    if (unit !== 'Hz') onCents(unit === 'st' ? typed * 100 : typed)
    else if (typed > 0) onCents(centsTo(typed, baseHz!))
  }
  return <UnitField label={LABEL} text={texts[unit]} unit={unit} units={units} onUnit={onUnit} onNumber={take} />
}

type NoteProps = Omit<Props, 'unit' | 'baseHz'> & { readonly baseHz: number }

/** A note and cents beside it, such as A1 or F#2 -14. */
function NoteField({ cents, baseHz, tuningA4Hz, onUnit, onCents }: NoteProps) {
  const noteName = useNoteName()
  const [isWrong, setWrong] = useState(false)
  const near = nearestNote(hzAt(cents, baseHz), tuningA4Hz)
  const text = near.note < 0 || near.note > 127 ? 'none' : `${noteName(near.note)}${near.cents === 0 ? '' : ` ${near.cents > 0 ? '+' : ''}${near.cents}`}`
  const take = (typed: string) => {
    const [, name, beside] = /^\s*(\S+?)\s*([+-]\s*\d+)?\s*$/.exec(typed) ?? []
    const note = name === undefined ? undefined : noteOf(name)
    setWrong(note === undefined)
    if (note !== undefined) onCents(centsTo(noteHz(note, tuningA4Hz), baseHz) + Number((beside ?? '0').replace(/\s/g, '')))
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      <TypedField label={`${LABEL}, note`} text={text} isWrong={isWrong} onText={take} />
      <UnitSign label={LABEL} unit="note" units={pitchUnits} onUnit={onUnit} />
    </View>
  )
} // prettier-ignore
