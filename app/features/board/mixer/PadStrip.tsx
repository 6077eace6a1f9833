import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'

import { raysLevel, strikePad, toggleSolo } from '../../../audio/engine/sound'
import { IconButton } from '../../../ui/controls/Button'
import { editKit } from '../../../kit-view'
import { PadGlyph } from '../../../kit-view/PadGlyph'
import { padName } from '../../../kit-view/use-kit'
import type { KitGesture } from '../../../kit-view/use-kit'
import { Strip } from './Strip'

/** A pad against the others. */
export function PadStrip({ kit, pad, isSolo, gesture }: { kit: Kit; pad: Pad; isSolo: boolean; gesture: KitGesture }) {
  const settings = padSettings(kit, pad)
  const name = padName(kit, pad)
  const own = (fields: Partial<Pad['own']>): KitEdit[] => [{ type: 'setPad', padId: pad.id, own: fields }]
  return (
    <Strip
      name={name}
      face={<PadGlyph kit={kit} pad={pad} size={36} />}
      level={() => Math.max(...raysLevel(pad.id))}
      gainDb={settings.values.gainDb}
      pan={settings.values.pan}
      mute={settings.mute}
      onGain={(gainDb) => gesture.set(own({ values: { gainDb } }))}
      onPan={(pan) => gesture.set(own({ values: { pan } }))}
      onDone={gesture.end}
      onMute={() => editKit(kit.id, own({ mute: !settings.mute }))}
    >
      <IconButton name="play-outline" label={`Strike ${name}`} onPress={() => strikePad({ padId: pad.id, velocity: 100, key: 902 })} />
      <IconButton
        name="headphones"
        label={isSolo ? `${name} sounds alone` : `Only ${name}`}
        on={isSolo}
        onPress={() => toggleSolo('pads', pad.id)}
      />
    </Strip>
  )
}
