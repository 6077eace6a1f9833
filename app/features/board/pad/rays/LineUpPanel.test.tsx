import { createRay } from '@heliaster/core/kit'
import type { KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import type { RayLineUp } from './line-up'
import { LineUpPanel } from './LineUpPanel'

const mockEdit = jest.fn()
const mockNotify = jest.fn()
let mockMeasure: () => Promise<RayLineUp[]>
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) }))
jest.mock('./line-up', () => ({ measureLineUp: () => mockMeasure() }))

const pad = aPad(1)
const kit = aKitOf(pad)
const rays = ['Near', 'Far', 'Room', 'Shed'].map((name) => createRay(makeId, name))
const line = (ray: number, more: Partial<RayLineUp> = {}): RayLineUp =>
  ({ ray: rays[ray], cells: 4, likeness: 0.8, lagSeconds: 0, delaySeconds: 0, isFlipped: false, ...more }) as RayLineUp
const measure = () => act(async () => fireEvent.click(screen.getByRole('button', { name: 'Measure how the rays line up' })))

beforeEach(() => jest.clearAllMocks())

test('each ray says how it lies against the first; those that are one sound are lined up in one step', async () => {
  mockMeasure = async () => [
    line(0, { delaySeconds: 0.0012 }),
    line(1, { lagSeconds: 0.0012, isFlipped: true, likeness: 0.7 }),
    line(2, { likeness: 0.1, delaySeconds: 0.5 }),
    line(3, { cells: 0 }),
  ]
  render(<LineUpPanel kit={kit} pad={pad} />)
  await measure()
  expect(screen.getByText('Far arrives 1.20 ms after Near, upside down (70 % alike over 4 cells).')).toBeTruthy()
  expect(screen.getByText('Room is another sound than Near: nothing to line up.')).toBeTruthy()
  expect(screen.getByText('Shed: no cell has both this and Near.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Line them up' }))
  expect(mockEdit).toHaveBeenCalledTimes(1)
  expect((mockEdit.mock.lastCall as [{ rayId: string; fields: object }[]])[0].map(({ rayId, fields }) => [rayId, fields])).toEqual([
    [rays[0].id, { values: { delaySeconds: 0.0012 }, invert: false }],
    [rays[1].id, { values: { delaySeconds: 0 }, invert: true }],
  ])
})

test('where nothing is alike there is nothing to line up, and where nothing is shared that is said', async () => {
  mockMeasure = async () => [line(0), line(1, { likeness: 0 })]
  render(<LineUpPanel kit={kit} pad={pad} />)
  await measure()
  expect(screen.queryByRole('button', { name: 'Line them up' })).toBeNull()
  mockMeasure = async () => []
  await measure()
  expect(screen.getByText(/^Only rays that share bands and turns/)).toBeTruthy()
})

test('what cannot be measured is told, and it can be asked again', async () => {
  mockMeasure = () => Promise.reject(new Error('This audio is not on this device.'))
  render(<LineUpPanel kit={kit} pad={pad} />)
  await measure()
  expect(mockNotify).toHaveBeenCalledWith('This audio is not on this device.')
  expect(screen.getByRole('button', { name: 'Measure how the rays line up' }).getAttribute('aria-disabled')).not.toBe('true')
})
