import { cutoffDb, dampingOf, padSettings, parameters } from '@heliaster/core/kit'
import type { Envelope, Kit, OwnSettings, Pad, PadSettings, Parameter } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'

import { Button, IconButton } from '../../ui/Button'
import { Chips } from '../../ui/Chips'
import { nearestNote, noteName } from '../../ui/note-name'
import { TuneSlider } from '../../ui/PanAndTune'
import { Slider } from '../../ui/Slider'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { useIsWide } from '../../ui/use-is-wide'
import { useKit, useKitId } from '../shell'
import { hearAgain, padGesture, padName, useChosenPad } from '../shell/use-kit'
import { addPoint, clipEndSeconds, movePoint, newEnvelope, removePoint } from './envelope-edits'
import type { Layer } from './envelope-edits'
import { Movers } from './Movers'
import { PointFields } from './PointFields'
import { TideChart } from './TideChart'
import { useDrawnHit } from './use-drawn-hit'

const LAYERS = [
  { value: 'level', text: 'Level' },
  { value: 'pitch', text: 'Pitch' },
] as const
const FILTERS = [
  { value: 'off', text: 'Off' },
  { value: 'lowPass', text: 'Low pass' },
  { value: 'bandPass', text: 'Band' },
  { value: 'highPass', text: 'High pass' },
] as const

const { min: MIN_DAMPING, max: MAX_DAMPING } = parameters.filter1Damping
const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))

/** Where one pad's sound is shaped, on its tide chart. */
export function ShapeScreen() {
  const kit = useKit()
  const chosen = useChosenPad()
  if (!kit) return null
  if (!chosen || chosen.pad.bands.every((band) => band.turns.length === 0)) return <NothingToShape />
  return <ShapeBench key={chosen.pad.id} kit={chosen.kit} pad={chosen.pad} />
}

function NothingToShape() {
  const kitId = useKitId()
  const chosen = useChosenPad()
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 24 }}>
      <Text look="heading">{chosen ? `${padName(chosen.kit, chosen.pad)} is empty` : 'No pad to shape yet'}</Text>
      <Text tone="muted" style={{ textAlign: 'center', maxWidth: 340 }}>
        Put clips on it first, or strike another pad below.
      </Text>
      <Button label="To the Board" kind="main" onPress={() => router.navigate(`/kit/${kitId}/board`)} />
    </View>
  )
}

