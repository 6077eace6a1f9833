import { bandsOfRay, createBand } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { cellsOf } from '@heliaster/core/place'

import { makeId } from '../../../../documents/make-id'
import { after, aKitOf, aPad } from '../../../../testing/a-kit'
import { edgesOf } from './band-edges'

let mockKit: Kit
const mockEdit = (edits: KitEdit[]) => (mockKit = after(mockKit, edits))
const mockNotify = jest.fn()
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))

const pad: Pad = { ...aPad(1), bands: [1, 40, 90].map((from) => createBand(makeId, from, [])) }
const begins = () => bandsOfRay(mockKit.pads[0]!, mockKit.pads[0]!.rays[0]!).map(({ fromVelocity }) => fromVelocity)
const edges = () => edgesOf(mockKit, mockKit.pads[0]!, cellsOf(mockKit.pads[0]!)!)

beforeEach(() => {
  jest.clearAllMocks()
  mockKit = aKitOf(pad)
})

test('an edge is where it was typed, and no rule spreads the bands from then on', () => {
  edges().type(1, 60)
  expect(begins()).toEqual([1, 60, 90])
  expect(mockKit.pads[0]!.spread).toBe('own')
  expect(mockNotify).not.toHaveBeenCalled()
})

test('beyond its neighbours, or between whole velocities, it is put as near as it can be, and it is said why', () => {
  edges().type(1, 120)
  expect(begins()).toEqual([1, 89, 90])
  expect(mockNotify).toHaveBeenLastCalledWith('Band 2 can begin from 2 to 89, between its neighbours: it is at 89.')
  edges().type(2, 127.4)
  expect(begins()).toEqual([1, 89, 127])
  expect(mockNotify).toHaveBeenLastCalledWith('Velocities are whole: band 3 begins at 127.')
  edges().type(1, -5)
  expect(begins()).toEqual([1, 2, 127])
})

test('the softest band begins at 1, whatever is typed', () => {
  edges().type(0, 20)
  expect(begins()).toEqual([1, 40, 90])
  expect(mockNotify).toHaveBeenCalledWith('The softest band always begins at velocity 1.')
})
