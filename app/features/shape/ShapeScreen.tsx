import { padSettings } from '@heliaster/core/kit'
import type { Envelope, Kit, Pad, PadSettings, Shape } from '@heliaster/core/kit'
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
import { PointFields } from './PointFields'
import { TideChart } from './TideChart'
import { useDrawnHit } from './use-drawn-hit'

const LAYERS = [
  { value: 'amp', text: 'Level' },
  { value: 'pitch', text: 'Pitch' },
] as const
const FILTERS = [
  { value: 'off', text: 'Off' },
  { value: 'lowPass', text: 'Low pass' },
  { value: 'bandPass', text: 'Band' },
  { value: 'highPass', text: 'High pass' },
] as const

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
  const [layer, setLayer] = useState<Layer>('amp')
  const [point, setPoint] = useState<number>()
  const settings = padSettings(kit, pad)
  const { shape } = settings
  const drawn = useDrawnHit(kit, pad)
  const baseHz = drawn?.pitchHz && drawn.pitchHz * 2 ** (settings.tuneCents / 1200)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const set = (own: Partial<PadSettings>) => gesture.set([{ type: 'setPad', padId: pad.id, own }])
  const setShape = (change: Partial<Shape>) => set({ shape: { ...shape, ...change } })
  const setEnvelope = (envelope: Envelope) => setShape({ [layer]: envelope })
  const envelope = shape[layer]
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
      shape={shape}
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
          label={layer === 'amp' ? 'Shape the level' : 'Shape the pitch'}
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
          canSustain={(settings.mode === 'hold' || settings.mode === 'loopUntilLetGo') && layer === 'amp'}
          onChange={(changed) => put(changed, point)}
          onPoint={setPoint}
          onBend={(bend) => setEnvelope({ ...envelope, points: envelope.points.map((one, i) => (i === point ? { ...one, bend } : one)) })}
          onBent={gesture.end}
          onRemove={() => put(removePoint(envelope, point), undefined)}
        />
      )}
      {drawn && <EndsFirst settings={settings} clipSeconds={drawn.clipSeconds} />}
      <TuneSlider value={settings.tuneCents} onSlide={(tuneCents) => set({ tuneCents })} onDone={gesture.end} />
      <Slider
        label="Start"
        value={shape.startSeconds * 1000}
        min={0}
        max={Math.max(50, Math.round((drawn?.clipSeconds ?? 0.5) * 1000))}
        step={0.1}
        power={2}
        unit="ms"
        neutral={0}
        onSlide={(ms) => setShape({ startSeconds: ms / 1000 })}
        onDone={gesture.end}
      />
      {shape.amp.points.length > 0 && (
        <Slider
          label="Length of the level envelope"
          value={shape.decayScale * 100}
          min={5}
          max={400}
          step={1}
          power={2}
          unit="%"
          neutral={100}
          onSlide={(percent) => setShape({ decayScale: percent / 100 })}
          onDone={gesture.end}
        />
      )}
      <Chips
        label="Filter"
        options={FILTERS}
        value={shape.filter.type}
        onChoose={(type) => {
          setShape({ filter: { ...shape.filter, type } })
          gesture.end()
        }}
      />
      {shape.filter.type !== 'off' && (
        <>
          <Slider
            label="Cutoff"
            value={shape.filter.cutoffHz}
            min={20}
            max={18000}
            step={1}
            power={4}
            unit="Hz"
            onSlide={(cutoffHz) => setShape({ filter: { ...shape.filter, cutoffHz } })}
            onDone={gesture.end}
          />
          <Slider
            label="Resonance"
            value={shape.filter.resonance * 100}
            min={0}
            max={100}
            step={1}
            unit="%"
            onSlide={(percent) => setShape({ filter: { ...shape.filter, resonance: percent / 100 } })}
            onDone={gesture.end}
          />
        </>
      )}
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
  const { shape, mode, tuneCents } = settings
  const last = shape.amp.points[shape.amp.points.length - 1]
  const envelopeSeconds = (last?.seconds ?? 0) * shape.decayScale
  const soundSeconds = clipEndSeconds(shape, tuneCents, clipSeconds)
  if ((mode !== 'oneShot' && mode !== 'hold') || envelopeSeconds <= soundSeconds + 0.001) return null
  return (
    <Text look="small" tone="coral" role="status">
      {`The clip ends after ${soundSeconds.toFixed(2)} s, before its level envelope does (${envelopeSeconds.toFixed(2)} s). It sounds no longer than the clip.`}
    </Text>
  )
}
