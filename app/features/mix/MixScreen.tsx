import type { Kit } from '@heliaster/core/kit'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'

import { useKit } from '../../kit-view'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { usePalette } from '../../ui/theme/theme'
import { stillThere, WHOLE } from './chosen'
import type { Chosen } from './chosen'
import { Lanes } from './lanes/Lanes'
import { LossLine } from './LossLine'
import { Meters } from './meters/Meters'
import { MixSpectrum } from './meters/MixSpectrum'
import { MixBar } from './MixBar'
import { GrooveView } from './GrooveView'
import { MixPanel, titleOf } from './panel/MixPanel'

/** Where the kit's levels are set against each other, with what stands in its buses. */
export function MixScreen() {
  const kit = useKit()
  return kit ? <MixOf key={kit.id} kit={kit} /> : null
}

function MixOf({ kit }: { readonly kit: Kit }) {
  const isWide = useIsWide()
  const [isLoudFirst, setLoudFirst] = useState(true)
  const [chosen, setChosen] = useState<Chosen>()
  if (kit.pads.length === 0)
    return (
      <Text tone="muted" style={{ padding: 20 }}>
        A mix needs pads. Send hits to the Board, and their levels stand here.
      </Text>
    )
  const looked = stillThere(kit, chosen)
  const lanes = <Lanes kit={kit} isLoudFirst={isLoudFirst} chosen={isWide ? (looked ?? WHOLE) : looked} onChoose={setChosen} />
  const bar = <MixBar kit={kit} isLoudFirst={isLoudFirst} onLoudFirst={setLoudFirst} />
  if (isWide) return <Wide kit={kit} bar={bar} lanes={lanes} chosen={looked ?? WHOLE} />
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      {bar}
      <Meters />
      <ScrollView style={{ flex: 1 }}>
        {lanes}
        <View style={{ paddingHorizontal: 16 }}>
          <LossLine />
        </View>
      </ScrollView>
      {looked && (
        <Sheet title={titleOf(kit, looked)} isOpen onClose={() => setChosen(undefined)}>
          <MixPanel key={JSON.stringify(looked)} kit={kit} chosen={looked} />
        </Sheet>
      )}
    </View>
  )
}

interface WideProps {
  readonly kit: Kit
  readonly bar: React.ReactNode
  readonly lanes: React.ReactNode
  readonly chosen: Chosen
}

/** On a wide screen groove, levels, spectrum and what is chosen are seen together. */
function Wide({ kit, bar, lanes, chosen }: WideProps) {
  const palette = usePalette()
  return (
    <View style={{ flex: 1, minHeight: 0, flexDirection: 'row' }}>
      <View style={{ flex: 1, minWidth: 0 }}>
        {bar}
        <GrooveView kit={kit} />
        <ScrollView style={{ flex: 1 }}>{lanes}</ScrollView>
      </View>
      <View style={{ width: 440, borderLeftWidth: 1, borderLeftColor: palette.faint, backgroundColor: palette.surface }}>
        <ScrollView contentContainerStyle={{ padding: 16, gap: 12 }}>
          <Meters />
          <MixSpectrum />
          <Text look="heading" style={{ fontSize: 19 }}>
            {titleOf(kit, chosen)}
          </Text>
          <MixPanel key={JSON.stringify(chosen)} kit={kit} chosen={chosen} />
          <LossLine />
        </ScrollView>
      </View>
    </View>
  )
}
