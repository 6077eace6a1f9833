import { createBus } from '@heliaster/core/kit'
import type { BusId } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { createStore } from 'zustand/vanilla'

import { aKitOf } from '../../../testing/a-kit'
import { OutputsSheet } from './OutputsSheet'

const mockOutputs = {
  outputChoice: createStore<{ deviceId: string; pairs: Record<string, number> }>(() => ({ deviceId: '', pairs: {} })),
  outputState: createStore<{ channels: number; devices: object[]; problem?: string }>(() => ({ channels: 2, devices: [] })),
  canChooseOutput: () => true,
  findOutputs: jest.fn(async () => undefined),
  chooseOutput: jest.fn(async () => undefined),
  choosePair: jest.fn(),
  askForNames: jest.fn(async () => undefined),
  pairsOf: (channels: number) => (channels >= 6 ? [1, 2] : []),
  pairWords: (pair: number) => `Outputs ${2 * pair + 1} and ${2 * pair + 2}`,
}
jest.mock('../../../audio/engine/outputs-later', () => ({ outputsLater: async () => mockOutputs }))
const { askForNames, chooseOutput, choosePair, outputChoice, outputState } = mockOutputs

const kit = { ...aKitOf(), buses: [createBus('drums' as BusId, 'Drums')] }
const shown = async () => {
  render(<OutputsSheet kit={kit} onClose={jest.fn()} />)
  await screen.findByText(/channels$/)
}

test('on two channels it is said what more would give, and nothing is to be chosen', async () => {
  await shown()
  expect(screen.getByText(/Everything leaves by them/)).toBeTruthy()
  expect(screen.queryAllByRole('radiogroup')).toHaveLength(0)
  fireEvent.click(screen.getByRole('button', { name: 'Name the outputs' }))
  expect(askForNames).toHaveBeenCalled()
})

test('on six channels each bus has a choice of pairs, and the one that was chosen stands', async () => {
  outputState.setState({ channels: 6 })
  outputChoice.setState({ pairs: { drums: 1 } })
  await shown()
  expect((await screen.findByRole('radio', { name: 'Outputs 3 and 4' })).getAttribute('aria-checked')).toBe('true')
  fireEvent.click(screen.getByRole('radio', { name: 'Outputs 5 and 6' }))
  expect(choosePair).toHaveBeenCalledWith('drums', 2)
  fireEvent.click(screen.getByRole('radio', { name: 'With the mix' }))
  expect(choosePair).toHaveBeenCalledWith('drums', 0)
})

test('an output is chosen by name; what cannot be had is said at once', async () => {
  outputState.setState({ devices: [{ id: '', name: 'As the computer plays' }, { id: 'desk', name: 'Desk' }], problem: 'This output cannot be had now.' }) // prettier-ignore
  await shown()
  fireEvent.click(screen.getByRole('radio', { name: 'Desk' }))
  expect(chooseOutput).toHaveBeenCalledWith('desk')
  expect(screen.getByRole('alert')).toBeTruthy()
})
