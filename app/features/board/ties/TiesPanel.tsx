import type { Kit, Tie, TieId } from '@heliaster/core/kit'
import { circlesOf, lineKinds, listed, nameOf, tieConflicts, tieWords, withoutAlong } from '@heliaster/core/ties'
import type { LineKind } from '@heliaster/core/ties'
import { Pressable, View } from 'react-native'

import { editKit } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { TieSample } from './TieBar'
import { TieSettings } from './TieSettings'
import { TIE_LOOKS } from './tie-looks'
import { WhyButton } from './WhySheet'

interface Props {
  readonly kit: Kit
  readonly chosen: TieId | undefined
  readonly onChoose: (tieId: TieId | undefined) => void
}

/** All ties of the kit in words, by kind; one that is chosen shows what is set on it. */
export function TiesPanel({ kit, chosen, onChoose }: Props) {
  const drawn = kit.ties.filter((tie): tie is Extract<Tie, { kind: LineKind }> => (lineKinds as readonly string[]).includes(tie.kind))
  const parts = kit.ties.filter(({ kind }) => kind === 'parts')
  const alongs = drawn.filter(({ kind }) => kind === 'alsoStrike').length
  return (
    <View style={{ gap: 14 }}>
      <Text look="heading">
        {drawn.length + parts.length === 0
          ? 'No ties yet'
          : drawn.length + parts.length === 1
            ? '1 tie'
            : `${drawn.length + parts.length} ties`}
      </Text>
      {drawn.length + parts.length === 0 && (
        <Text tone="muted">Choose what a line says, then draw it from one pad to another. What is drawn is heard at once.</Text>
      )}
      <Warnings kit={kit} />
      {lineKinds.map((kind) => {
        const own = drawn.filter((tie) => tie.kind === kind)
        if (own.length === 0) return null
        return (
          <View key={kind} style={{ gap: 6 }}>
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
              <Text look="label" tone="muted">
                {TIE_LOOKS[kind].label}
              </Text>
              <TieSample kind={kind} />
            </View>
            {own.map((tie) => (
              <TieRow
                key={tie.id}
                kit={kit}
                tie={tie}
                isOpen={tie.id === chosen}
                onPress={() => onChoose(tie.id === chosen ? undefined : tie.id)}
              />
            ))}
          </View>
        )
      })}
      {parts.length > 0 && (
        <View style={{ gap: 6 }}>
          <Text look="label" tone="muted">
            Parts of a recording
          </Text>
          {parts.map((tie) => (
            <TieRow
              key={tie.id}
              kit={kit}
              tie={tie}
              isOpen={tie.id === chosen}
              onPress={() => onChoose(tie.id === chosen ? undefined : tie.id)}
            />
          ))}
        </View>
      )}
      <WhyButton />
      {alongs > 0 && <Button label="Let nothing strike along any more" onPress={() => editKit(kit.id, withoutAlong(kit))} />}
    </View>
  )
}

interface RowProps {
  readonly kit: Kit
  readonly tie: Tie
  readonly isOpen: boolean
  readonly onPress: () => void
}

function TieRow({ kit, tie, isOpen, onPress }: RowProps) {
  const palette = usePalette()
  const words = tieWords(kit, tie)
  return (
    <View
      style={{
        borderWidth: 1,
        borderRadius: 8,
        borderColor: isOpen ? palette.kelp : palette.line,
        backgroundColor: isOpen ? palette.surface : 'transparent',
      }}
    >
      <Pressable
        role="button"
        aria-expanded={isOpen}
        aria-label={words}
        onPress={onPress}
        style={{ minHeight: TOUCH, paddingHorizontal: 12, paddingVertical: 8, justifyContent: 'center' }}
      >
        <Text look="small">{words}</Text>
      </Pressable>
      {isOpen && (
        <View style={{ padding: 12, paddingTop: 4, gap: 12 }}>
          <TieSettings kit={kit} tie={tie} />
          <Button label="Remove this tie" onPress={() => editKit(kit.id, [{ type: 'removeTie', tieId: tie.id }])} />
        </View>
      )}
    </View>
  )
}

/** What works against itself, and what wins. */
function Warnings({ kit }: { readonly kit: Kit }) {
  const circles = circlesOf(kit).map((way) => `${listed(way.map((padId) => nameOf(kit, padId)))} strike each other along in a circle: a strike goes round once and stops where it began.`) // prettier-ignore
  return [...tieConflicts(kit).map(({ words }) => words), ...circles].map((words) => (
    <Text key={words} look="small" tone="coral" role="note">
      {words}
    </Text>
  ))
}
