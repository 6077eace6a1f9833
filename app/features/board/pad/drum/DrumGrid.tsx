import { Pressable, ScrollView, View } from 'react-native'

import { Text } from '../../../../ui/layout/Text'
import { usePalette } from '../../../../ui/theme/theme'

export interface GridCell {
  /** The pad in it; a hole where none is. */
  readonly words?: string
  /** From whom its sounds are, where it has none. */
  readonly lent?: string
  readonly isHere?: boolean
}

interface Props {
  readonly columns: readonly { readonly name: string; readonly words?: string }[]
  readonly rows: readonly { readonly name: string; readonly cells: readonly GridCell[] }[]
  /** Where cells are only looked at, none. */
  readonly onCell?: (row: number, column: number) => void
}

const NAME_WIDTH = 56
const CELL_WIDTH = 86

/** Spots by openings: a filled cell says its pad, a pale one from whom it borrows, a dashed one is a hole. */
export function DrumGrid({ columns, rows, onCell }: Props) {
  const hasNames = rows.length > 1
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} role="table" aria-label="Spots by openings">
      <View style={{ gap: 6 }}>
        <View role="row" style={{ flexDirection: 'row', gap: 6, paddingLeft: hasNames ? NAME_WIDTH + 6 : 0 }}>
          {columns.map(({ name, words }, i) => (
            <View key={i} role="columnheader" style={{ width: CELL_WIDTH }}>
              <Text look="label" numberOfLines={1}>
                {name}
              </Text>
              {words && (
                <Text look="small" tone="muted" numberOfLines={1}>
                  {words}
                </Text>
              )}
            </View>
          ))}
        </View>
        {rows.map(({ name, cells }, row) => (
          <View key={row} role="row" style={{ flexDirection: 'row', gap: 6, alignItems: 'stretch' }}>
            {hasNames && (
              <View role="rowheader" style={{ width: NAME_WIDTH, justifyContent: 'center' }}>
                <Text look="strong" numberOfLines={2} style={{ fontSize: 14 }}>
                  {name || 'No name'}
                </Text>
              </View>
            )}
            {cells.map((cell, column) => (
              <View key={column} role="cell">
                <Cell
                  cell={cell}
                  where={[name, columns[column]!.name].filter(Boolean).join(', ')}
                  {...(onCell ? { onPress: () => onCell(row, column) } : {})}
                />
              </View>
            ))}
          </View>
        ))}
      </View>
    </ScrollView>
  )
}

function Cell({
  cell: { words, lent, isHere = false },
  where,
  onPress,
}: {
  readonly cell: GridCell
  readonly where: string
  readonly onPress?: () => void
}) {
  const palette = usePalette()
  const said = words === undefined ? 'no pad' : lent ? `${words}, empty, sounds as ${lent}` : words
  const look = {
    width: CELL_WIDTH,
    minHeight: 52,
    padding: 6,
    borderRadius: 10,
    borderWidth: isHere ? 2 : 1,
    justifyContent: 'center',
    borderStyle: words === undefined ? 'dashed' : 'solid',
    borderColor: isHere ? palette.kelp : palette.line,
    backgroundColor: words === undefined || lent ? 'transparent' : palette.faint,
  } as const
  const inner = (
    <>
      <Text look="small" tone={words === undefined ? 'muted' : 'ink'} numberOfLines={lent ? 1 : 2} style={{ fontSize: 13, lineHeight: 16 }}>
        {words ?? 'No pad'}
      </Text>
      {lent && (
        <Text look="small" tone="coral" numberOfLines={1} style={{ fontSize: 12, lineHeight: 15 }}>
          {`as ${lent}`}
        </Text>
      )}
    </>
  )
  return onPress ? (
    <Pressable role="button" aria-label={`${where}: ${said}`} onPress={onPress} style={look}>
      {inner}
    </Pressable>
  ) : (
    <View role="group" aria-label={`${where}: ${said}`} style={look}>
      {inner}
    </View>
  )
}
