import type { BusId, Kit, KitEdit, Pad, Ray } from '@heliaster/core/kit'
import { View } from 'react-native'

import { makeId } from '../../../stores/make-id'
import { Button } from '../../../ui/Button'
import { Chips } from '../../../ui/Chips'
import { NameField } from '../../../ui/NameField'
import { PanSlider, TuneSlider } from '../../../ui/PanAndTune'
import { Slider } from '../../../ui/Slider'
import { Toggle } from '../../../ui/Toggle'
import { editKit } from '../../shell'
import type { padGesture } from '../../shell/use-kit'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly ray: Ray
  readonly gesture: ReturnType<typeof padGesture>
  readonly onRemoved: () => void
}

const MISSING = [
  { value: 'silent', text: 'Stays silent' },
  { value: 'nearest', text: 'Takes the nearest band’s' },
] as const

/** All settings of one ray; they touch this ray of this pad alone. */
export function RayPanel({ kit, pad, ray, gesture, onRemoved }: Props) {
  const set = (fields: Partial<Ray>): KitEdit => ({ type: 'setRay', padId: pad.id, rayId: ray.id, fields: fields as never })
  const edit = (fields: Partial<Ray>) => editKit(kit.id, [set(fields)], pad.id)
  const choose = (bus: BusId | 'pad' | 'new') => {
    if (bus === 'pad') return editKit(kit.id, [{ type: 'setRay', padId: pad.id, rayId: ray.id, fields: {}, clear: ['bus'] }], pad.id)
    if (bus !== 'new') return edit({ bus })
    const made = { id: makeId<BusId>('bus'), name: ray.name, gainDb: 0, pan: 0, mute: false }
    editKit(kit.id, [{ type: 'putBus', bus: made }, set({ bus: made.id })], pad.id)
  }
  const isShared = ray.source.kind === 'clips' && !ray.source.bands
  return (
    <View style={{ gap: 14, paddingVertical: 8, paddingLeft: 12 }}>
      <NameField label="Name of the ray" value={ray.name} onName={(name) => edit({ name: name.trim().slice(0, 120) })} />
      <PanSlider value={ray.pan} onSlide={(pan) => gesture.set([set({ pan })])} onDone={gesture.end} />
      <TuneSlider value={ray.tuneCents} onSlide={(tuneCents) => gesture.set([set({ tuneCents })])} onDone={gesture.end} />
      <Slider
        label="Delay"
        value={Math.round(ray.delaySeconds * 1e5) / 100}
        min={0}
        max={1000}
        step={0.01}
        power={3}
        unit="ms"
        onSlide={(ms) => gesture.set([set({ delaySeconds: ms / 1000 })])}
        onDone={gesture.end}
      />
      <Toggle label="Flip polarity" words="Listen which way has more bottom." value={ray.invert} onChange={(invert) => edit({ invert })} />
      <Toggle
        label="Follows the note"
        words="Only where the pad has a root note: the body may follow while the click does not."
        value={ray.keyTrack > 0}
        onChange={(follows) => edit({ keyTrack: follows ? 1 : 0 })}
      />
      {isShared && (
        <Toggle
          label="A microphone of the same strike"
          words="It shares band and turn with the other microphones, always."
          value={ray.microphone}
          onChange={(microphone) => edit({ microphone })}
        />
      )}
      {isShared && (
        <Chips label="Where it has no clip, it" options={MISSING} value={ray.onMissing} onChoose={(onMissing) => edit({ onMissing })} />
      )}
      <Chips<BusId | 'pad' | 'new'>
        label="Goes to"
        options={[
          { value: 'pad', text: 'The mix' },
          ...kit.buses.map((bus) => ({ value: bus.id, text: bus.name })),
          ...(kit.buses.length < 16 ? [{ value: 'new' as const, text: 'A new bus' }] : []),
        ]}
        value={ray.bus ?? 'pad'}
        onChoose={choose}
      />
      <Button
        label={`Remove ${ray.name}`}
        disabled={pad.rays.length < 2}
        onPress={() => {
          editKit(kit.id, [{ type: 'setPadFilling', padId: pad.id, ...withoutRay(pad, ray) }], pad.id)
          onRemoved()
        }}
      />
    </View>
  )
}

function withoutRay(pad: Pad, ray: Ray): Pick<Pad, 'rays' | 'bands'> {
  const bands = pad.bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn) => {
      const { [ray.id]: _gone, ...clips } = turn.clips
      return { ...turn, clips }
    }),
  }))
  return { rays: pad.rays.filter((one) => one !== ray), bands }
}
