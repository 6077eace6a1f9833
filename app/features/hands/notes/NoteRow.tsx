import type { Kit, PadId } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { padsOfNotes } from '@heliaster/core/kit'

import { NOTE_ROW } from '../../../audio/playing/hands/hand-settings'
import { letGoByHand, playNote } from '../../../audio/playing/hands/hands'
import { noteHz, useNoteName } from '../../../kit-view/note-name'
import { padName } from '../../../kit-view/use-kit'
import { IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import { useTouches } from '../../../ui/pointer/use-touches'
import type { Touch } from '../../../ui/pointer/use-touches'
import { NoteMarks } from './NoteMarks'

const NOTES = 128
const SIZES = [
  { value: 'all', text: 'All 128' },
  { value: 'small', text: 'Small', px: 24 },
  { value: 'large', text: 'Large', px: 44 },
] as const
type Size = (typeof SIZES)[number]['value']

const FIRST_SHOWN = 36
const OCTAVE = 12
const HEIGHT = 132
const SOFTEST = 8
const BY_KEY = 96

/** How many notes there is room for, and the first of them. */
function shownNotes(size: Size, width: number, wanted: number): { first: number; count: number } {
  const chosen = SIZES.find(({ value }) => value === size)!
  const count = 'px' in chosen ? Math.min(NOTES, Math.max(OCTAVE >> 1, Math.floor(width / chosen.px))) : NOTES
  return { first: Math.min(NOTES - count, Math.max(0, wanted)), count }
}

/** All notes in a row, struck where they are touched: further down is harder. Each shows how many pads it strikes. */
export function NoteRow({ kit }: { readonly kit: Kit }) {
  const noteName = useNoteName()
  const [size, setSize] = useState<Size>('small')
  const [width, setWidth] = useState(360)
  const [from, setFrom] = useState(FIRST_SHOWN)
  const [chosen, choose] = useState(FIRST_SHOWN)
  const [down, setDown] = useState<Readonly<Record<string, number>>>({})
  const byNote = useMemo(() => padsOfNotes(kit), [kit])
  const { first, count } = shownNotes(size, width, from)
  const strike = (key: string, note: number, came: number, atMs?: number) => {
    playNote(NOTE_ROW, note, came, key, atMs)
    choose(note)
    setDown((before) => ({ ...before, [key]: note }))
  }
  const letGo = (key: string) => {
    letGoByHand(NOTE_ROW, key)
    setDown(({ [key]: _gone, ...others }) => others)
  }
  const touchedNote = ({ x, width: wide }: Touch) => first + Math.min(count - 1, Math.max(0, Math.floor((x / wide) * count)))
  const came = ({ y, height }: Touch) => SOFTEST + (127 - SOFTEST) * Math.min(1, Math.max(0, y / height))
  const row = useTouches({
    onDown: (touch) => strike(`${touch.id}`, touchedNote(touch), came(touch), touch.event.timeStamp),
    onMove(touch) {
      const note = touchedNote(touch)
      if (down[touch.id] === note) return
      letGo(`${touch.id}`) // a finger that goes on plays the next one
      strike(`${touch.id}`, note, came(touch), touch.event.timeStamp)
    },
    onUp: (id) => letGo(`${id}`),
  })
  const step = (by: number) => {
    const next = Math.min(NOTES - 1, Math.max(0, chosen + by))
    choose(next)
    if (next < first || next >= first + count) setFrom(by < 0 ? next : next - count + 1)
  }
  const keys: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -OCTAVE, PageUp: OCTAVE, Home: -NOTES, End: NOTES }
  const words = noteWords(kit, chosen, byNote.get(chosen) ?? [], noteName)
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 6 }}>
        <Chips label="Size" options={SIZES} value={size} onChoose={setSize} />
        <View style={{ flex: 1 }} />
        <IconButton name="chevron-left" label="An octave down" disabled={first === 0} onPress={() => setFrom(first - OCTAVE)} />
        <IconButton name="chevron-right" label="An octave up" disabled={first + count >= NOTES} onPress={() => setFrom(first + OCTAVE)} />
      </View>
      <View
        ref={row}
        role="slider"
        tabIndex={0}
        aria-label="Notes"
        aria-valuemin={0}
        aria-valuemax={127}
        aria-valuenow={chosen}
        aria-valuetext={words}
        onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
        {...{
          onKeyDown: (event: { key: string; repeat: boolean; preventDefault(): void }) => {
            if (event.key in keys) step(keys[event.key]!)
            else if (event.key !== 'Enter' && event.key !== ' ') return
            else if (!event.repeat) strike('Enter', chosen, BY_KEY)
            event.preventDefault()
          },
          onKeyUp: () => letGo('Enter'),
          onBlur: () => letGo('Enter'),
        }}
        style={{ height: HEIGHT, width: '100%' }}
      >
        <NoteMarks first={first} count={count} height={HEIGHT} byNote={byNote} down={Object.values(down)} chosen={chosen} />
      </View>
      <Text role="status">{words}</Text>
    </View>
  )
}

const MOST_NAMED = 4

/** A note with its number, name and Hz, and what it strikes. */
export function noteWords(kit: Kit, note: number, padIds: readonly PadId[], noteName: (note: number) => string): string {
  const names = padIds.slice(0, MOST_NAMED).map((id) =>
    padName(
      kit,
      kit.pads.find((pad) => pad.id === id)!,
    ),
  )
  const rest = padIds.length - names.length
  const struck = padIds.length === 0 ? 'no pad' : padIds.length === 1 ? names[0] : `${padIds.length} pads: ${names.join(', ')}${rest > 0 ? ` and ${rest} more` : ''}` // prettier-ignore
  return `${noteName(note)}, note ${note}, ${noteHz(note, kit.tuningA4Hz).toFixed(1)} Hz, strikes ${struck}.`
}
