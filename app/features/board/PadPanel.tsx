import type { Kit, KitEdit, Pad, PadSettings, Source } from '@heliaster/core/kit'
import { padSettings, padStartOf } from '@heliaster/core/kit'
import type { TakeTarget } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { missingAudio } from '../../audio/audio-files'
import { Button } from '../../ui/Button'
import { Chips } from '../../ui/Chips'
import { NameField } from '../../ui/NameField'
import { noteName } from '../../ui/note-name'
import { NumberField, Slider } from '../../ui/Slider'
import { Text } from '../../ui/Text'
import { PlaceSheet } from '../place'
import { RecordHereSheet } from '../record-here'
import { editKit } from '../shell'
import { padGesture } from '../shell/use-kit'
import { KeepStart } from '../starts'
import { CellGrid } from './CellGrid'
import { describeMissing } from './describe-pad'
import { ChokeChips } from './ChokeChips'
import { FillSheet } from './FillSheet'
import { duplicateEdits, removeEdits, spreadEdits } from './pad-edits'

const MODES = [
  { value: 'oneShot', text: 'One-shot' },
  { value: 'hold', text: 'Hold' },
  { value: 'silencer', text: 'Only silences' },
] as const
const PICKS = [
  { value: 'cycle', text: 'Cycle' },
  { value: 'random', text: 'Random' },
  { value: 'shuffle', text: 'Shuffle' },
] as const

/** One pad: what fills it first, then how it plays. Every change here is of this pad alone. */
export function PadPanel({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [filling, setFilling] = useState(false)
  const [recording, setRecording] = useState<TakeTarget>()
  const [placing, setPlacing] = useState<readonly Source[]>()
  const missing = useStore(missingAudio, (state) => describeMissing(pad, state))
  const settings = padSettings(kit, pad)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const edit = (...edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const set = (own: Partial<PadSettings>) => edit({ type: 'setPad', padId: pad.id, own })
  const slide = (own: Partial<PadSettings>) => gesture.set([{ type: 'setPad', padId: pad.id, own }])
  const level = settings.responses.find((response) => response.from === 'velocity' && response.to.kind === 'gainDb')
  const setLevelRange = (amount: number) =>
    slide({
      responses: [
        ...settings.responses.filter((one) => one !== level),
        { from: 'velocity', to: { kind: 'gainDb' }, amount, bend: level?.bend ?? 0, bypass: false },
      ],
    })
  const turns = pad.bands.reduce((sum, band) => sum + band.turns.length, 0)
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 16, alignItems: 'flex-end' }}>
        <View style={{ flex: 1 }}>
          <NameField
            label="Name"
            value={settings.name}
            placeholder="Unnamed pad"
            onName={(name) => set({ name: name.trim().slice(0, 120) })}
          />
        </View>
        <View>
          <Text look="label" tone="muted">
            Note
          </Text>
          <NumberField
            label="MIDI note"
            text={pad.notes.length > 0 ? String(pad.notes[0]) : ''}
            unit={pad.notes.length > 0 ? noteName(pad.notes[0]) : 'none'}
            onNumber={(note) =>
              edit({
                type: 'setPadNotes',
                padId: pad.id,
                notes: note >= 0 && note <= 127 ? [Math.round(note), ...pad.notes.slice(1)] : pad.notes,
              })
            }
          />
        </View>
      </View>
      {missing && (
        <Text look="small" tone="coral" role="alert">
          {missing}
        </Text>
      )}
      <CellGrid
        kit={kit}
        pad={pad}
        onBandEdge={(bandId, fromVelocity) => edit({ type: 'setBand', padId: pad.id, bandId, fields: { fromVelocity } })}
        onRecord={setRecording}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={turns > 0 ? 'Replace the clips' : 'Choose clips'}
          kind={turns > 0 ? 'plain' : 'main'}
          onPress={() => setFilling(true)}
        />
        <Button label="Record here" icon="record-circle-outline" onPress={() => setRecording({ kind: 'pad' })} />
        {turns > 1 && pad.bands.length === 1 && <Button label="Spread as bands" onPress={() => edit(...spreadEdits(pad, 'bands'))} />}
        {pad.bands.length > 1 && <Button label="Spread as turns" onPress={() => edit(...spreadEdits(pad, 'turns'))} />}
        {pad.bands.length > 1 && <Button label="Even edges" onPress={() => edit(...spreadEdits(pad, 'even'))} />}
        <Button label="Shape" onPress={() => router.navigate(`/kit/${kit.id}/shape`)} />
      </View>
      <Chips label="Next turn" options={PICKS} value={settings.pick} onChoose={(pick) => set({ pick })} />
      <ChokeChips kit={kit} pad={pad} />
      <Chips
        label="When struck"
        options={MODES}
        value={settings.mode as (typeof MODES)[number]['value']}
        onChoose={(mode) => set({ mode })}
      />
      <Slider
        label="Level"
        value={settings.gainDb}
        min={-48}
        max={24}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => slide({ gainDb })}
        onDone={gesture.end}
      />
      <Slider
        label="Pan"
        value={settings.pan}
        min={-1}
        max={1}
        step={0.01}
        unit=""
        neutral={0}
        format={panWords}
        onSlide={(pan) => slide({ pan })}
        onDone={gesture.end}
      />
      <Slider
        label="Tune"
        value={settings.tuneCents / 100}
        min={-48}
        max={48}
        step={0.01}
        unit="st"
        neutral={0}
        onSlide={(semitones) => slide({ tuneCents: Math.round(semitones * 100) })}
        onDone={gesture.end}
      />
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
      <Slider
        label="Strikes at once"
        value={settings.maxStrikes}
        min={1}
        max={32}
        step={1}
        unit=""
        onSlide={(maxStrikes) => slide({ maxStrikes })}
        onDone={gesture.end}
      />
      <KeepStart label="Keep these settings as a start" settings={{ pad: padStartOf(settings) }} />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Duplicate" onPress={() => edit(...duplicateEdits(kit, pad))} />
        <Button label="Remove pad" onPress={() => editKit(kit.id, removeEdits(kit, pad))} />
      </View>
      {pad.rays.length > 1 && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          {pad.rays
            .filter((ray) => !ray.microphone)
            .map((ray) => (
              <Button
                key={ray.id}
                label={`Record ${ray.name}`}
                icon="record-circle-outline"
                onPress={() => setRecording({ kind: 'ray', rayId: ray.id })}
              />
            ))}
        </View>
      )}
      {filling && (
        <FillSheet
          kit={kit}
          pad={pad}
          onClose={() => setFilling(false)}
          onPlace={(files) => {
            setFilling(false)
            setPlacing(files)
          }}
        />
      )}
      {placing && <PlaceSheet files={placing} onto={pad} onClose={() => setPlacing(undefined)} />}
      {recording && <RecordHereSheet kit={kit} pad={pad} target={recording} onClose={() => setRecording(undefined)} />}
    </>
  )
}

function panWords(pan: number): string {
  return Math.abs(pan) < 0.005 ? 'middle' : `${pan < 0 ? 'L' : 'R'} ${Math.round(Math.abs(pan) * 100)}`
}
