import type { Bead } from '@heliaster/core/kit'
import { useState } from 'react'
import type { ComponentProps } from 'react'
import { View } from 'react-native'

import { IconButton } from '../../ui/controls/Button'
import { Slider } from '../../ui/controls/Slider'
import { usePalette } from '../../ui/theme/theme'
import { useIsWide } from '../../ui/layout/use-is-wide'

type Fields = Partial<Omit<Bead, 'id' | 'step'>>

interface Props {
  readonly bead: Bead
  /** The pad that it strikes. */
  readonly name: string
  readonly onSlide: (fields: Fields) => void
  readonly onDone: () => void
}

const MOST_REPEATS = 8

/** What is set on the chosen bead: how strong it is, and behind the arrow when and how often it sounds. */
export function BeadPanel({ bead, name, onSlide, onDone }: Props) {
  const palette = usePalette()
  const isWide = useIsWide()
  const [isOpen, setOpen] = useState(false)
  return (
    <View
      style={{
        paddingHorizontal: 16,
        paddingVertical: 6,
        gap: 4,
        borderTopWidth: 1,
        borderTopColor: palette.faint,
        backgroundColor: palette.surface,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Slider
            label={`Velocity of step ${bead.step + 1}, ${name}`}
            value={bead.velocity}
            min={1}
            max={127}
            step={1}
            unit=""
            onSlide={(velocity) => onSlide({ velocity })}
            onDone={onDone}
          />
        </View>
        <IconButton
          name={isOpen ? 'chevron-down' : 'chevron-up'}
          label={isOpen ? 'Less of this bead' : 'More of this bead'}
          on={isOpen}
          onPress={() => setOpen(!isOpen)}
        />
      </View>
      {isOpen && (
        <View style={{ flexDirection: isWide ? 'row' : 'column', gap: isWide ? 28 : 4 }}>
          <Field
            label="Chance"
            value={100 * (bead.chance ?? 1)}
            min={0}
            max={100}
            unit="%"
            neutral={100}
            onSlide={(percent) => onSlide({ chance: percent / 100 })}
            onDone={onDone}
          />
          <Field
            label="Off its step"
            value={100 * (bead.offset ?? 0)}
            min={-50}
            max={50}
            unit="%"
            neutral={0}
            onSlide={(percent) => onSlide({ offset: percent / 100 })}
            onDone={onDone}
          />
          <Field
            label="Strikes in its time"
            value={bead.repeats?.count ?? 1}
            min={1}
            max={MOST_REPEATS}
            unit=""
            neutral={1}
            onSlide={(count) => onSlide({ repeats: { ...bead.repeats, count } })}
            onDone={onDone}
          />
        </View>
      )}
    </View>
  )
}

/** One number of the bead, in whole steps; on a wide screen they stand side by side. */
function Field(props: Omit<ComponentProps<typeof Slider>, 'step'>) {
  const isWide = useIsWide()
  return (
    <View style={{ flex: isWide ? 1 : undefined }}>
      <Slider {...props} step={1} />
    </View>
  )
}
