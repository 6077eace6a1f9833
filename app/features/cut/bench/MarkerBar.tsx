import { ScrollView } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'
import type { Bench } from './use-bench'

/** What can be done to the chosen marker, and to the view. */
export function MarkerBar({ bench, onDetails }: { readonly bench: Bench; readonly onDetails: () => void }) {
  const { step, actions, remove, add, mark, passage, isWhole, toggleZoom, view, changeHeight } = bench
  const chosen = bench.chosen?.marker
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={{ flexGrow: 0 }}
      contentContainerStyle={{ paddingHorizontal: 6, alignItems: 'center', minWidth: '100%', justifyContent: 'space-between' }}
    >
      <IconButton name="chevron-left" label="Previous hit" onPress={() => step(-1)} />
      <IconButton name="chevron-right" label="Next hit" onPress={() => step(1)} />
      <IconButton
        name={chosen?.pinned ? 'pin' : 'pin-outline'}
        label={chosen?.pinned ? 'Unpin the marker' : 'Pin the marker'}
        on={chosen?.pinned}
        disabled={!chosen}
        onPress={() => chosen && actions.pin(chosen)}
      />
      <IconButton name="form-textbox" label="Name and place of the hit" disabled={!chosen} onPress={onDetails} />
      <IconButton name="map-marker-remove-outline" label="Remove the marker" disabled={!chosen} onPress={() => chosen && remove(chosen)} />
      <IconButton name="map-marker-plus-outline" label="Add a marker" onPress={add} />
      <IconButton name="select-drag" label="Mark a passage" on={passage !== undefined} onPress={mark} />
      <IconButton
        name={isWhole ? 'magnify-plus-outline' : 'arrow-expand-horizontal'}
        label={isWhole ? 'Look closely at the hit' : 'See the whole recording'}
        onPress={toggleZoom}
      />
      <IconButton
        name={view.isAuto ? 'arrow-expand-vertical' : 'arrow-up-down'}
        label={`Height of the wave: ${view.isAuto ? 'automatic' : `${view.gain.toFixed(view.gain < 10 ? 1 : 0)} times`}`}
        on={view.isAuto}
        onPress={changeHeight}
      />
    </ScrollView>
  )
}
