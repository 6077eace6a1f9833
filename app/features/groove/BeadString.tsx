import type { Groove, Pad } from '@heliaster/core/kit'
import { memo } from 'react'
import { Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { grooveState } from '../../audio/playing/groove-player'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { useIsWide } from '../../ui/layout/use-is-wide'

interface Props {
  readonly name: string
  readonly pad: Pad
  readonly groove: Groove
  readonly chosenStep?: number
  readonly onTap: (pad: Pad, step: number) => void
}

const TALL = 44

/** One pad's string. A bead's height on it is its velocity; beats are marked on the line. */
export const BeadString = memo(function BeadString({ name, pad, groove, chosenStep, onTap }: Props) {
  const palette = usePalette()
  const isWide = useIsWide()
  const beads = new Map(groove.strings.find((string) => string.padId === pad.id)?.beads.map((bead) => [bead.step, bead.velocity]))
  return (
    <View
      style={{
        flexDirection: isWide ? 'row' : 'column',
        paddingHorizontal: 16,
        alignItems: isWide ? 'center' : 'stretch',
        marginBottom: isWide ? 2 : 6,
      }}
    >
      <Text
        look="label"
        numberOfLines={1}
        tone={beads.size > 0 ? 'ink' : 'muted'}
        style={{ width: isWide ? 140 : undefined, marginBottom: isWide ? 0 : -6 }}
      >
        {name}
      </Text>
      <View style={{ flex: isWide ? 1 : undefined, flexDirection: 'row', height: TALL }}>
        <View style={{ position: 'absolute', left: 0, right: 0, top: TALL - 9, height: 1, backgroundColor: palette.line }} />
        {Array.from({ length: groove.lengthSteps }, (_, step) => (
          <StringStep
            key={step}
            name={name}
            step={step}
            velocity={beads.get(step) ?? 0}
            isBeat={step % groove.stepsPerBeat === 0}
            isChosen={chosenStep === step}
            onTap={() => onTap(pad, step)}
          />
        ))}
      </View>
    </View>
  )
})

interface StepProps {
  readonly name: string
  readonly step: number
  /** 0 where there is no bead. */
  readonly velocity: number
  readonly isBeat: boolean
  readonly isChosen: boolean
  readonly onTap: () => void
}

/** A step of a string, with its bead. While the groove plays only the steps that begin and end to sound are drawn again. */
function StringStep({ name, step, velocity, isBeat, isChosen, onTap }: StepProps) {
  const palette = usePalette()
  const isNow = useStore(grooveState, (state) => state.step === step)
  const size = 9 + (velocity / 127) * 8
  return (
    <Pressable
      role="checkbox"
      aria-checked={velocity > 0}
      aria-label={`${name}, step ${step + 1}${velocity > 0 ? `, velocity ${velocity}` : ''}`}
      onPress={onTap}
      style={{ flex: 1, height: TALL, alignItems: 'center' }}
    >
      <View
        style={{
          position: 'absolute',
          top: TALL - (isBeat ? 14 : 11),
          width: isNow ? 3 : 1,
          height: isBeat ? 11 : 5,
          backgroundColor: isNow ? palette.coral : isBeat ? palette.muted : palette.line,
        }}
      />
      {velocity > 0 && (
        <>
          <View style={{ position: 'absolute', top: beadTop(velocity), bottom: 9, width: 1, backgroundColor: palette.muted }} />
          <View
            style={{
              position: 'absolute',
              top: beadTop(velocity) - size / 2 + 4,
              width: size,
              height: size,
              borderRadius: size / 2,
              backgroundColor: isNow ? palette.coral : palette.kelp,
              borderWidth: isChosen ? 2 : 0,
              borderColor: palette.ink,
            }}
          />
        </>
      )}
    </Pressable>
  )
}

function beadTop(velocity: number): number {
  return 8 + (1 - velocity / 127) * (TALL - 24)
}
