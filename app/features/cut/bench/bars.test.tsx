import { fireEvent, render, screen } from '@testing-library/react'

import { HitRow } from '../hits/HitRow'
import { MarkerBar } from './MarkerBar'
import { PassageBar } from './PassageBar'
import type { CutHit } from './use-source-cut'

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
type Bench = Parameters<typeof MarkerBar>[0]['bench']

function benchWith(marker: object | undefined) {
  const acts = { pin: jest.fn(), remove: jest.fn(), add: jest.fn(), mark: jest.fn(), step: jest.fn(), toggleZoom: jest.fn(), changeHeight: jest.fn() } // prettier-ignore
  const { pin, ...rest } = acts
  const bench = { ...rest, actions: { pin }, chosen: marker && { marker }, passage: undefined, isWhole: true, view: { isAuto: true, gain: 1 } } as unknown as Bench // prettier-ignore
  return { acts, bench }
}

test('without a chosen marker only what needs none can be done', () => {
  const { acts, bench } = benchWith(undefined)
  const details = jest.fn()
  render(<MarkerBar bench={bench} onDetails={details} />)
  for (const name of ['Pin the marker', 'Name and place of the hit', 'Remove the marker']) {
    expect(screen.getByRole('button', { name }).getAttribute('aria-disabled')).toBe('true')
    press(name)
  }
  expect([acts.pin, acts.remove, details].some((one) => one.mock.calls.length > 0)).toBe(false)
  press('Add a marker')
  press('Next hit')
  press('Previous hit')
  expect(acts.add).toHaveBeenCalledTimes(1)
  expect(acts.step.mock.calls).toEqual([[1], [-1]])
})

test('the chosen marker is unpinned, looked into and removed', () => {
  const marker = { id: 'm', pinned: true }
  const { acts, bench } = benchWith(marker)
  const details = jest.fn()
  render(<MarkerBar bench={bench} onDetails={details} />)
  expect(screen.getByRole('button', { name: 'Unpin the marker' }).getAttribute('aria-pressed')).toBe('true')
  press('Unpin the marker')
  expect(acts.pin).toHaveBeenCalledWith(marker)
  press('Remove the marker')
  expect(acts.remove).toHaveBeenCalledWith(marker)
  press('Name and place of the hit')
  expect(details).toHaveBeenCalledTimes(1)
  expect(screen.getByRole('button', { name: 'Height of the wave: automatic' })).toBeTruthy()
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
