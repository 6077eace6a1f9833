import type { PadId } from '@heliaster/core/kit'
import { Pressable, View } from 'react-native'

import { releasePad, strikePad } from '../audio/engine/sound'
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