function ShapeBench({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const palette = usePalette()
  const isWide = useIsWide()
  const [layer, setLayer] = useState<Layer>('level')
  const [point, setPoint] = useState<number>()
  const settings = padSettings(kit, pad)
  const { values, choices, envelopes } = settings
  const drawn = useDrawnHit(kit, pad)
  const baseHz = drawn?.pitchHz && drawn.pitchHz * 2 ** (values.tuneCents / 1200)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const set = (own: OwnSettings) => gesture.set([{ type: 'setPad', padId: pad.id, own }])
  const setValue = (name: Parameter, value: number) => set({ values: { [name]: value } })
  const setEnvelope = (envelope: Envelope) => set({ envelopes: { [layer]: envelope } })
  const envelope = envelopes[layer]
  const put = (changed: Envelope, chosenPoint?: number) => {
    setEnvelope(changed)
    gesture.end()
    setPoint(chosenPoint)
  }
  const chart = (
    <TideChart
      isWide={isWide}
      drawn={drawn}
      baseHz={baseHz}
      shape={settings}
      family={settings.family}
      layer={layer}
      point={point}
      onPoint={setPoint}
      onMove={(index, seconds, value) => setEnvelope(movePoint(envelope, index, seconds, value, layer))}
      onMoved={gesture.end}
      onAdd={(seconds, value) => {
        const [changed, index] = addPoint(envelope, seconds, value, layer)
        put(changed, index)
      }}
    />
  )
  const bar = (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <View style={{ flex: 1 }}>
        <Chips
          label="Envelope"
          hideLabel
          options={LAYERS}
          value={layer}
          onChoose={(next) => {
            setLayer(next)
            setPoint(undefined)
          }}
        />
      </View>
      {envelope.points.length === 0 ? (
        <Button
          label={layer === 'level' ? 'Shape the level' : 'Shape the pitch'}
          kind="main"
          onPress={() => put(newEnvelope(layer, drawn?.soundSeconds ?? 0.3), 1)}
        />
      ) : (
        <Button label="Remove envelope" onPress={() => put({ points: [] })} />
      )}
      <IconButton name="volume-high" label={`Hear ${settings.name}`} onPress={() => hearAgain(kit.id, pad.id)} />
    </View>
  )
  const controls = (
    <>
      {point !== undefined && envelope.points[point] && (
        <PointFields
          envelope={envelope}
          index={point}
          layer={layer}
          canSustain={(settings.mode === 'hold' || settings.mode === 'loopUntilLetGo') && layer === 'level'}
          onChange={(changed) => put(changed, point)}
          onPoint={setPoint}
          onBend={(bend) => setEnvelope({ ...envelope, points: envelope.points.map((one, i) => (i === point ? { ...one, bend } : one)) })}
          onBent={gesture.end}
          onRemove={() => put(removePoint(envelope, point), undefined)}
        />
      )}
      {drawn && <EndsFirst settings={settings} clipSeconds={drawn.clipSeconds} />}
      <TuneSlider value={values.tuneCents} onSlide={(cents) => setValue('tuneCents', cents)} onDone={gesture.end} />
      <Slider
        label="Start"
        value={values.startSeconds * 1000}
        min={0}
        max={Math.max(50, Math.round((drawn?.clipSeconds ?? 0.5) * 1000))}
        step={0.1}
        power={2}
        unit="ms"
        neutral={0}
        onSlide={(ms) => setValue('startSeconds', ms / 1000)}
        onDone={gesture.end}
      />
      {envelopes.level.points.length > 0 && (
        <Slider
          label="Length of the level envelope"
          value={values.decayScale * 100}
          min={5}
          max={400}
          step={1}
          power={2}
          unit="%"
          neutral={100}
          onSlide={(percent) => setValue('decayScale', percent / 100)}
          onDone={gesture.end}
        />
      )}
      <Chips
        label="Filter"
        options={FILTERS}
        value={FILTERS.find(({ value }) => value === choices.filter1Kind)?.value}
        onChoose={(type) => {
          set({ choices: { filter1Kind: type } })
          gesture.end()
        }}
      />
      {choices.filter1Kind !== 'off' && (
        <>
          <Slider
            label="Cutoff"
            value={values.filter1CutoffHz}
            min={20}
            max={18000}
            step={1}
            power={4}
            unit="Hz"
            onSlide={(hz) => setValue('filter1CutoffHz', hz)}
            onDone={gesture.end}
          />
          <Slider
            label="Resonance, at the cutoff"
            value={cutoffDb(values.filter1Damping)}
            min={-6}
            max={26}
            step={0.1}
            unit="dB"
            onSlide={(db) => setValue('filter1Damping', clamp(dampingOf(db), MIN_DAMPING, MAX_DAMPING))}
            onDone={gesture.end}
          />
        </>
      )}
      <Movers kit={kit} pad={pad} onSlide={gesture.set} onDone={gesture.end} />
    </>
  )
  const title = (
    <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 10 }}>
      <Text look="heading">{padName(kit, pad)}</Text>
      <Text look="figures" tone="muted">
        {baseHz ? `${baseHz.toFixed(1)} Hz, ${noteName(nearestNote(baseHz, kit.tuningA4Hz).note)}` : drawn ? 'unpitched' : ''}
      </Text>
      <Text look="small" tone="muted" style={{ flex: 1, textAlign: 'right' }}>
        this pad only
      </Text>
    </View>
  )
  if (isWide)
    return (
      <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
        <View style={{ flex: 1, minWidth: 0, padding: 20, gap: 12 }}>
          {title}
          {chart}
          {bar}
        </View>
        <ScrollView
          style={{ width: 380, flexGrow: 0, borderLeftWidth: 1, borderLeftColor: palette.faint }}
          contentContainerStyle={{ padding: 20, gap: 14 }}
        >
          {controls}
        </ScrollView>
      </View>
    )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View style={{ paddingHorizontal: 16, gap: 8, paddingBottom: 8 }}>
        {title}
        {chart}
        {bar}
      </View>
      <ScrollView style={{ flex: 1, borderTopWidth: 1, borderTopColor: palette.faint }} contentContainerStyle={{ padding: 16, gap: 12 }}>
        {controls}
      </ScrollView>
    </View>
  )
}

/** A one-shot whose envelope is longer than its clip: the clip ends first, and that is said. */
export function EndsFirst({ settings, clipSeconds }: { readonly settings: PadSettings; readonly clipSeconds: number }) {
  const { values, envelopes, mode } = settings
  const last = envelopes.level.points[envelopes.level.points.length - 1]
  const envelopeSeconds = (last?.seconds ?? 0) * values.decayScale
  const soundSeconds = clipEndSeconds(envelopes.pitch, values.startSeconds, values.tuneCents, clipSeconds)
  if ((mode !== 'oneShot' && mode !== 'hold') || envelopeSeconds <= soundSeconds + 0.001) return null
  return (
    <Text look="small" tone="coral" role="status">
      {`The clip ends after ${soundSeconds.toFixed(2)} s, before its level envelope does (${envelopeSeconds.toFixed(2)} s). It sounds no longer than the clip.`}
    </Text>
  )
}
