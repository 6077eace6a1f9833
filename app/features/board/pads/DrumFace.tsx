import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { leaderOf } from '@heliaster/core/ties'
import type { SpotsTie } from '@heliaster/core/ties'
import { View } from 'react-native'

import { PadFace } from '../../../kit-view/PadFace'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { placeSpots } from './drum-place'

interface Props {
  readonly kit: Kit
  readonly pads: readonly Pad[]
  /** For each spot the pads that it opens to. */
  readonly behind: readonly (readonly Pad[])[]
  readonly drum: SpotsTie
  /** Of its face, px: it may go over several columns. */
  readonly width: number
  readonly size: number
  readonly chosen: PadId | undefined
}

/** One drum with its spots on one face: a finger strikes the one it touches. */
export function DrumFace({ kit, pads, behind, drum, width, size, chosen }: Props) {
  const palette = usePalette()
  const places = placeSpots(pads.length, width, size)
  const leader = kit.pads.find(({ id }) => id === leaderOf(drum))
  const name = drum.name || (leader && padSettings(kit, leader).name) || 'A drum'
  const isOf = (one: number) => [pads[one]!, ...behind[one]!].some(({ id }) => id === chosen)
  const isChosen = pads.some((_pad, i) => isOf(i))
  const degrees = 1 + Math.max(...behind.map(({ length }) => length))
  return (
    <View
      role="group"
      aria-label={`${name}, ${pads.length} spots${degrees > 1 ? `, ${degrees} openings` : ''}`}
      style={{ width, alignItems: 'center', gap: 6 }}
    >
      <View style={{ width, height: size }}>
        <View style={{ position: 'absolute', inset: -3, borderRadius: size * 0.24, borderWidth: 1.5, borderColor: palette.line }} />
        {pads.map((pad, i) => (
          <View key={pad.id} style={{ position: 'absolute', left: places.at[i]!.x, top: places.at[i]!.y }}>
            <PadFace
              kit={kit}
              pad={pad}
              index={kit.pads.indexOf(pad)}
              size={places.size}
              chosen={isOf(i)}
              behind={behind[i]!}
              words={drum.spots.find((spot) => spot.pad === pad.id)?.name}
            />
          </View>
        ))}
      </View>
      <Text look="label" numberOfLines={1} tone={isChosen ? 'kelp' : 'ink'} style={{ fontSize: 13, lineHeight: 16, maxWidth: width + 8 }}>
        {degrees > 1 ? `${name}, ${degrees} openings` : name}
      </Text>
    </View>
  )
}
