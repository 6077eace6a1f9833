import { createKit, createPad } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'
import type * as vanilla from 'zustand/vanilla'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { passages } from '../../audio/performances/remembering'
import { makeId } from '../../documents/make-id'
import { aPerformance } from '../../testing/a-performance'
import { JustPlayed } from './JustPlayed'
import { KeptList } from './KeptList'
import { agoWords, lengthWords, padsWords, truthWords } from './words'

const mockKeep = jest.fn((..._asked: unknown[]): Promise<unknown> => Promise.resolve({ id: 'performance-b', name: 'Low Tide 1' }))
const mockHear = jest.fn((..._heard: unknown[]) => undefined)
const mockNotify = jest.fn((..._words: unknown[]) => undefined)
jest.mock('../../audio/performances/remembering', () => ({
  passages: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({})),
  memoryOf: () => ({ sampleRateHz: 48000 }),
  lookNow: () => undefined,
}))
jest.mock('../../audio/performances/keep', () => ({
  keepPassage: (...asked: unknown[]) => mockKeep(...asked),
  passageToHear: (_kit: unknown, passage: { fromFrame: number }) => ({ id: `heard-${passage.fromFrame}` }),
}))
jest.mock('../../audio/performances/hear', () => ({
  hearing: jest.requireActual<typeof vanilla>('zustand/vanilla').createStore(() => ({ seconds: 0, lit: [] })),
  hearResounded: (...heard: unknown[]) => mockHear(...heard),
  stopHearing: () => undefined,
}))
jest.mock('../../audio/performances/resound', () => ({ resound: (wanted: unknown) => Promise.resolve({ wanted }) }))
jest.mock('../../ui/layout/notices', () => ({ notify: (...words: unknown[]) => mockNotify(...words) }))
jest.mock('../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name }))

const pad = (id: string, name: string) => ({ ...createPad(makeId, { name }, 36), id: id as PadId })
const kit: Kit = { ...createKit(makeId, 'Low Tide'), pads: ['Keel', 'Oar', 'Buoy', 'Chain'].map((name, i) => pad(`pad-${i}`, name)) }
const ids = kit.pads.map(({ id }) => id)

beforeEach(() => {
  jest.clearAllMocks()
  passages.setState({}, true)
})

test('what was played stands newest first, each is heard and kept, and says that it is kept', async () => {
  passages.setState({
    [kit.id]: [
      { fromFrame: 0, toFrame: 48_000, fromMs: Date.now() - 120_000, strikes: 1, padIds: ids.slice(0, 1) },
      { fromFrame: 480_000, toFrame: 624_000, fromMs: Date.now() - 1000, strikes: 12, padIds: ids },
    ],
  })
  const onKept = jest.fn()
  const { rerender } = render(<JustPlayed kit={kit} kept={[]} onKept={onKept} />)
  const lines = screen.getAllByRole('listitem').map(({ textContent }) => textContent)
  expect(lines[0]).toContain('12 strikes in 3.0 sjust now · Keel, Oar, Buoy and 1 more')
  expect(lines[1]).toContain('1 strike in 1.0 s2 min ago · Keel')
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Hear 12 strikes in 3.0 s' })))
  expect(mockHear).toHaveBeenCalledWith(
    'passage 480000',
    { wanted: { performance: { id: 'heard-480000' }, on: { as: 'played' } } },
    undefined,
  )
  await act(async () => fireEvent.click(screen.getAllByRole('button', { name: 'Keep' })[0]!))
  expect(onKept).toHaveBeenCalledWith('performance-b')
  expect(mockNotify).toHaveBeenCalledWith('Kept as “Low Tide 1”.')
  const kept = { ...aPerformance([['pad-0', 0, 90]]), playedAt: passages.getState()[kit.id][1]!.fromMs }
  rerender(<JustPlayed kit={kit} kept={[kept]} onKept={onKept} />)
  expect(screen.getAllByRole('button', { name: 'Keep' })).toHaveLength(1)
  expect(screen.getByText('Kept')).toBeTruthy()
})

test('what was played too long ago says so and is not called kept', async () => {
  mockKeep.mockResolvedValueOnce('This was played too long ago.')
  passages.setState({ [kit.id]: [{ fromFrame: 0, toFrame: 48_000, fromMs: 1, strikes: 3, padIds: [] }] })
  const onKept = jest.fn()
  render(<JustPlayed kit={kit} kept={[]} onKept={onKept} />)
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Keep' })))
  expect(mockNotify).toHaveBeenCalledWith('This was played too long ago.')
  expect(onKept).not.toHaveBeenCalled()
})

test('kept ones are heard and opened, and say what became of them', async () => {
  const onOpen = jest.fn()
  const kept = { ...aPerformance([['pad-0', 0, 90], ['pad-1', 90_000, 30]]), edited: true } // prettier-ignore
  render(<KeptList kit={kit} kept={[kept]} openId={undefined} onOpen={onOpen} />)
  expect(screen.getByText('2 strikes, 2.0 s · changed')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Open Slipway 1' }))
  expect(onOpen).toHaveBeenCalledWith('performance-a')
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Hear Slipway 1' })))
  expect(mockHear).toHaveBeenCalledWith('performance-a', expect.anything(), undefined)
})

test('lengths, times and pads in words; what is said of how it sounds again is never more than is true', () => {
  expect([3.04, 59.94, 59.96, 605].map(lengthWords)).toEqual(['3.0 s', '59.9 s', '1 min 0 s', '10 min 5 s'])
  expect([0, 9000, 30_000, 121_000].map((ms) => agoWords(0, ms))).toEqual(['just now', 'just now', '30 s ago', '2 min ago'])
  expect(padsWords(kit, [ids[1]!, 'gone' as PadId])).toBe('Oar')
  const plain = aPerformance([['pad-0', 0, 90]])
  expect(truthWords(plain)).toMatch(/to the last sample/)
  for (const more of [{ edited: true }, { isUnsteady: true }, { events: plain.events.map((event) => ({ ...event, by: 'groove' })) }])
    expect(truthWords({ ...plain, ...more } as typeof plain)).not.toMatch(/last sample/)
})
