// Our own: a level that is set by one thumb where what sounds is seen; the elements' slider shows nothing behind it.
import { useEffect, useRef } from 'react'
import { View } from 'react-native'

import { whileMoving } from '../drawing/while-moving'
import { Text } from '../layout/Text'
import { usePointerDrag } from '../pointer/use-pointer-drag'
import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  /** Whose level it is. */
  readonly name: string
  /** Beside the name, short. */
  readonly words?: string
  readonly valueDb: number
  /** What sounds now, 0..1 and above; asked each frame, never state of the page. */
  readonly level: () => number
  readonly isMuted?: boolean
  /** It was above full scale, and is marked; told when it is. */
  readonly isOver?: boolean
  readonly onOver?: () => void
  readonly onSlide: (valueDb: number) => void
  readonly onDone: () => void
  /** A tap that moves nothing. */
  readonly onTap?: () => void
}

export const LANE_DB = { least: -48, most: 12 } as const
const RANGE_DB = LANE_DB.most - LANE_DB.least
/** A thumb moves a level finely: so much of a dB for each px. */
const DB_PER_PX = 0.15
const TAP_PX = 4
const held = (db: number) => Math.round(Math.min(LANE_DB.most, Math.max(LANE_DB.least, db)) * 10) / 10
const shareOf = (db: number) => Math.min(1, Math.max(0, (db - LANE_DB.least) / RANGE_DB))

/**
 * A level as a lane: what sounds fills it, a mark says where it is set. It is drawn from where it stands, wherever it is
 * touched, so that a thumb never makes it jump; arrow keys move it by half a dB.
 */
export function LevelLane({ name, words, valueDb, level, isMuted = false, isOver = false, onOver, onSlide, onDone, onTap }: Props) {
  const palette = usePalette()
  const fill = useLevelFill(level, isMuted, onOver)
  const from = useRef<{ x: number; db: number; isMoved: boolean }>(undefined)
  const drag = usePointerDrag(
    {
      onStart: (x) => {
        from.current = { x, db: valueDb, isMoved: false }
      },
      onMove: (x) => {
        const start = from.current
        if (!start || (!start.isMoved && Math.abs(x - start.x) < TAP_PX)) return
        start.isMoved = true
        onSlide(held(start.db + (x - start.x) * DB_PER_PX))
      },
      onEnd: () => {
        if (from.current?.isMoved) onDone()
        else onTap?.()
        from.current = undefined
      },
    },
    { isSideways: true },
  )
  const keys: Record<string, number> = { ArrowRight: 0.5, ArrowUp: 0.5, ArrowLeft: -0.5, ArrowDown: -0.5, PageUp: 3, PageDown: -3, Home: -RANGE_DB, End: RANGE_DB }
  const onKeyDown = (event: { key: string; preventDefault(): void }) => {
    if (event.key === 'Enter' && onTap) return onTap()
    if (!(event.key in keys)) return
    event.preventDefault()
    onSlide(held(valueDb + keys[event.key]!))
    onDone()
  }
  return (
    <View
      ref={drag}
      role="slider"
      tabIndex={0}
      aria-label={`Level of ${name}`}
      aria-valuemin={LANE_DB.least}
      aria-valuemax={LANE_DB.most}
      aria-valuenow={valueDb}
      aria-valuetext={`${valueDb.toFixed(1)} dB${isMuted ? ', muted' : ''}${isOver ? ', was above full scale' : ''}`}
      {...{ onKeyDown }}
      style={{ minHeight: TOUCH, paddingTop: 4, paddingBottom: 6, cursor: 'pointer' }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 8, height: 22 }}>
        <Text look="strong" numberOfLines={1} tone={isMuted ? 'muted' : 'ink'} style={{ flexShrink: words ? 0 : 1, maxWidth: '60%', fontSize: 15, userSelect: 'none' }}>
          {name}
        </Text>
        <Text look="small" tone={isOver ? 'coral' : 'muted'} numberOfLines={1} style={{ flex: 1, minWidth: 0, fontSize: 13, userSelect: 'none' }}>
          {isOver ? ['too loud', words].filter(Boolean).join(' · ') : words}
        </Text>
        <Text look="figures" tone={isMuted ? 'muted' : 'ink'} style={{ userSelect: 'none' }}>
          {isMuted ? 'muted' : `${valueDb > 0 ? '+' : ''}${valueDb.toFixed(1)} dB`}
        </Text>
      </View>
      <View style={{ height: 26, justifyContent: 'center' }}>
        <View style={{ height: 16, borderRadius: 5, backgroundColor: palette.faint, overflow: 'hidden' }}>
          <View ref={fill} testID="level" style={{ height: 16, width: 0, backgroundColor: palette.water }} />
          <View style={{ position: 'absolute', left: `${shareOf(0) * 100}%`, top: 0, bottom: 0, width: 1, backgroundColor: palette.muted, opacity: 0.6 }} />
          {isOver && <View style={{ position: 'absolute', right: 0, top: 0, bottom: 0, width: 8, backgroundColor: palette.coral }} />}
        </View>
        <View
          style={{
            position: 'absolute', left: `${shareOf(valueDb) * 100}%`, marginLeft: -4, width: 8, height: 26, borderRadius: 4,
            backgroundColor: isMuted ? palette.muted : palette.kelp, borderWidth: 2, borderColor: palette.paper,
          }} // prettier-ignore
        />
      </View>
    </View>
  )
} // prettier-ignore

/** The bar that shows what sounds, moved with each picture of the screen, past React. */
function useLevelFill(level: () => number, isMuted: boolean, onOver: (() => void) | undefined) {
  const palette = usePalette()
  const fill = useRef<View>(null)
  const latest = useRef({ level, onOver })
  useEffect(() => {
    latest.current = { level, onOver }
  })
  useEffect(() => {
    let shown = ''
    return whileMoving(() => {
      const db = isMuted ? LANE_DB.least : 20 * Math.log10(latest.current.level() + 1e-6)
      const width = `${(shareOf(db) * 100).toFixed(1)}%`
      const element = fill.current as unknown as HTMLElement | null
      const moves = element !== null && width !== shown
      if (moves) {
        element.style.width = shown = width
        element.style.backgroundColor = db > 0 ? palette.coral : palette.water
      }
      if (db > 0) latest.current.onOver?.()
      return moves
    })
  }, [palette, isMuted])
  return fill
}
