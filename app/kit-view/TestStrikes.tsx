import type { PadId } from '@heliaster/core/kit'
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { releasePad, strikePad } from '../audio/engine/sound'
import { NumberField } from '../ui/controls/Slider'
import { Text } from '../ui/layout/Text'
import { TOUCH, usePalette } from '../ui/theme/theme'

const KEY = 920
/** The web's press waits 50 ms for a scroll to begin; a strike does not. */
const atOnce = { delayPressIn: 0 }
const STRIKES = [
  { label: 'Strike softly', velocity: 30, size: 10 },
  { label: 'Strike at middle strength', velocity: 76, size: 18 },
  { label: 'Strike hard', velocity: 122, size: 28 },
] as const

/** The same pad soft, middle and loud: the larger the dot, the harder. It sounds while it is held. */
export function TestStrikes({ padId }: { readonly padId: PadId }) {
  const palette = usePalette()
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      {STRIKES.map(({ label, velocity, size }) => (
        <Pressable
          key={label}
          role="button"
          aria-label={label}
          {...atOnce}
          onPressIn={() => strikePad({ padId, velocity, key: KEY })}
          onPressOut={() => releasePad(padId, KEY)}
          style={{ width: TOUCH, height: TOUCH, alignItems: 'center', justifyContent: 'center' }}
        >
          <View style={{ width: size, height: size, borderRadius: size / 2, backgroundColor: palette.kelp }} />
        </Pressable>
      ))}
    </View>
  )
}

const FIRST_VELOCITY = 64

/** The same pad as hard as is typed, 1 to 127. */
export function StrikeAt({ padId }: { readonly padId: PadId }) {
  const palette = usePalette()
  const [velocity, setVelocity] = useState(FIRST_VELOCITY)
  const type = (typed: number) => {
    const taken = Math.min(127, Math.max(1, Math.round(typed)))
    setVelocity(taken)
    strikePad({ padId, velocity: taken })
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      <Pressable
        role="button"
        aria-label={`Strike at ${velocity}`}
        {...atOnce}
        onPressIn={() => strikePad({ padId, velocity, key: KEY })}
        onPressOut={() => releasePad(padId, KEY)}
        style={{ minWidth: TOUCH, height: TOUCH, alignItems: 'center', justifyContent: 'center' }}
      >
        <Text look="strong" style={{ fontSize: 13, color: palette.kelp }}>
          Strike at
        </Text>
      </Pressable>
      <NumberField label="Velocity to strike at" text={String(velocity)} unit="" width={44} onNumber={type} />
    </View>
  )
}
