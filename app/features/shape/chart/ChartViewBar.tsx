import { View } from 'react-native'
import { useStore } from 'zustand'

import { Chip } from '../../../ui/controls/Chip'
import { chartSettings, chartView } from './chart-view'

/** How the chart is looked at, in its corner: its first 20 ms instead of all of it, its frequencies under it; and whether points are drawn to the hit. */
export function ChartViewBar({ isWide, isOfMatter = false }: { readonly isWide: boolean; readonly isOfMatter?: boolean }) {
  const { isFirst, showsSpectrum, showsMatter } = useStore(chartView)
  const isSnapping = useStore(chartSettings, (state) => state.isSnapping)
  return (
    <View
      role="group"
      aria-label="How the chart is looked at"
      style={{
        position: 'absolute',
        right: 8,
        [isWide ? 'top' : 'bottom']: 8,
        flexDirection: isWide ? 'row' : 'column',
        alignItems: 'flex-end',
        gap: 6,
      }}
    >
      <Chip role="checkbox" text="First 20 ms" isChosen={isFirst} onPress={() => chartView.setState({ isFirst: !isFirst })} />
      <Chip
        role="checkbox"
        text="Spectrum"
        isChosen={isOfMatter ? showsMatter : showsSpectrum}
        onPress={() => chartView.setState(isOfMatter ? { showsMatter: !showsMatter } : { showsSpectrum: !showsSpectrum })}
      />
      <Chip role="checkbox" text="Snap" isChosen={isSnapping} onPress={() => chartSettings.setState({ isSnapping: !isSnapping })} />
    </View>
  )
}
