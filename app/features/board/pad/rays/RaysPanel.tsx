import { createRay, padSettings, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, Ray, RayId } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { hearRay, raysLevel, soloed, toggleSolo } from '../../../../audio/engine/sound'
import { makeId } from '../../../../documents/make-id'
import { Button, IconButton } from '../../../../ui/controls/Button'
import { Meter } from '../../../../ui/drawing/Meter'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { usePalette } from '../../../../ui/theme/theme'
import { editKit } from '../../../../kit-view'
import { padGesture } from '../../../../kit-view/use-kit'
import { addedByRays } from './added-by-rays'
import { LineUpPanel } from './LineUpPanel'
import { RayPanel } from './RayPanel'

/** What a pad sounds together: each ray with its meter, level, mute and solo; the rest of a ray is a tap away. */
export function RaysPanel({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const palette = usePalette()
  const [openId, setOpenId] = useState<RayId>()
  const solo = useStore(soloed, (state) => state.rays)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const set = (ray: Ray, fields: Partial<Ray>): KitEdit => ({ type: 'setRay', padId: pad.id, rayId: ray.id, fields: fields as never })
  const add = () => {
    const ray = createRay(makeId, `Ray ${pad.rays.length + 1}`)
    editKit(kit.id, [{ type: 'setPadFilling', padId: pad.id, rays: [...pad.rays, { ...ray, source: { kind: 'clips', bands: [] } }] }])
    setOpenId(ray.id)
  }
  return (
    <View style={{ gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Text look="label" tone="muted" style={{ flex: 1 }}>
          {pad.rays.length === 1 ? 'One ray' : `${pad.rays.length} rays sound together`}
        </Text>
        <Button label="Add a ray" disabled={pad.rays.length >= 32} onPress={add} />
      </View>
      {pad.rays.map((ray, place) => (
        <View key={ray.id} style={{ borderTopWidth: 1, borderTopColor: palette.faint, paddingTop: 4 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center' }}>
            <View style={{ flex: 1, gap: 4 }}>
              <Text look="strong" numberOfLines={1}>
                {ray.name}
              </Text>
              <Meter level={() => raysLevel(pad.id)[place]} label={`Level of ${ray.name}`} />
            </View>
            <IconButton name="play-outline" label={`Hear ${ray.name} alone`} onPress={() => hearRay(pad, ray.id)} />
            <IconButton
              name={ray.mute ? 'volume-off' : 'volume-high'}
              label={ray.mute ? `${ray.name} is muted` : `Mute ${ray.name}`}
              tone={ray.mute ? 'coral' : 'ink'}
              on={ray.mute}
              onPress={() => editKit(kit.id, [set(ray, { mute: !ray.mute })], pad.id)}
            />
            <IconButton
              name="headphones"
              label={solo.includes(ray.id) ? `${ray.name} sounds alone` : `Only ${ray.name}`}
              on={solo.includes(ray.id)}
              onPress={() => toggleSolo('rays', ray.id)}
            />
            <IconButton
              name={openId === ray.id ? 'chevron-up' : 'chevron-down'}
              label={`Settings of ${ray.name}`}
              on={openId === ray.id}
              onPress={() => setOpenId(openId === ray.id ? undefined : ray.id)}
            />
          </View>
          <Slider
            label="Level"
            value={valueOf(ray, 'gainDb')}
            min={-60}
            max={24}
            step={0.1}
            unit="dB"
            neutral={0}
            onSlide={(gainDb) => gesture.set([set(ray, { values: { gainDb } })])}
            onDone={gesture.end}
          />
          {openId === ray.id && <RayPanel kit={kit} pad={pad} ray={ray} gesture={gesture} onRemoved={() => setOpenId(undefined)} />}
        </View>
      ))}
      {pad.rays.length === 2 && <Blend pad={pad} set={set} gesture={gesture} />}
      {pad.rays.length > 1 && <KeepLevel kit={kit} pad={pad} />}
      {pad.rays.length > 1 && <LineUpPanel kit={kit} pad={pad} />}
    </View>
  )
}

/** More rays are louder: the pad's level gives back what they add to the first one. */
function KeepLevel({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [isBusy, setBusy] = useState(false)
  const [words, setWords] = useState<string>()
  const [first] = pad.rays
  const keep = async () => {
    setBusy(true)
    try {
      const louderDb = await addedByRays(kit, pad)
      const gainDb = Math.round(10 * (padSettings(kit, pad).values.gainDb - louderDb)) / 10
      if (Math.abs(louderDb) >= 0.1) editKit(kit.id, [{ type: 'setPad', padId: pad.id, own: { values: { gainDb } } }], pad.id)
      setWords(
        `All rays were ${Math.abs(louderDb).toFixed(1)} dB ${louderDb < 0 ? 'softer' : 'louder'} than ${first.name} alone; the pad’s level is ${gainDb.toFixed(1)} dB now.`,
      )
    } catch (error) {
      setWords(error instanceof Error ? error.message : String(error))
    }
    setBusy(false)
  }
  return (
    <>
      <Button label={`Keep it as loud as ${first.name} alone`} busy={isBusy} disabled={isBusy} onPress={() => void keep()} />
      {words && (
        <Text look="small" role="status">
          {words}
        </Text>
      )}
    </>
  )
}

interface BlendProps {
  readonly pad: Pad
  readonly set: (ray: Ray, fields: Partial<Ray>) => KitEdit
  readonly gesture: ReturnType<typeof padGesture>
}

/** One control from one ray to the other: their powers add up to the same. */
function Blend({ pad, set, gesture }: BlendProps) {
  const [first, second] = pad.rays
  const share = (2 / Math.PI) * Math.atan2(10 ** (valueOf(second, 'gainDb') / 20), 10 ** (valueOf(first, 'gainDb') / 20))
  const toDb = (gain: number) => Math.max(-60, Math.round(200 * Math.log10(Math.max(1e-3, gain * Math.SQRT2))) / 10)
  return (
    <Slider
      label={`Blend ${first.name} to ${second.name}`}
      value={Math.round(100 * share)}
      min={0}
      max={100}
      step={1}
      unit="%"
      neutral={50}
      onSlide={(percent) => {
        const angle = (percent / 100) * (Math.PI / 2)
        gesture.set([set(first, { values: { gainDb: toDb(Math.cos(angle)) } }), set(second, { values: { gainDb: toDb(Math.sin(angle)) } })])
      }}
      onDone={gesture.end}
    />
  )
}
