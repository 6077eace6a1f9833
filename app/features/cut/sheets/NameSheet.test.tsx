import { fireEvent, render, screen } from '@testing-library/react'

import { byFamily, NameSheet } from './NameSheet'
import type { CutHit } from '../bench/use-source-cut'

const hit = (id: string, family: string, name?: string) => ({ marker: { id, frame: 100, name }, hit: { family } }) as unknown as CutHit
const hits = [hit('a', 'tom'), hit('b', 'hat', 'Oar tick'), hit('c', 'tom')]

function shown() {
  const acts = { onNames: jest.fn<void, [readonly { name: string }[]]>(), onHear: jest.fn(), onClose: jest.fn() }
  render(<NameSheet hits={hits} sourceName="Slipway" {...acts} />)
  return { ...acts, given: () => acts.onNames.mock.calls.map(([names]) => names.map(({ name }) => name)) }
}

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

test('each family counts for itself, and what would be named is seen before', () => {
  expect(byFamily(hits)).toEqual(['Tom 1', 'Hat 1', 'Tom 2'])
  const { given, onClose } = shown()
  expect(screen.getByLabelText('The new names').textContent).toBe('Hit 1Tom 1Oar tickHat 1Hit 3Tom 2')
  press('Give these 3 names')
  expect(given()).toEqual([['Tom 1', 'Hat 1', 'Tom 2']])
  expect(onClose).toHaveBeenCalledTimes(1)
})

test('a pattern fills in numbers and families', () => {
  const { given } = shown()
  fireEvent.click(screen.getByRole('radio', { name: 'By a pattern' }))
  fireEvent.change(screen.getByRole('textbox', { name: 'Pattern' }), { target: { value: 'slip {family} {nn}' } })
  press('Give these 3 names')
  expect(given()[0]).toEqual(['slip tom 01', 'slip hat 02', 'slip tom 03'])
})

test('one after another is heard and typed; Enter goes on, what is left empty or as it was is not named, the last one ends it', () => {
  const { given, onHear, onClose } = shown()
  fireEvent.click(screen.getByRole('radio', { name: 'One after another' }))
  const field = (n: number) => screen.getByRole('textbox', { name: `Name of hit ${n}` })
  fireEvent.change(field(1), { target: { value: ' Mooring thump ' } })
  fireEvent.keyDown(field(1), { key: 'Enter' })
  expect(given()).toEqual([['Mooring thump']])
  expect((field(2) as HTMLInputElement).value).toBe('Oar tick')
  press('Name it, next') // as it was
  press('Name it and finish') // empty
  expect(given()).toHaveLength(1)
  expect(onHear.mock.calls.map(([item]: [CutHit]) => item.marker.id)).toEqual(expect.arrayContaining(['b', 'c']))
  expect(onClose).toHaveBeenCalledTimes(1)
})
