import type { Kit, Tiller } from '@heliaster/core/kit'
import { useStore } from 'zustand'

import { movedTillers, moveTiller, restTiller } from '../audio/playing/hands/tillers'
import { Slider } from '../ui/controls/Slider'

/** A tiller, heard while it is moved and kept where it is left. */
export function TillerSlider({ kit, tiller }: { readonly kit: Kit; readonly tiller: Tiller }) {
  const moved = useStore(movedTillers, (state) => state[tiller.id])
  return (
    <Slider
      label={tiller.name}
      value={(moved ?? tiller.value) * 100}
      min={0}
      max={100}
      step={0.1}
      unit="%"
      onSlide={(percent) => moveTiller(kit, tiller.id, percent / 100)}
      onDone={() => restTiller(kit, tiller.id)}
    />
  )
}
