import { padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, PadId } from '@heliaster/core/kit'
import { drumTable, openWords, tableProposed, withCell, withOpening, withThreshold } from '@heliaster/core/ties'
import type { DrumTable } from '@heliaster/core/ties'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../../documents/make-id'
import { editKit } from '../../../../kit-view'
import { session } from '../../../../kit-view/session'
import { kitGesture, padName } from '../../../../kit-view/use-kit'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { Slider } from '../../../../ui/controls/Slider'
import { notify } from '../../../../ui/layout/notices'
import { Part } from '../../../../ui/layout/Part'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Text } from '../../../../ui/layout/Text'
import { DrumGrid } from './DrumGrid'
import { DrumOfNames } from './DrumOfNames'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

const FULL = 'This kit holds 128 pads, as many as it can: remove one, or take a pad that is there.'

/** A drum by where it is struck and how far it is open; filled from names in one action, its holes shown. */
export function DrumTablePart({ kit, pad }: Props) {
  const [isReading, setReading] = useState(false)
  const [hole, setHole] = useState<{ readonly row: number; readonly column: number }>()
  const table = drumTable(kit, pad.id)
  const reading = useMemo(() => tableProposed(kit, pad.id), [kit, pad.id])
  const edit = (edits: KitEdit[] | undefined) => (edits ? editKit(kit.id, edits, pad.id) : notify(FULL))
  const short = (name: string) => withoutDrum(name, table?.drum?.name ?? '')
  const isOpened = table !== undefined && table.columns.length > 1
  return (
    <Part name="Opened by degrees">
      <Text look="small" tone="muted">
        {isOpened
          ? 'A pedal or another controller chooses the column; the finger or the note chooses the row.'
          : 'As a hat by its foot: each degree of opening is a pad of its own, and a controller chooses between them.'}
      </Text>
      {table && isOpened && (
        <>
          <DrumGrid
            columns={table.columns.map((from, column) => ({ name: openWords(table.columns, column), words: `from ${from}` }))}
            rows={table.rows.map(({ name, cells }) => ({
              name,
              cells: cells.map(({ pad: own, lender }) => ({
                ...(own ? { words: short(padName(kit, own)), isHere: own.id === pad.id } : {}),
                ...(lender ? { lent: short(padName(kit, lender)) } : {}),
              })),
            }))}
            onCell={(row, column) => {
              const at = table.rows[row]!.cells[column]!
              if (at.pad) session.setState({ padId: at.pad.id })
              else setHole({ row, column })
            }}
          />
          <Thresholds kit={kit} table={table} />
        </>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {reading && <Button label="Fill from names" onPress={() => setReading(true)} />}
        <Button label={isOpened ? 'One more opening' : 'Add an opening'} onPress={() => edit(withOpening(makeId, kit, pad.id))} />
      </View>
      {isReading && reading && <DrumOfNames kit={kit} reading={reading} onClose={() => setReading(false)} />}
      {hole && table && (
        <FillHole
          kit={kit}
          table={table}
          onClose={() => setHole(undefined)}
          onPad={(existing) => {
            setHole(undefined)
            edit(withCell(makeId, kit, pad.id, hole.row, hole.column, existing))
          }}
        />
      )}
    </Part>
  )
}

/** A pad's name in the table of its drum, which need not be said again. */
function withoutDrum(name: string, drum: string): string {
  const rest = drum && name.toLowerCase().startsWith(`${drum.toLowerCase()} `) ? name.slice(drum.length + 1) : name
  return rest.slice(0, 1).toUpperCase() + rest.slice(1)
}

/** From where on each opening sounds, for all spots together: dragged or typed. */
function Thresholds({ kit, table }: { readonly kit: Kit; readonly table: DrumTable }) {
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  // A drag is said over the table before it: its column is where it was.
  const [before, setBefore] = useState<DrumTable>()
  const from = before ?? table
  return (
    <>
      {table.columns.map(
        (value, column) =>
          column > 0 && (
            <Slider
              key={column}
              label={`${openWords(table.columns, column)} from`}
              value={value}
              min={1}
              max={127}
              step={1}
              unit=""
              onSlide={(to) => {
                setBefore(from)
                gesture.set(withThreshold(from, column, to))
              }}
              onDone={() => {
                gesture.end()
                setBefore(undefined)
              }}
            />
          ),
      )}
      <Text look="small" tone="muted">
        {`Controller ${table.rows.find(({ tie }) => tie)?.tie?.controller ?? 4}; which one it is, and what closing silences, is under Ties.`}
      </Text>
    </>
  )
}

interface FillProps {
  readonly kit: Kit
  readonly table: DrumTable
  readonly onClose: () => void
  readonly onPad: (existing?: PadId) => void
}

/** What comes into a cell that has no pad. */
function FillHole({ kit, table, onClose, onPad }: FillProps) {
  const inTable = new Set(table.rows.flatMap(({ cells }) => cells.map(({ pad }) => pad?.id)))
  const others = kit.pads.filter(({ id }) => !inTable.has(id))
  return (
    <Sheet
      title="What sounds in this cell?"
      isOpen
      onClose={onClose}
      actions={<Button label="An empty pad, to be filled" kind="main" onPress={() => onPad()} />}
    >
      {others.length > 0 ? (
        <Chips
          label="A pad that is there"
          options={others.map((pad) => ({ value: pad.id as string, text: padSettings(kit, pad).name || padName(kit, pad) }))}
          value={undefined}
          onChoose={(id) => onPad(id as PadId)}
        />
      ) : (
        <Text look="small">All pads of this kit are of this drum. An empty one borrows from the nearest until it is filled.</Text>
      )}
    </Sheet>
  )
}
