import type { Act } from '../../../ui/layout/More'
import { changeLooks } from './looks'
import type { CutLooks } from './looks'
import type { Bench } from './use-bench'

/** What can be done on the bench, each in a word or two. */
export function benchActs(bench: Bench, onDetails: () => void) {
  const { actions, remove, add, mark, isWhole, toggleZoom, view, changeHeight } = bench
  const chosen = bench.chosen?.marker
  const none = bench.hits.length === 0
  const withChosen = (run: (marker: NonNullable<typeof chosen>) => void) => ({ disabled: !chosen, onPress: () => chosen && run(chosen) })
  const height = view.isAuto ? 'automatic' : `${view.gain.toFixed(view.gain < 10 ? 1 : 0)} times`
  return {
    add: { label: 'Add marker', icon: 'map-marker-plus-outline', onPress: add },
    passage: { label: 'Mark passage', icon: 'select-drag', onPress: mark },
    details: { label: 'Details', icon: 'form-textbox', ...withChosen(onDetails) },
    pin: { label: 'Pin the marker', icon: chosen?.pinned ? 'pin' : 'pin-outline', on: chosen?.pinned ?? false, ...withChosen(actions.pin) },
    remove: { label: 'Remove', icon: 'map-marker-remove-outline', ...withChosen(remove) },
    zoom: isWhole
      ? { label: 'Look closely', icon: 'magnify-plus-outline', onPress: toggleZoom }
      : { label: 'See the whole', icon: 'arrow-expand-horizontal', onPress: toggleZoom },
    height: {
      label: `Height of the wave: ${height}`,
      icon: view.isAuto ? 'arrow-expand-vertical' : 'arrow-up-down',
      onPress: changeHeight,
    },
    hearAll: bench.row.isHearing
      ? { label: 'Stop hearing', icon: 'stop', onPress: bench.row.toggle }
      : { label: 'Hear all', icon: 'playlist-play', disabled: none, onPress: bench.row.toggle },
  } as const satisfies Record<string, Act>
}

/** Parts of the screen that can be folded away, and stay so. */
export function partActs(looks: CutLooks, isWide: boolean): Act[] {
  const part = (label: string, icon: Act['icon'], name: 'showsRecordings' | 'showsOverview' | 'hasSpectrogram' | 'showsStrikes'): Act => ({
    label,
    icon,
    on: looks[name],
    onPress: () => changeLooks({ [name]: !looks[name] }),
  })
  return [
    ...(isWide ? [part('List of recordings', 'format-list-bulleted', 'showsRecordings')] : []),
    part('Overview', 'arrow-expand-horizontal', 'showsOverview'),
    part('Spectrogram', 'tune-variant', 'hasSpectrogram'),
    part('Strikes and water line', 'sort-variant', 'showsStrikes'),
  ]
}
