import type { LineKind } from '@heliaster/core/ties'
import { lineKinds } from '@heliaster/core/ties'
import { Pressable, ScrollView, View } from 'react-native'
import Svg, { Line, Path } from 'react-native-svg'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { useLeave } from '../../../ui/layout/use-leave'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { TIE_LOOKS } from './tie-looks'

interface Props {
  readonly kind: LineKind
  readonly onKind: (kind: LineKind) => void
  readonly onDone: () => void
}

/** While pads are tied: what a line says, which is the legend too, and the way out. */
export function TieBar({ kind, onKind, onDone }: Props) {
  useLeave(onDone)
  return (
    <View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, paddingLeft: 12, paddingRight: 12, height: 52 }}>
        <ScrollView
          horizontal
          role="radiogroup"
          aria-label="What a line says"
          showsHorizontalScrollIndicator={false}
          contentContainerStyle={{ gap: 6, alignItems: 'center' }}
        >
          {lineKinds.map((one) => (
            <KindChip key={one} kind={one} isChosen={one === kind} onPress={() => onKind(one)} />
          ))}
        </ScrollView>
        <Button label="Done" kind="main" onPress={onDone} />
      </View>
      <Text look="small" tone="muted" style={{ paddingHorizontal: 16, paddingBottom: 6 }}>
        {TIE_LOOKS[kind].draw}
      </Text>
    </View>
  )
}

function KindChip({ kind, isChosen, onPress }: { readonly kind: LineKind; readonly isChosen: boolean; readonly onPress: () => void }) {
  const palette = usePalette()
  return (
    <Pressable
      role="radio"
      aria-checked={isChosen}
      aria-label={TIE_LOOKS[kind].label}
      onPress={onPress}
      style={{
        minHeight: TOUCH,
        paddingHorizontal: 10,
        justifyContent: 'center',
        borderRadius: 6,
        borderWidth: 1,
        borderColor: isChosen ? palette.kelp : palette.line,
        backgroundColor: isChosen ? palette.kelpWash : 'transparent',
      }}
    >
      <Text look="label" tone={isChosen ? 'ink' : 'muted'}>
        {TIE_LOOKS[kind].label}
      </Text>
      <TieSample kind={kind} />
    </Pressable>
  )
}

/** The stroke of a kind, as the lines have it. */
export function TieSample({ kind }: { readonly kind: LineKind }) {
  const palette = usePalette()
  const { colour, dash, hasHead } = TIE_LOOKS[kind]
  return (
    <Svg width={52} height={10} aria-hidden>
      <Line
        x1={2}
        y1={5}
        x2={hasHead ? 40 : 50}
        y2={5}
        stroke={palette[colour]}
        strokeWidth={2}
        strokeDasharray={dash}
        strokeLinecap="round"
      />
      {hasHead && <Path d="M 50 5 L 41 1 L 41 9 Z" fill={palette[colour]} />}
    </Svg>
  )
}
