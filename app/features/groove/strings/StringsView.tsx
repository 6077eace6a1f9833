import { grooveBeats, stringOf } from '@heliaster/core/groove'
import { padById } from '@heliaster/core/kit'
import type { PadId } from '@heliaster/core/kit'
import { useEffect, useEffectEvent, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { ReactNode, RefObject } from 'react'
import { View } from 'react-native'

import { padName } from '../../../kit-view/use-kit'
import { Canvas } from '../../../ui/drawing/Canvas'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { useElement } from '../../../ui/pointer/use-element'
import { usePalette } from '../../../ui/theme/theme'
import type { BeadHands } from '../hands/use-bead-hands'
import { drawStrings } from './draw-strings'
import { Playheads } from './Playheads'
import { layStrings, ROW_PX, rowsIn, rowTop, RULER_PX, stepX } from './strings-layout'
import type { Sight, StringsLayout } from './strings-layout'
import { StringName } from './StringName'
import { beadAtCursor, useStringsKeys } from './use-strings-keys'
import { useStringsPointer } from './use-strings-pointer'

interface Props {
  readonly hands: BeadHands
  readonly pxPerBeat: number
  /** How wide the strings are to be seen, so that a whole lap can be fitted. */
  readonly onWidth: (px: number) => void
  readonly onString: (padId: PadId) => void
}

/** The web's `auto` and `sticky`, of which the types know nothing. */
const SCROLLED = 'auto' as 'scroll'
const STICKY = 'sticky' as 'relative'

/** Every pad's string with its beads, as long as the groove is: drawn where it is in sight, scrolled both ways. */
export function StringsView({ hands, pxPerBeat, onWidth, onString }: Props) {
  const { kit, groove, padIds } = hands
  const isWide = useIsWide()
  const [sight, setSight] = useState<Sight>({ left: 0, top: 0, width: 0, height: 0 })
  const [hasFocus, setFocus] = useState(false)
  const layout = useMemo(() => layStrings(groove, padIds, pxPerBeat), [groove, padIds, pxPerBeat])
  const { content, box, leaving } = useStringsPointer(hands, layout)
  const onKeyDown = useStringsKeys(hands)
  const told = useEffectEvent(onWidth)
  useEffect(() => {
    if (sight.width > 0) told(sight.width)
  }, [sight.width])
  const scroller = useElement(setSight, (element) => {
    const look = () => {
      setSight({ left: element.scrollLeft, top: element.scrollTop, width: element.clientWidth, height: element.clientHeight })
    }
    const observer = new ResizeObserver(look)
    observer.observe(element)
    element.addEventListener('scroll', look, { passive: true })
    look()
    return () => {
      observer.disconnect()
      element.removeEventListener('scroll', look)
    }
  })
  useCursorInSight(scroller, layout, hands)
  const [first, last] = rowsIn(layout, sight)
  const cursor = hands.cursor && { ...hands.cursor, row: padIds.indexOf(hands.cursor.padId) }
  return (
    <View style={{ flex: 1, minHeight: 0, flexDirection: 'row' }}>
      <View style={{ width: isWide ? 148 : 70, overflow: 'hidden', paddingTop: RULER_PX }}>
        {padIds.slice(first, last).map((padId, i) => {
          const pad = padById(kit, padId)
          if (!pad) return null
          const top = rowTop(first + i) - sight.top
          return <StringName key={padId} name={padName(kit, pad)} string={stringOf(groove, padId)} top={top} onPress={() => onString(padId)} />
        })}
        <View style={{ position: 'absolute', left: 0, right: 0, top: 0, height: RULER_PX, pointerEvents: 'none' }} />
      </View>
      <View ref={scroller} testID="strings" style={{ flex: 1, minHeight: 0, minWidth: 0, overflow: SCROLLED }}>
        <View
          ref={content}
          role="group"
          aria-label="Beads: arrow keys go over the steps, Enter makes one or hears it, Delete removes, Alt with arrows moves, Shift chooses several"
          tabIndex={0}
          {...{ onKeyDown, 'aria-activedescendant': cursor ? CURSOR_ID : undefined }}
          onFocus={() => setFocus(true)}
          onBlur={() => setFocus(false)}
          style={{ width: layout.width, height: layout.height, minWidth: '100%', minHeight: '100%' }}
        >
          <View style={{ position: STICKY, left: 0, top: 0, width: sight.width, height: sight.height, pointerEvents: 'none' }}>
            <Drawn layout={layout} sight={sight}>
              {(on, palette) => drawStrings(on, palette, layout, sight, { chosen: hands.chosen, cursor: hasFocus ? cursor : undefined, leaving, box })}
            </Drawn>
            <Playheads layout={layout} sight={sight} />
          </View>
          {cursor && cursor.row >= 0 && <CursorPlace hands={hands} layout={layout} row={cursor.row} />}
        </View>
      </View>
    </View>
  )
} // prettier-ignore

interface DrawnProps {
  readonly layout: StringsLayout
  readonly sight: Sight
  readonly children: (on: CanvasRenderingContext2D, palette: ReturnType<typeof usePalette>) => void
}

/** A canvas as large as what is in sight, drawn anew with everything that changes. */
function Drawn({ layout, sight, children }: DrawnProps): ReactNode {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const draw = () => {
    const on = canvas.current?.getContext('2d')
    if (!on) return
    const scale = window.devicePixelRatio || 1
    on.setTransform(scale, 0, 0, scale, 0, 0)
    children(on, palette)
  }
  useLayoutEffect(draw)
  const beads = layout.groove.strings.reduce((sum, string) => sum + string.beads.length, 0)
  return <Canvas ref={canvas} height={sight.height} onSize={draw} label={`${layout.padIds.length} strings, ${beads} beads, ${grooveBeats(layout.groove)} beats`} /> // prettier-ignore
}

const CURSOR_ID = 'groove-cursor'

interface CursorProps {
  readonly hands: BeadHands
  readonly layout: StringsLayout
  readonly row: number
}

/** The step on which keys stand, told to a screen reader as a step that has a bead or none. */
function CursorPlace({ hands, layout, row }: CursorProps) {
  const { padId, step } = hands.cursor!
  const bead = beadAtCursor(hands)
  const pad = padById(hands.kit, padId)
  const name = pad ? padName(hands.kit, pad) : ''
  return (
    <View
      nativeID={CURSOR_ID}
      role="checkbox"
      aria-checked={bead !== undefined}
      aria-label={`${name}, step ${step + 1}${bead ? `, velocity ${bead.velocity}` : ''}`}
      style={{ position: 'absolute', left: stepX(layout, stringOf(layout.groove, padId), step) - 11, top: rowTop(row), width: 22, height: ROW_PX, pointerEvents: 'none' }} // prettier-ignore
    />
  )
}

/** Keys that go beyond what is in sight take it along. */
function useCursorInSight(ref: RefObject<View | null>, layout: StringsLayout, { cursor, groove, padIds }: BeadHands): void {
  const follow = useEffectEvent(() => {
    const scroller = ref.current as unknown as HTMLElement | null
    if (!scroller || !cursor) return
    const x = stepX(layout, stringOf(groove, cursor.padId), cursor.step)
    const y = rowTop(padIds.indexOf(cursor.padId))
    const { scrollLeft, scrollTop, clientWidth, clientHeight } = scroller
    if (x < scrollLeft + 20) scroller.scrollLeft = x - 40
    else if (x > scrollLeft + clientWidth - 20) scroller.scrollLeft = x - clientWidth + 40
    if (y < scrollTop + RULER_PX) scroller.scrollTop = y - RULER_PX
    else if (y + ROW_PX > scrollTop + clientHeight) scroller.scrollTop = y + ROW_PX - clientHeight
  })
  useEffect(() => follow(), [cursor?.padId, cursor?.step])
}
