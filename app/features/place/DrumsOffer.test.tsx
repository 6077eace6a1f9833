import { applyEdit, createKit, kitSchema } from '@heliaster/core/kit'
import { drumTable } from '@heliaster/core/ties'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../documents/make-id'
import { aPad } from '../../testing/a-kit'
import { drumsAmong, DrumsOffer, withDrums } from './DrumsOffer'

const named = (name: string, i: number) => ({ ...aPad(1), id: `pad-${i}` as never, own: { name } })
const kit = createKit(makeId, 'Low Tide')
const pads = ['Hatch closed', 'Hatch open', 'Hatch edge open', 'Bell', 'Oar 1', 'Oar 2'].map(named)

test('of pads to be, those that are one drum are offered as one, with what is missing, and made after they are laid', () => {
  const drums = drumsAmong(kit, pads)
  function Shown() {
    const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
    return (
      <>
        <DrumsOffer drums={drums} chosen={chosen} onChoose={setChosen} />
        <p>{[...chosen].join()}</p>
      </>
    )
  }
  render(<Shown />)
  expect(screen.getAllByRole('switch')).toHaveLength(1)
  expect(screen.getByText('2 spots and 2 openings. One is missing: edge closed.')).toBeTruthy()
  fireEvent.click(screen.getByRole('switch', { name: /Hatch as one drum/ }))
  expect(screen.getByText('Hatch')).toBeTruthy()
  const laid = pads.map((pad, index) => ({ type: 'addPad', pad, index }) as const)
  const after = withDrums(kit, laid, drums).reduce(applyEdit, kit)
  expect(kitSchema.safeParse(after).success).toBe(true)
  expect(drumTable(after, pads[0]!.id)!.rows.map(({ name, cells }) => [name, cells.length])).toEqual([['Middle', 2], ['Edge', 2]]) // prettier-ignore
  expect(withDrums(kit, laid, [])).toEqual(laid)
  expect(drumsAmong(kit, pads.slice(3))).toEqual([])
})
