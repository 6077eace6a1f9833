import type { Kit, PadId } from '@heliaster/core/kit'
import { swapPads } from '@heliaster/core/place'
import { useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'

import { useIsWide } from '../../../ui/layout/use-is-wide'
import { Swapping, useSwapped } from '../../../ui/pointer/Swapping'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { editKit, useSession } from '../../../kit-view'
import { PadFace } from '../../../kit-view/PadFace'
import { padName } from '../../../kit-view/use-kit'
import { TieArcs } from './TieArcs'

const LABEL_HEIGHT = 40
/** Few pads are large, so that their rings can be told apart by a finger. */
const largest = (columns: number, isWide: boolean) => (columns === 1 ? 280 : columns === 2 && isWide ? 220 : isWide ? 156 : 150)

/** The pads in the arrangement the person made. Ties are arcs between them. */
export function PadTable({ kit, isArranging }: { readonly kit: Kit; readonly isArranging: boolean }) {
  const isWide = useIsWide()
  const chosen = useSession((state) => state.padId)
  const [width, setWidth] = useState(0)
  const columns = Math.min(kit.arrangement.columns, Math.max(1, kit.pads.length))
  const gap = isWide ? 28 : 18
  const room = Math.floor((width - gap * (columns + 1)) / columns)
  const size = Math.min(room, Math.max(TOUCH, Math.round(Math.min(largest(columns, isWide), room) * (kit.arrangement.size ?? 1))))
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
          {isArranging && <Arranging kit={kit} place={place} size={size} />}
        </>
      )}
    </ScrollView>
  )
}

interface ArrangingProps {
  readonly kit: Kit
  readonly place: (index: number) => { readonly x: number; readonly y: number }
  readonly size: number
}

/** While pads are arranged they do not sound: one is dragged onto another, or both are tapped, and they change places. */
function Arranging({ kit, place, size }: ArrangingProps) {
  const [held, setHeld] = useState<PadId>()
  const swap = (one: PadId, other: PadId) => {
    const [a, b] = [one, other].map((id) => kit.pads.find((pad) => pad.id === id))
    if (a && b) editKit(kit.id, swapPads(kit, a, b, 'places'))
    setHeld(undefined)
  }
  const nameOf = (id: PadId) => {
    const pad = kit.pads.find((one) => one.id === id)
    return pad ? padName(kit, pad) : ''
  }
  return (
    <Swapping<PadId> nameOf={nameOf} onDrop={swap}>
      <View style={{ position: 'absolute', inset: 0 }}>
        {kit.pads.map((pad, index) => (
          <ArrangedPad
            key={pad.id}
            id={pad.id}
            label={held && held !== pad.id ? `Swap with ${nameOf(pad.id)}` : `Take up ${nameOf(pad.id)}`}
            isHeld={pad.id === held}
            onPress={() => (held && held !== pad.id ? swap(held, pad.id) : setHeld(held === pad.id ? undefined : pad.id))}
            box={{ left: place(index).x - 6, top: place(index).y - 6, width: size + 12, height: size + LABEL_HEIGHT }}
          />
        ))}
      </View>
    </Swapping>
  )
}

interface ArrangedPadProps {
  readonly id: PadId
  readonly label: string
  readonly isHeld: boolean
  readonly onPress: () => void
  readonly box: { readonly left: number; readonly top: number; readonly width: number; readonly height: number }
}

/** The frame round a pad by which it is taken. */
function ArrangedPad({ id, label, isHeld, onPress, box }: ArrangedPadProps) {
  const palette = usePalette()
  const { ref, isOver, isDragging, shift, listeners, described } = useSwapped(id)
  const isMarked = isHeld || isOver || isDragging
  return (
    <Pressable
      ref={ref}
      role="button"
      aria-pressed={isHeld}
      aria-label={label}
      onPress={onPress}
      {...described}
      {...listeners}
      {...{ dataSet: { arranged: id } }}
      style={{
        position: 'absolute',
        ...box,
        borderRadius: 12,
        borderWidth: isMarked ? 2 : 1,
        borderStyle: isMarked ? 'solid' : 'dashed',
        borderColor: isMarked ? palette.kelp : palette.muted,
        ...(shift ? { transform: [{ translateX: shift.x }, { translateY: shift.y }], zIndex: 2 } : {}),
        ...({ userSelect: 'none' } as object),
      }}
    />
  )
}
