import { padSettings } from '@heliaster/core/kit'
import type { Envelope, Kit, OwnSettings, Pad } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'
import { ScrollView, View } from 'react-native'

import { Button, IconButton } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { nearestNote, noteName } from '../../kit-view/note-name'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { useKit, useKitId } from '../../kit-view'
import { hearAgain, padGesture, padName, useChosenPad } from '../../kit-view/use-kit'
import { addPoint, movePoint, newEnvelope, removePoint } from './chart/envelope-edits'
import type { Layer } from './chart/envelope-edits'
import { FIRST_REACH_CENTS } from './controls/FilterControls'
import { PointFields } from './chart/PointFields'
import { ShapeControls } from './controls/ShapeControls'
import { TideChart } from './chart/TideChart'
import { useDrawnHit } from './chart/use-drawn-hit'

const LAYERS = [
  { value: 'level', text: 'Level', begin: 'Shape the level' },
  { value: 'pitch', text: 'Pitch', begin: 'Shape the pitch' },
  { value: 'filter1', text: 'Filter', begin: 'Shape the filter' },
  { value: 'filter2', text: 'Filter 2', begin: 'Shape the second filter' },
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
  const [chosenLayer, setLayer] = useState<Layer>('level')
  const [point, setPoint] = useState<number>()
  const settings = padSettings(kit, pad)
  const { values, choices, envelopes } = settings
  const drawn = useDrawnHit(kit, pad)
  const layers = LAYERS.filter(({ value }) => (value !== 'filter1' && value !== 'filter2') || choices[`${value}Kind`] !== 'off')
  const layer = layers.some(({ value }) => value === chosenLayer) ? chosenLayer : 'level'
  const baseHz = drawn?.pitchHz && drawn.pitchHz * 2 ** (values.tuneCents / 1200)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const set = (own: OwnSettings) => gesture.set([{ type: 'setPad', padId: pad.id, own }])
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
  const layerChips = (
    <View style={{ flex: 1 }}>
      <Chips
        label="Envelope"
        hideLabel
        options={layers}
        value={layer}
        onChoose={(next) => {
          setLayer(next)
          setPoint(undefined)
        }}
      />
    </View>
  )
  const begin = () => {
    if ((layer === 'filter1' || layer === 'filter2') && values[`${layer}EnvelopeCents`] === 0)
      set({ values: { [`${layer}EnvelopeCents`]: FIRST_REACH_CENTS } })
    put(newEnvelope(layer, drawn?.soundSeconds ?? 0.3), 1)
  }
  const act =
    envelope.points.length === 0 ? (
      <Button label={LAYERS.find(({ value }) => value === layer)!.begin} kind="main" onPress={begin} />
    ) : (
      <Button label="Remove envelope" onPress={() => put({ points: [] })} />
    )
  const hear = <IconButton name="volume-high" label={`Hear ${settings.name}`} onPress={() => hearAgain(kit.id, pad.id)} />
  const row = { flexDirection: 'row', alignItems: 'center', gap: 6 } as const
  // With filters among them the envelopes fill a row of their own on a phone.
  const isCrowded = !isWide && layers.length > 2
  const bar = isCrowded ? (
    <View style={{ gap: 8 }}>
      <View style={row}>
        {layerChips}
        {hear}
      </View>
      {act}
    </View>
  ) : (
    <View style={row}>
      {layerChips}
      {act}
      {hear}
    </View>
  )
  const controls = (
    <>
      {point !== undefined && envelope.points[point] && (
        <PointFields
          envelope={envelope}
          index={point}
          layer={layer}
          canSustain={settings.mode === 'hold' || settings.mode === 'loopUntilLetGo'}
          onChange={(changed) => put(changed, point)}
          onPoint={setPoint}
          onBend={(bend) => setEnvelope({ ...envelope, points: envelope.points.map((one, i) => (i === point ? { ...one, bend } : one)) })}
          onBent={gesture.end}
          onRemove={() => put(removePoint(envelope, point), undefined)}
        />
      )}
      <ShapeControls kit={kit} pad={pad} drawn={drawn} onEdits={gesture.set} onDone={gesture.end} />
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
