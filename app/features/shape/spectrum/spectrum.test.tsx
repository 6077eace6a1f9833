import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings, PadSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import fc from 'fast-check'
import { useState } from 'react'

import { filterOf, filterWords, movedFilter, pointOf, togetherDb } from './filter-moves'
import { SpectrumChart } from './SpectrumChart'

const of = (own: OwnSettings) => settled(usualPadSettings, own)
const low = of({ choices: { filter1Kind: 'lowPass' }, values: { filter1CutoffHz: 1000 } })
let now: PadSettings
const done = jest.fn()

function Shown({ from }: { readonly from: PadSettings }) {
  const [settings, set] = useState(from)
  now = settings
  return <SpectrumChart settings={settings} drawn={undefined} onChange={(own) => set(settled(settings, own))} onDone={done} />
}

test('a point is moved sideways in frequency, upwards in what its kind has, within bounds, and stands where it was put', () => {
  const kinds = fc.constantFrom('lowPass', 'highPass', 'bandPass', 'notch', 'lowShelf', 'highShelf', 'peak' as const)
  const by = fc.double({ min: -12, max: 12, noNaN: true })
  fc.assert(
    fc.property(kinds, fc.double({ min: -2400, max: 2400, noNaN: true }), by, (kind, cents, db) => {
      const before = of({ choices: { filter2Kind: kind as 'peak' }, values: { filter2CutoffHz: 800 } })
      const filter = filterOf(before, 'filter2')
      const after = settled(before, movedFilter('filter2', filter, cents, db))
      const point = pointOf(filterOf(after, 'filter2'))
      expect(Math.abs(1200 * Math.log2(point.hz / 800) - cents)).toBeLessThan(2)
      const expected = kind === 'bandPass' || kind === 'notch' ? 0 : pointOf(filter).db + db
      const bound = kind === 'lowPass' || kind === 'highPass' ? [-6.1, 26.1] : kind === 'peak' ? [-24, 24] : [-12, 12]
      expect(point.db).toBeCloseTo(Math.min(bound[1]!, Math.max(bound[0]!, expected)), 0)
    }),
  )
})

test('without filters there is nothing to drag; with them each says itself and is moved by keys, one step each', () => {
  const { unmount } = render(<Shown from={usualPadSettings} />)
  expect(screen.queryByRole('slider')).toBeNull()
  unmount()
  render(<Shown from={settled(low, { choices: { filter2Kind: 'peak' }, values: { filter2GainDb: 6, filter2CutoffHz: 200 } })} />)
  const [first, second] = screen.getAllByRole('slider')
  expect([first!.getAttribute('aria-valuetext'), second!.getAttribute('aria-valuetext')]).toEqual([
    '1.00 kHz, -3.0 dB there',
    '200 Hz, 6.0 dB',
  ])
  fireEvent.keyDown(first!, { key: 'ArrowRight', shiftKey: true })
  expect(now.values.filter1CutoffHz).toBeCloseTo(1000 * 2 ** (10 / 12), 0)
  fireEvent.keyDown(second!, { key: 'ArrowUp' })
  expect(now.values.filter2GainDb).toBe(6.5)
  expect(done).toHaveBeenCalledTimes(2)
})

test('a touch far from any point changes nothing', () => {
  render(<Shown from={low} />)
  const chart = screen.getByRole('group')
  const pointer = (type: string, clientX: number, clientY: number) => fireEvent(chart, Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY }), { pointerId: 1, pointerType: 'touch' })) // prettier-ignore
  pointer('pointerdown', 390, 5)
  pointer('pointermove', 200, 5)
  pointer('pointerup', 200, 5)
  expect(now.values.filter1CutoffHz).toBe(1000)
})

test('both filters together are their sum; words name what a kind has', () => {
  const both = settled(low, { choices: { filter2Kind: 'peak' }, values: { filter2GainDb: 6, filter2CutoffHz: 1000 } })
  expect(togetherDb(both, 1000)).toBeCloseTo(-3.01 + 6, 1)
  expect(filterWords(filterOf(of({ choices: { filter1Kind: 'notch' }, values: { filter1Damping: 0.5 } }), 'filter1'))).toBe(
    '2.00 kHz, sharpness 2.00',
  )
})
