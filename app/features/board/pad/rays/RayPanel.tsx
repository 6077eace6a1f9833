import { padSettings, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, Ray } from '@heliaster/core/kit'
import { toOwnCells, toSharedCells, withoutRayAt } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../../documents/make-id'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { NameField } from '../../../../ui/controls/NameField'
import { notify } from '../../../../ui/layout/notices'
import { PanSlider, TuneSlider } from '../../../../kit-view/PanAndTune'
import { Slider } from '../../../../ui/controls/Slider'
import { Toggle } from '../../../../ui/controls/Toggle'
import { editKit } from '../../../../kit-view'
import type { padGesture } from '../../../../kit-view/use-kit'
import { busOptions, sendEdits } from '../../../../kit-view/buses/bus-edits'
import { Sends } from '../../../../kit-view/buses/Sends'
import type { BusChoice } from '../../../../kit-view/buses/bus-edits'
import { PICKS } from '../../../../kit-view/play-choices'
import { bottomGained } from './compare-polarity'

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
  const settings = padSettings(kit, pad)
  const isShared = ray.source.kind === 'clips' && !ray.source.bands
  return (
    <View style={{ gap: 14, paddingVertical: 8, paddingLeft: 12 }}>
      <NameField label="Name of the ray" value={ray.name} onName={(name) => edit({ name: name.trim().slice(0, 120) })} />
      <PanSlider value={valueOf(ray, 'pan')} onSlide={(pan) => gesture.set([set({ values: { pan } })])} onDone={gesture.end} />
      <TuneSlider
        value={valueOf(ray, 'tuneCents')}
        onSlide={(tuneCents) => gesture.set([set({ values: { tuneCents } })])}
        onDone={gesture.end}
      />
      <Slider
        label="Delay"
        value={Math.round(valueOf(ray, 'delaySeconds') * 1e5) / 100}
        min={0}
        max={1000}
        step={0.01}
        power={3}
        unit="ms"
        onSlide={(ms) => gesture.set([set({ values: { delaySeconds: ms / 1000 } })])}
        onDone={gesture.end}
      />
      <Polarity kit={kit} pad={pad} ray={ray} onFlip={(invert) => edit({ invert })} />
      <Slider
        label={settings.rootNote === undefined ? 'Follows the note, once the pad has a root note' : 'Follows the note'}
        value={valueOf(ray, 'keyTrack') * 100}
        min={0}
        max={100}
        step={1}
        unit="%"
        onSlide={(percent) => gesture.set([set({ values: { keyTrack: percent / 100 } })])}
        onDone={gesture.end}
      />
      <Slider
        label="Follows the bend, two semitones each way"
        value={valueOf(ray, 'bendTrack') * 100}
        min={0}
        max={100}
        step={1}
        unit="%"
        onSlide={(percent) => gesture.set([set({ values: { bendTrack: percent / 100 } })])}
        onDone={gesture.end}
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
      <Chips<BusChoice>
        label="Goes to"
        options={busOptions(kit, settings.bus ? 'Where the pad goes' : 'The mix')}
        value={ray.bus ?? 'none'}
        onChoose={(choice) => editKit(kit.id, sendEdits(pad, ray.id, choice, ray.name), pad.id)}
      />
      <Sends
        kit={kit}
        from={ray.name}
        sends={ray.sends}
        targets={kit.buses.filter(({ id }) => id !== (ray.bus ?? settings.bus))}
        onSlide={(sends) => gesture.set([set({ sends: [...sends] })])}
        onDone={gesture.end}
        onChange={(sends) => edit({ sends: [...sends] })}
      />
      {ray.source.kind === 'clips' && pad.rays.length > 1 && <OwnCells kit={kit} pad={pad} ray={ray} />}
      <Button
        label={`Remove ${ray.name}`}
        disabled={pad.rays.length < 2}
        onPress={() => {
          editKit(kit.id, [{ type: 'setPadFilling', padId: pad.id, ...withoutRayAt(pad, ray.id) }], pad.id)
          onRemoved()
        }}
      />
    </View>
  )
}

/** Which way up a ray sounds; beside others, how much bottom the other way would give is measured as the engine plays it. */
function Polarity({ kit, pad, ray, onFlip }: Pick<Props, 'kit' | 'pad' | 'ray'> & { readonly onFlip: (invert: boolean) => void }) {
  const [words, setWords] = useState<string>()
  const compare = () =>
    bottomGained(kit, pad, ray.id)
      .then((db) => setWords(`The other way has ${Math.abs(db).toFixed(1)} dB ${db < 0 ? 'less' : 'more'} under 150 Hz.`))
      .catch((error: Error) => setWords(error.message))
  const flip = (invert: boolean) => {
    setWords(undefined)
    onFlip(invert)
  }
  return (
    <View style={{ gap: 4 }}>
      <Toggle label="Flip polarity" words={words ?? 'Listen which way has more bottom.'} value={ray.invert} onChange={flip} />
      {pad.rays.length > 1 && <Button label="Which way has more bottom?" onPress={() => void compare()} />}
    </View>
  )
}

/** Whether a ray shares bands and turns with the others or has its own, which go round by themselves. */
function OwnCells({ kit, pad, ray }: Pick<Props, 'kit' | 'pad' | 'ray'>) {
  const own = ray.source.kind === 'clips' ? ray.source.bands : undefined
  const change = (isOwn: boolean) => {
    const filling = isOwn ? toOwnCells(makeId, pad, ray.id) : toSharedCells(pad, ray.id)
    if (filling) editKit(kit.id, [{ type: 'setPadFilling', padId: pad.id, ...filling }], pad.id)
    else notify(`${ray.name} has bands or turns that the other rays have not; their clips would be lost. Give it as many as they have.`)
  }
  const pick = (ray.source.kind === 'clips' && ray.source.pick) || 'pad'
  return (
    <>
      <Toggle
        label="Bands and turns of its own"
        words={own ? 'They go round by themselves; see Cells.' : 'Off: it sounds the same band and turn as the others.'}
        value={own !== undefined}
        onChange={change}
      />
      {own && (
        <Chips
          label="Its next turn"
          options={[{ value: 'pad', text: 'As the pad' }, ...PICKS]}
          value={pick}
          onChoose={(next) => {
            const source = { kind: 'clips' as const, bands: own, ...(next === 'pad' ? {} : { pick: next }) }
            editKit(kit.id, [{ type: 'setRay', padId: pad.id, rayId: ray.id, fields: { source } }], pad.id)
          }}
        />
      )}
    </>
  )
}
