import { levelResponse, padSettings, padStartOf, responseTo, startTillersOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, OwnSettings, Pad, PadSettings } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { View } from 'react-native'

import { Chips } from '../../../../ui/controls/Chips'
import { NameField } from '../../../../ui/controls/NameField'
import { FamilyChoice } from '../../../../kit-view/FamilyChoice'
import { followEdits } from '../../../../kit-view/follow-note'
import { MIDDLE_C, noteName, useNoteName } from '../../../../kit-view/note-name'
import { PanSlider, TuneSlider } from '../../../../kit-view/PanAndTune'
import { NumberField, Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { Toggle } from '../../../../ui/controls/Toggle'
import { editKit } from '../../../../kit-view'
import { padGesture, padName } from '../../../../kit-view/use-kit'
import { BeginPad, KeepStart } from '../../../starts'
import { busOptions, sendEdits } from '../../../../kit-view/buses/bus-edits'
import type { BusChoice } from '../../../../kit-view/buses/bus-edits'
import { TintChips } from '../TintChips'

/** How loud a pad is, where it stands, and what its pitch goes by. */
export function PadLevel({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  useNoteName()
  const settings = padSettings(kit, pad)
  const brought = startTillersOf(kit, pad.id)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const change = (own: OwnSettings): KitEdit => ({ type: 'setPad', padId: pad.id, own })
  const setOrClear = <Key extends 'group' | 'tint'>(key: Key, value: PadSettings[Key]) =>
    editKit(kit.id, [{ type: 'setPad', padId: pad.id, own: value ? { [key]: value } : {}, ...(value ? {} : { clear: [key] }) }])
  const slide = (own: OwnSettings) => gesture.set([change(own)])
  const level = levelResponse(settings.responses)
  const setLevelRange = (amount: number) =>
    slide({
      responses: level
        ? settings.responses.map((one) => (one === level ? { ...level, amount, bypass: false } : one))
        : [...settings.responses, responseTo('velocity', 'gainDb', amount)],
    })
  const follow = (follows: boolean) => {
    if (!follows) return editKit(kit.id, [{ ...change({}), clear: ['rootNote'] } as KitEdit], pad.id)
    editKit(kit.id, followEdits(pad, settings, [pad.rays[0].id]), pad.id)
  }
  return (
    <>
      <Slider
        label="Level"
        value={settings.values.gainDb}
        min={-48}
        max={24}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => slide({ values: { gainDb } })}
        onDone={gesture.end}
      />
      <PanSlider value={settings.values.pan} onSlide={(pan) => slide({ values: { pan } })} onDone={gesture.end} />
      <TuneSlider value={settings.values.tuneCents} onSlide={(tuneCents) => slide({ values: { tuneCents } })} onDone={gesture.end} />
      <Slider
        label="Softest strikes are lower by"
        value={level?.amount ?? 0}
        min={0}
        max={60}
        step={0.5}
        unit="dB"
        onSlide={setLevelRange}
        onDone={gesture.end}
      />
      <Toggle
        label="Pitch follows the note"
        words={
          settings.rootNote === undefined ? 'Off: any note sounds it as it was recorded.' : `As recorded at ${noteName(settings.rootNote)}.`
        }
        value={settings.rootNote !== undefined}
        onChange={follow}
      />
      {settings.rootNote !== undefined && (
        <NoteRange notes={pad.notes} onRange={(notes) => editKit(kit.id, [{ type: 'setPadNotes', padId: pad.id, notes }])} />
      )}
      {settings.rootNote !== undefined && (
        <Slider
          label="Root note"
          value={settings.rootNote}
          min={0}
          max={127}
          step={1}
          unit={noteName(settings.rootNote)}
          onSlide={(rootNote) => slide({ rootNote })}
          onDone={gesture.end}
        />
      )}
      {settings.rootNote !== undefined && (
        <Slider
          label="Glide from the note before"
          value={settings.values.glideSeconds * 1000}
          min={0}
          max={2000}
          step={1}
          power={2}
          unit="ms"
          neutral={0}
          onSlide={(ms) => slide({ values: { glideSeconds: ms / 1000 } })}
          onDone={gesture.end}
        />
      )}
      <Chips<BusChoice>
        label="Goes to"
        options={busOptions(kit, 'The mix')}
        value={settings.bus ?? 'none'}
        onChoose={(choice) => editKit(kit.id, sendEdits(pad, undefined, choice, padName(kit, pad)), pad.id)}
      />
      <FamilyChoice value={settings.family} onChoose={(family) => editKit(kit.id, [change({ family })])} />
      <NameField
        label="Group"
        value={settings.group ?? ''}
        placeholder="Edit it as one with others of this name"
        onName={(typed) => setOrClear('group', typed.trim().slice(0, 120) || undefined)}
      />
      <TintChips label="Tint" value={settings.tint} onTint={(tint) => setOrClear('tint', tint)} />
      <BeginPad kit={kit} pad={pad} />
      <KeepStart
        label="Keep these settings as a start"
        settings={{ pad: padStartOf(settings), ...(brought.length > 0 ? { tillers: brought } : {}) }}
      />
    </>
  )
}

/** The lowest and highest note that strike a pad whose pitch follows; all between do too. */
function NoteRange({ notes, onRange }: { readonly notes: readonly number[]; readonly onRange: (notes: number[]) => void }) {
  const low = notes.length > 0 ? Math.min(...notes) : MIDDLE_C
  const high = notes.length > 0 ? Math.max(...notes) : MIDDLE_C
  const set = (from: number, to: number) => onRange(Array.from({ length: to - from + 1 }, (_, i) => from + i))
  const held = (typed: number) => Math.min(127, Math.max(0, Math.round(typed)))
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <Text look="label" tone="muted" style={{ flex: 1 }}>
        Answers notes from
      </Text>
      <NumberField
        label="Lowest note"
        text={String(low)}
        unit={noteName(low)}
        width={44}
        onNumber={(note) => set(held(note), Math.max(held(note), high))}
      />
      <Text look="label" tone="muted">
        to
      </Text>
      <NumberField
        label="Highest note"
        text={String(high)}
        unit={noteName(high)}
        width={44}
        onNumber={(note) => set(Math.min(held(note), low), held(note))}
      />
    </View>
  )
}
