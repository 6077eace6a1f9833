import type { Kit, KitEdit, Pad, Ray } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { View } from 'react-native'

import { strikePad } from '../../../audio/engine/sound'
import { editKit } from '../../../kit-view'
import { busOptions, sendEdits } from '../../../kit-view/buses/bus-edits'
import { Sends } from '../../../kit-view/buses/Sends'
import { PanSlider } from '../../../kit-view/PanAndTune'
import { session } from '../../../kit-view/session'
import { showPart } from '../../../kit-view/shape-parts'
import { padName } from '../../../kit-view/use-kit'
import type { KitGesture } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Part } from '../../../ui/layout/Part'

/** A pad in the mix: where it stands, where it and its rays go, and what they send to the returns. */
export function PadPanel({ kit, pad, gesture }: { readonly kit: Kit; readonly pad: Pad; readonly gesture: KitGesture }) {
  const settings = padSettings(kit, pad)
  const name = padName(kit, pad)
  const own = (fields: Partial<Pad['own']>): KitEdit[] => [{ type: 'setPad', padId: pad.id, own: fields }]
  const shape = () => {
    session.setState({ padId: pad.id })
    router.navigate(`/kit/${kit.id}/shape`)
  }
  return (
    <View style={{ gap: 12 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
        <Button label="Strike" icon="play-outline" onPress={() => strikePad({ padId: pad.id, velocity: 100 })} />
        <Button label="Shape it" onPress={shape} />
        <Button
          label="Slice by slice"
          onPress={() => {
            showPart('slices')
            shape()
          }}
        />
      </View>
      <PanSlider value={settings.values.pan} onSlide={(pan) => gesture.set(own({ values: { pan } }))} onDone={gesture.end} />
      <Chips
        label="Goes to"
        options={busOptions(kit, 'The mix')}
        value={settings.bus ?? 'none'}
        onChoose={(choice) => editKit(kit.id, sendEdits(pad, undefined, choice, name))}
      />
      {pad.rays.map((ray) => (
        <RaySends key={ray.id} kit={kit} pad={pad} ray={ray} gesture={gesture} />
      ))}
    </View>
  )
}

interface RayProps {
  readonly kit: Kit
  readonly pad: Pad
  readonly ray: Ray
  readonly gesture: KitGesture
}

/** What a ray sends; of a pad with several each stands under its name, with its own way. */
function RaySends({ kit, pad, ray, gesture }: RayProps) {
  const isOnly = pad.rays.length === 1
  const put = (sends: Ray['sends']): KitEdit[] => [{ type: 'setRay', padId: pad.id, rayId: ray.id, fields: { sends } }]
  const sends = (
    <Sends
      kit={kit}
      from={isOnly ? padName(kit, pad) : ray.name}
      sends={ray.sends}
      targets={kit.buses}
      onSlide={(next) => gesture.set(put([...next]))}
      onDone={gesture.end}
      onChange={(next) => editKit(kit.id, put([...next]))}
    />
  )
  if (isOnly) return sends
  return (
    <Part name={ray.name}>
      <Chips
        label={`${ray.name} goes to`}
        options={busOptions(kit, 'Where its pad goes')}
        value={ray.bus ?? 'none'}
        onChoose={(choice) => editKit(kit.id, sendEdits(pad, ray.id, choice, ray.name))}
      />
      {sends}
    </Part>
  )
}
