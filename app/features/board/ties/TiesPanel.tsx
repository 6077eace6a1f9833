import type { Kit, Tie, TieId } from '@heliaster/core/kit'
import { circleWords, lineKinds, tieConflicts, tieWords, withoutAlong } from '@heliaster/core/ties'
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
import { tieCount } from './tie-count'

interface Props {
  readonly kit: Kit
  readonly chosen: TieId | undefined
  readonly onChoose: (tieId: TieId | undefined) => void
}

/** All ties of the kit in words, by kind; one that is chosen shows what is set on it. */
export function TiesPanel({ kit, chosen, onChoose }: Props) {
  return (
    <View style={{ gap: 14 }}>
      <Text look="heading">{tieCount(kit)}</Text>
      {kit.ties.length === 0 && (
        <Text tone="muted">Choose what a line says, then draw it from one pad to another. What is drawn is heard at once.</Text>
      )}
      <Warnings kit={kit} />
      {groupsOf(kit).map(({ label, line, ties }) => (
        <View key={label} style={{ gap: 6 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
            <Text look="label" tone="muted">
              {label}
            </Text>
            {line && <TieSample kind={line} />}
          </View>
          {ties.map((tie) => (
            <TieRow
              key={tie.id}
              kit={kit}
              tie={tie}
              isOpen={tie.id === chosen}
              onPress={() => onChoose(tie.id === chosen ? undefined : tie.id)}
            />
          ))}
        </View>
      ))}
      <WhyButton />
      {kit.ties.some(({ kind }) => kind === 'alsoStrike') && (
        <Button label="Let nothing strike along any more" onPress={() => editKit(kit.id, withoutAlong(kit))} />
      )}
    </View>
  )
}

interface TieGroup {
  readonly label: string
  /** The stroke of its lines, where it is drawn as lines. */
  readonly line?: LineKind
  readonly ties: readonly Tie[]
}

/** The ties by kind, those that are drawn as lines first. */
function groupsOf({ ties }: Kit): TieGroup[] {
  const of = (kind: Tie['kind']) => ties.filter((tie) => tie.kind === kind)
  return [
    ...lineKinds.map((line) => ({ label: TIE_LOOKS[line].label, line, ties: of(line) })),
    { label: 'Spots of one drum', ties: of('spots') },
    { label: 'Parts of a recording', ties: of('parts') },
  ].filter((group) => group.ties.length > 0)
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
  return [...tieConflicts(kit).map(({ words }) => words), ...circleWords(kit)].map((words) => (
    <Text key={words} look="small" tone="coral" role="note">
      {words}
    </Text>
  ))
}
