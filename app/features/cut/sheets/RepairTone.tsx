import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import type { Repairing } from './use-repairs'

/** What is taken from a hit's sound: rumble, heights, edges, DC; and which way round it is. */
export function RepairTone({ repairs }: { readonly repairs: Repairing }) {
  const { one, fix, repair, slide, set, hearThem } = repairs
  return (
    <>
      <Slider
        label="Low cut"
        value={fix('lowCutHz') ?? 10}
        min={10}
        max={1000}
        step={1}
        power={2.5}
        unit="Hz"
        neutral={10}
        format={(hz) => (hz <= 10 ? 'off' : String(hz))}
        onSlide={(hz) => repair({ lowCutHz: hz <= 10 ? undefined : hz })}
        onDone={hearThem}
      />
      <Slider
        label="Heights, above 5 kHz"
        value={fix('shelfDb') ?? 0}
        min={-24}
        max={24}
        step={0.5}
        unit="dB"
        neutral={0}
        onSlide={(shelfDb) => repair({ shelfDb: shelfDb === 0 ? undefined : shelfDb })}
        onDone={hearThem}
      />
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
