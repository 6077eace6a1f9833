import type { EventId, Kit, Performance, PlayedStrike } from '@heliaster/core/kit'
import { padById } from '@heliaster/core/kit'
import { filmSecondsOf, isHeard } from '@heliaster/core/performance'
import type { FilmMark } from '@heliaster/core/performance'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import Svg, { Line, Path, Rect } from 'react-native-svg'
import { useStore } from 'zustand'

import { FILM, hearing } from '../../../audio/performances/hear'
import { padName } from '../../../kit-view/use-kit'
import { EdgeMark } from '../../../ui/controls/EdgeMark'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { END_PX, layStrings, spanOf, STRING_PX, TIME_PX, timesOf } from './strings-layout'
import type { StringsLayout } from './strings-layout'
import { useStringsDrag } from './use-strings-drag'
import { useStringsKeys } from './use-strings-keys'
import type { StringsHands } from './use-strings-keys'

interface Props extends StringsHands {
  readonly kit: Kit
  /** Whether it is heard now, so that it is shown where. */
  readonly isHeardNow: boolean
  /** Places of its film, seen where they lie against it. */
  readonly marks?: readonly FilmMark[]
}

const EDGE_SECONDS = 0.01

/** What was played, as strings with beads: each pad a string, each strike a bead, the higher the harder. */
export function PlayedStrings(props: Props) {
  const { kit, performance, chosen, onFields, onDone, isHeardNow, marks = [] } = props
  const palette = usePalette()
  const [width, setWidth] = useState(320)
  const [span] = useState(() => spanOf(performance)) // stays while edges are dragged
  const layout = useMemo(() => layStrings(performance, width, span), [performance, width, span])
  const { drag, box } = useStringsDrag({ ...props, layout })
  const onKeyDown = useStringsKeys(props)
  const { sampleRateHz, fromFrame, toFrame } = performance
  const strikes = useMemo(() => performance.events.filter((event): event is PlayedStrike => event.type === 'strike'), [performance.events])
  const nudge = (field: 'fromFrame' | 'toFrame') => (by: number) => {
    onFields({ [field]: Math.max(0, performance[field] + Math.round(by * EDGE_SECONDS * sampleRateHz)) })
    onDone()
  }
  return (
    <View
      ref={drag}
      testID="strings"
      role="group"
      aria-label="Strikes: arrow keys step through them, Delete removes, Alt with arrows moves by 1 ms"
      tabIndex={0}
      {...{ onKeyDown }}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height: layout.height }}
    >
      <Svg width={width} height={layout.height} aria-hidden style={{ position: 'absolute' }}>
        <Rect
          x={layout.xOf(fromFrame)}
          width={Math.max(0, layout.xOf(toFrame) - layout.xOf(fromFrame))}
          height={layout.height - TIME_PX}
          fill={palette.surface}
        />
        {timesOf(performance, layout).map((seconds) => {
          const x = layout.xOf(fromFrame + seconds * sampleRateHz)
          return <Line key={seconds} x1={x} x2={x} y1={0} y2={layout.height - TIME_PX + 4} stroke={palette.faint} strokeWidth={1} />
        })}
        {layout.padIds.map((padId, i) => (
          <Line
            key={padId}
            x1={0}
            x2={width}
            y1={(i + 1) * STRING_PX - 5}
            y2={(i + 1) * STRING_PX - 5}
            stroke={palette.line}
            strokeWidth={1}
          />
        ))}
      </Svg>
      {layout.padIds.map((padId, i) => {
        const pad = padById(kit, padId)
        return (
          <Text
            key={padId}
            look="small"
            tone="muted"
            numberOfLines={1}
            style={{ position: 'absolute', left: END_PX + 10, top: i * STRING_PX + 1, fontSize: 12, pointerEvents: 'none' }}
          >
            {pad ? padName(kit, pad) : 'A pad that is gone'}
          </Text>
        )
      })}
      {timesOf(performance, layout).map((seconds) => (
        <Text
          key={seconds}
          look="figures"
          tone="muted"
          style={{
            position: 'absolute',
            fontSize: 11,
            top: layout.height - 18,
            width: 48,
            textAlign: 'center',
            left: layout.xOf(fromFrame + seconds * sampleRateHz) - 24,
            pointerEvents: 'none',
          }}
        >
          {`${Number(seconds.toFixed(1))} s`}
        </Text>
      ))}
      {(['fromFrame', 'toFrame'] as const).map((field) => {
        const seconds = (performance[field] - span.from) / sampleRateHz
        return (
          <EdgeMark
            key={field}
            label={field === 'fromFrame' ? 'Heard from' : 'Heard to'}
            x={layout.xOf(performance[field])}
            height={layout.height - TIME_PX + 8}
            isBelow
            value={Math.round(seconds * 1000)}
            words={`${seconds.toFixed(2)} s`}
            onNudge={nudge(field)}
          />
        )
      })}
      <Svg width={width} height={layout.height} aria-hidden style={{ position: 'absolute', pointerEvents: 'none' }}>
        <Beads strikes={strikes} layout={layout} performance={performance} chosen={chosen} />
        {box && (
          <Rect
            {...{ x: box.left, y: box.top, width: box.width, height: box.height }}
            fill={palette.kelpWash}
            stroke={palette.kelp}
            strokeDasharray="4 3"
            opacity={0.7}
          />
        )}
        <Marks {...{ marks, layout, performance }} />
        <Playhead layout={layout} performance={performance} isHeardNow={isHeardNow} />
      </Svg>
    </View>
  )
}

