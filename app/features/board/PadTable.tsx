import type { Kit } from '@heliaster/core/kit'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'

import { useIsWide } from '../../ui/use-is-wide'
import { useSession } from '../shell'
import { PadFace } from '../shell/PadFace'
import { TieArcs } from './TieArcs'

const LABEL_HEIGHT = 40

/** The pads in the arrangement the person made. Ties are arcs between them. */
export function PadTable({ kit }: { readonly kit: Kit }) {
  const isWide = useIsWide()
  const chosen = useSession((state) => state.padId)
  const [width, setWidth] = useState(0)
  const columns = Math.min(kit.arrangement.columns, Math.max(1, kit.pads.length))
  const gap = isWide ? 28 : 18
  const size = Math.min(isWide ? 156 : 150, Math.floor((width - gap * (columns + 1)) / columns))
  const left = (width - columns * size - (columns - 1) * gap) / 2
  const place = (index: number) => ({
    x: left + (index % columns) * (size + gap),
    y: 10 + Math.floor(index / columns) * (size + LABEL_HEIGHT + 10),
  })
  const rows = Math.ceil(kit.pads.length / columns)
  return (
    <ScrollView
      style={{ flex: 1 }}
      onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
      contentContainerStyle={{ height: 20 + rows * (size + LABEL_HEIGHT + 10) }}
    >
      {width > 0 && size > 0 && (
        <>
          <TieArcs
            kit={kit}
            centreOf={(index) => ({ x: place(index).x + size / 2, y: place(index).y + size / 2 })}
            radius={size / 2}
            width={width}
            height={20 + rows * (size + LABEL_HEIGHT + 10)}
          />
          {kit.pads.map((pad, index) => (
            <View key={pad.id} style={{ position: 'absolute', left: place(index).x, top: place(index).y }}>
              <PadFace kit={kit} pad={pad} index={index} size={size} chosen={pad.id === chosen} withNote withKey={isWide} />
            </View>
          ))}
        </>
      )}
    </ScrollView>
  )
}
