import { lineOf } from '@heliaster/core/cut'
import type { Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { useIsWide } from '../../../ui/layout/use-is-wide'
import { Overview } from '../wave/Overview'
import { Spectrogram } from '../wave/Spectrogram'
import { StrengthChart } from '../wave/StrengthChart'
import { TimeScale } from '../wave/TimeScale'
import { Waveform } from '../wave/Waveform'
import { cutLooks } from './looks'
import type { Bench } from './use-bench'
import { isHeard } from './use-source-cut'
import type { Analysis } from './use-source-cut'
import { WaterBar } from './WaterBar'

interface Props {
  readonly source: Source
  readonly analysis: Analysis
  readonly bench: Bench
  readonly tempoBpm: number
  /** Only the wave itself, and that low: the list is being read. */
  readonly isLow: boolean
}

const LOW_PX = 84
const PHONE_PX = 108
/** Under the wave of a wide screen: its scale, and what of the other pictures is shown. */
const SCALE_PX = 24
const WIDE = { overview: 34, spectrogram: 96, strikes: 96 + 48 } as const
const LEAST_WIDE_PX = 150

/** The recording in pictures on one time axis: all of it, the wave with its hits, its frequencies, its strikes and the line over them. */
export function BenchWaves({ source, analysis, bench, tempoBpm, isLow }: Props) {
  const isWide = useIsWide()
  const { hasSpectrogram, showsOverview, showsStrikes } = useStore(cutLooks)
  const [room, setRoom] = useState(0)
  const { hits, view, setView, actions, passage } = bench
  // On a phone all of it, seen twice, is once too often.
  const hasOverview = showsOverview && !isLow && (isWide || !bench.isWhole)
  const hasStrikes = showsStrikes && !source.cut.grid
  const others = SCALE_PX + (showsOverview ? WIDE.overview : 0) + (hasSpectrogram ? WIDE.spectrogram : 0) + (hasStrikes ? WIDE.strikes : 0)
  const height = isWide ? Math.max(LEAST_WIDE_PX, room - others) : isLow ? LOW_PX : PHONE_PX
  return (
    <View
      style={isWide ? { flex: 1, minHeight: 0 } : undefined}
      onLayout={({ nativeEvent: { layout } }) => isWide && setRoom(Math.round(layout.height))}
    >
      {hasOverview && <Overview analysis={analysis} view={view} onView={setView} />}
      <Waveform
        analysis={analysis}
        hits={hits}
        view={view}
        onView={setView}
        chosen={bench.chosenId}
        cursor={bench.cursor}
        height={height}
        onTap={bench.tap}
        onSlideMarker={(marker, frame) => {
          bench.setChosenId(marker.id)
          actions.slideMarker(marker, frame)
        }}
        onSlideTail={actions.slideTail}
        onSlid={actions.endGesture}
        passage={passage}
        onPassage={bench.setPassage}
      />
      {!isLow && <TimeScale source={source} view={view} tempoBpm={tempoBpm} />}
      {hasSpectrogram && !isLow && <Spectrogram source={source} view={view} height={isWide ? WIDE.spectrogram : 72} />}
      {hasStrikes && !isLow && (
        <>
          <StrengthChart
            analysis={analysis}
            view={view}
            waterLine={lineOf(source.cut, analysis.strikes)}
            height={isWide ? 96 : 48}
            onSlide={(waterLine) => actions.slideCut({ waterLine, findsLevel: undefined })}
            onDone={actions.endGesture}
          />
          {isHeard(analysis) && <WaterBar source={source} analysis={analysis} onCut={actions.setCut} />}
        </>
      )}
    </View>
  )
}