interface BeadsProps {
  readonly strikes: readonly PlayedStrike[]
  readonly layout: StringsLayout
  readonly performance: Performance
  readonly chosen: ReadonlySet<EventId>
}

const DOT = 5

/** Filled where a hand struck, a ring where a groove did; with a foot where it asks for a turn of its own. */
function Beads({ strikes, layout, performance, chosen }: BeadsProps) {
  const palette = usePalette()
  const dotsOf = (of: (strike: PlayedStrike) => boolean, size = DOT) =>
    strikes.filter(of).map((strike) => dot(layout.xOf(strike.frame), layout.yOf(strike), size)).join('') // prettier-ignore
  const isIn = (strike: PlayedStrike) => isHeard(performance, strike)
  const stems = strikes
    .map((strike) => `M${layout.xOf(strike.frame)} ${layout.yOf(strike)}V${(layout.padIds.indexOf(strike.padId) + 1) * STRING_PX - 5}`)
    .join('')
  const feet = strikes
    .filter(({ band, turn }) => band ?? turn)
    .map(({ frame, padId }) => `M${layout.xOf(frame) - 5} ${(layout.padIds.indexOf(padId) + 1) * STRING_PX - 5}h10`)
    .join('')
  return (
    <>
      <Path d={stems} stroke={palette.muted} strokeWidth={1} opacity={0.6} />
      <Path d={feet} stroke={palette.ink} strokeWidth={3} />
      <Path d={dotsOf((strike) => !strike.by && isIn(strike))} fill={palette.kelp} />
      <Path d={dotsOf((strike) => !strike.by && !isIn(strike))} fill={palette.line} />
      <Path d={dotsOf((strike) => strike.by !== undefined, DOT - 1)} fill={palette.paper} stroke={palette.kelp} strokeWidth={2} />
      <Path d={dotsOf(({ id }) => chosen.has(id), DOT + 2)} fill={palette.coral} stroke={palette.ink} strokeWidth={2} />
    </>
  )
}

const dot = (x: number, y: number, size: number): string =>
  `M${x - size} ${y}a${size} ${size} 0 1 0 ${2 * size} 0a${size} ${size} 0 1 0 ${-2 * size} 0`

interface PlayheadProps {
  readonly layout: StringsLayout
  readonly performance: Performance
  readonly isHeardNow: boolean
}

/** Where what is heard is; where the film runs by itself, where that is. */
function Playhead({ layout, performance, isHeardNow }: PlayheadProps) {
  const palette = usePalette()
  const begins = filmSecondsOf(performance)
  const seconds = useStore(hearing, (state) => {
    if (isHeardNow) return state.seconds
    return state.name === FILM && begins !== undefined ? state.seconds - begins : undefined
  })
  if (seconds === undefined) return null
  const x = layout.xOf(performance.fromFrame + seconds * performance.sampleRateHz)
  return <Line x1={x} x2={x} y1={0} y2={layout.height - TIME_PX} stroke={palette.coral} strokeWidth={2} />
}

interface MarksProps {
  readonly marks: readonly FilmMark[]
  readonly layout: StringsLayout
  readonly performance: Performance
}

/** The marks of the film as flags from top to bottom. */
function Marks({ marks, layout, performance }: MarksProps) {
  const palette = usePalette()
  const { picture, sampleRateHz } = performance
  if (!picture) return null
  const flags = marks.map(({ seconds }) => layout.xOf((seconds - picture.offsetSeconds) * sampleRateHz)).filter((x) => x >= 0 && x <= layout.width) // prettier-ignore
  return (
    <Path
      d={flags.map((x) => `M${x} ${layout.height - TIME_PX}V0l9 5l-9 5`).join('')}
      stroke={palette.water}
      strokeWidth={1.5}
      fill="none"
    />
  )
}
