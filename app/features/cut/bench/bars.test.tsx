import { fireEvent, render, screen } from '@testing-library/react'

import { plainHitList } from '../hits/hit-list'
import { HitRow } from '../hits/HitRow'
import { cutLooks } from './looks'
import { MarkerBar } from './MarkerBar'
import { PassageBar } from './PassageBar'
import type { CutHit } from './use-source-cut'

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
type Bench = Parameters<typeof MarkerBar>[0]['bench']

function benchWith(marker: object | undefined, more: object = {}) {
  const acts = { pin: jest.fn(), remove: jest.fn(), add: jest.fn(), mark: jest.fn(), step: jest.fn(), toggleZoom: jest.fn(), changeHeight: jest.fn() } // prettier-ignore
  const { pin, ...rest } = acts
  const row = { isHearing: false, toggle: jest.fn() }
  const bench = { ...rest, actions: { pin }, chosen: marker && { marker }, passage: undefined, isWhole: true, view: { isAuto: true, gain: 1 }, hits: [{}], listView: plainHitList, row, ...more } as unknown as Bench // prettier-ignore
  return { acts, bench, row }
}
const sheets = { onDetails: jest.fn(), onNames: jest.fn(), onRepairs: jest.fn() }
let mockIsWide = true
jest.mock('../../../ui/layout/use-is-wide', () => ({ useIsWide: () => mockIsWide }))
const shown = (bench: Bench, width: 'phone' | 'wide' = 'wide') => {
  mockIsWide = width === 'wide'
  return render(<MarkerBar bench={bench} {...sheets} />)
}
beforeEach(() => jest.clearAllMocks())

test('without a chosen marker only what needs none can be done', () => {
  const { acts, bench } = benchWith(undefined)
  shown(bench)
  for (const name of ['Details', 'Remove']) {
    expect(screen.getByRole('button', { name }).getAttribute('aria-disabled')).toBe('true')
    press(name)
  }
  expect([acts.remove, sheets.onDetails].some((one) => one.mock.calls.length > 0)).toBe(false)
  for (const name of ['Add marker', 'Next hit', 'Previous hit', 'Mark passage']) press(name)
  expect([acts.add, acts.mark].map(({ mock }) => mock.calls.length)).toEqual([1, 1])
  expect(acts.step.mock.calls).toEqual([[1], [-1]])
})

test('the chosen marker is looked into and removed; unpinned behind More, where the height of the wave is too', () => {
  const marker = { id: 'm', pinned: true }
  const { acts, bench } = benchWith(marker)
  shown(bench)
  press('Remove')
  expect(acts.remove).toHaveBeenCalledWith(marker)
  press('Details')
  expect(sheets.onDetails).toHaveBeenCalledTimes(1)
  press('More')
  const pin = screen.getByRole('switch', { name: 'Pin the marker' })
  expect(pin.getAttribute('aria-checked')).toBe('true')
  fireEvent.click(pin)
  expect(acts.pin).toHaveBeenCalledWith(marker)
  press('Height of the wave: automatic')
  expect(acts.changeHeight).toHaveBeenCalledTimes(1)
})

test('on a phone three things have words, and all else has them behind one', () => {
  const { acts, bench, row } = benchWith({ id: 'm', pinned: false })
  shown(bench, 'phone')
  for (const name of ['Add marker', 'Details', 'Repair']) press(name)
  for (const name of ['Mark passage', 'Remove', 'Name hits', 'Hear all', 'Look closely']) {
    press('More')
    press(name)
  }
  expect([acts.mark, acts.remove, sheets.onNames, sheets.onRepairs, row.toggle, acts.toggleZoom].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1, 1, 1, 1]) // prettier-ignore
  press('More')
  press('Order of the list: Time')
  expect(screen.getByRole('dialog', { name: 'Hits in the list' })).toBeTruthy()
})

test('parts of the screen are folded away and stay so; the list of recordings only where it stands beside', () => {
  const { bench } = benchWith(undefined)
  const { unmount } = shown(bench)
  press('More')
  for (const [name, field] of [['List of recordings', 'showsRecordings'], ['Overview', 'showsOverview'], ['Strikes and water line', 'showsStrikes']] as const) {
    const was = cutLooks.getState()[field]
    fireEvent.click(screen.getByRole('switch', { name }))
    expect([cutLooks.getState()[field], localStorage.getItem('heliaster-cut-looks')]).toEqual([!was, expect.stringContaining(`"${field}":${!was}`)])
  } // prettier-ignore
  unmount()
  shown(bench, 'phone')
  press('More')
  expect(screen.queryByRole('switch', { name: 'List of recordings' })).toBeNull()
})

test('a passage says how long it is, in the unit that fits', () => {
  const acts = { onHear: jest.fn(), onKeep: jest.fn(), onSend: jest.fn(), onClose: jest.fn() }
  const { rerender } = render(<PassageBar passage={{ startFrame: 0, endFrame: 4800 }} rate={48000} {...acts} />)
  expect(screen.getByRole('status').textContent).toBe('100.0 ms')
  rerender(<PassageBar passage={{ startFrame: 4800, endFrame: 124800 }} rate={48000} {...acts} />)
  expect(screen.getByRole('status').textContent).toBe('2.50 s')
  for (const name of ['Hear', 'Make a hit', 'Send', 'Leave the passage']) press(name)
  expect(Object.values(acts).map((one) => one.mock.calls.length)).toEqual([1, 1, 1, 1])
})

const hit = { seconds: 0.25, peakDb: -3.2, family: 'kick', warnings: [], pitch: { hz: 110, confidence: 0.9 }, startFrame: 0, endFrame: 100 }
const item = (marker: object) => ({ marker: { id: 'a', frame: 24000, ...marker }, hit }) as unknown as CutHit

test('a hit says when it begins, how long, loud and high it is, and how it was judged; a tap hears it, another judges it', () => {
  const [choose, judge] = [jest.fn(), jest.fn()]
  const row = (marker: object) => <HitRow item={item(marker)} sampleRateHz={48000} chosen={false} onChoose={choose} onJudge={judge} />
  const { container, rerender } = render(row({ name: 'Mooring thump' }))
  expect(container.textContent).toContain('Mooring thumpat 0.50, 0.25 s, -3.2 dB, A2')
  press('Hear Mooring thump')
  expect(choose).toHaveBeenCalledTimes(1)
  press('Mooring thump: keep it')
  press('Mooring thump: pass it')
  expect(judge.mock.calls.map(([, verdict]) => verdict as string)).toEqual(['keep', 'pass'])
  const pressed = () => screen.getAllByRole('button', { name: /^Mooring thump: / }).map((sign) => sign.getAttribute('aria-pressed'))
  expect(pressed()).toEqual(['false', 'false'])
  rerender(row({ name: 'Mooring thump', verdict: 'pass' }))
  expect([pressed(), screen.getByRole('button', { name: 'Mooring thump: passed; not judged again' })]).toEqual([
    ['false', 'true'],
    expect.anything(),
  ])
  rerender(row({ name: 'Mooring thump', verdict: 'keep' }))
  expect([pressed(), screen.getByRole('button', { name: 'Mooring thump: kept; not judged again' })]).toEqual([
    ['true', 'false'],
    expect.anything(),
  ])
})
