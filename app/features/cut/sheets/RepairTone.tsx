import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import type { Repairing } from './use-repairs'

/** Edges of a hit, its DC, and which way round it is. */
export function RepairTone({ repairs }: { readonly repairs: Repairing }) {
  const { one, fix, repair, slide, set, hearThem } = repairs
  return (
    <>
      <Slider
        label="Fade in"
        value={Math.round((one('fadeInSeconds') ?? 0.0005) * 10000) / 10}
        min={0}
        max={200}
        step={0.1}
        power={3}
        unit="ms"
        onSlide={(ms) => slide({ fadeInSeconds: ms / 1000 })}
        onDone={hearThem}
      />
      <Slider
        label="Fade out"
        value={Math.round((one('fadeOutSeconds') ?? 0.005) * 1000)}
        min={0}
        max={2000}
        step={1}
        power={2.5}
        unit="ms"
        onSlide={(ms) => slide({ fadeOutSeconds: ms / 1000 })}
        onDone={hearThem}
      />
      <Toggle
        label="Remove DC"
        words="Puts a wave that stands off the middle back on it."
        value={fix('removeDc') ?? false}
        onChange={(removeDc) => {
          repair({ removeDc: removeDc || undefined })
          hearThem()
        }}
      />
      <Toggle label="Reverse" value={one('reverse') ?? false} onChange={(reverse) => set({ reverse })} />
      <Toggle label="Flip polarity" value={one('invert') ?? false} onChange={(invert) => set({ invert })} />
    </>
  )
}
