import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NumberField, Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import type { Repairing } from './use-repairs'

const MEASURES = [
  { value: 'loudness', text: 'Loudness' },
  { value: 'peak', text: 'Peak' },
] as const

/** How loud one hit is, or how alike several are. */
export function RepairLevel({ repairs }: { readonly repairs: Repairing }) {
  const { scope, by, setBy, share, one, slide, even, hearThem, onDone, target, setTarget, canReach, bringThere } = repairs
  return (
    <>
      {scope === 'one' ? (
        <Slider
          label="Level"
          value={one('gainDb') ?? 0}
          min={-60}
          max={60}
          step={0.1}
          unit="dB"
          neutral={0}
          onSlide={(gainDb) => slide({ gainDb })}
          onDone={hearThem}
        />
      ) : (
        <>
          <Chips label="Even out by" options={MEASURES} value={by} onChoose={setBy} />
          <Slider
            label="Even out (0: as struck, 100: all alike)"
            value={share}
            min={0}
            max={100}
            step={1}
            unit="%"
            neutral={0}
            onSlide={even}
            onDone={onDone}
          />
          <Text look="small" tone="muted">
            Takes of one thing at several strengths are better left as they were struck: their level tells them apart.
          </Text>
        </>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: 12 }}>
        {scope === 'one' && <Chips label="Measured by" options={MEASURES} value={by} onChoose={setBy} />}
        <View>
          <Text look="label" tone="muted">
            {scope === 'one' ? 'To reach' : 'Loudest at'}
          </Text>
          <NumberField
            label={`${by === 'peak' ? 'Peak' : 'Loudness'} to reach`}
            text={String(target)}
            unit={by === 'peak' ? 'dB' : 'LUFS'}
            onNumber={setTarget}
          />
        </View>
        <Button
          label={scope === 'one' ? 'Bring it there' : 'Bring the loudest there, and all with it'}
          disabled={!canReach}
          onPress={bringThere}
        />
      </View>
    </>
  )
}
