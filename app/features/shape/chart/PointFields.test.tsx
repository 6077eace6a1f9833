import type { Envelope } from '@heliaster/core/kit'
import { settled, usualPadSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { PointFields } from './PointFields'
import { EndsFirst } from '../controls/parts'

jest.mock('./TideChart', () => ({ TideChart: () => null }))

const point = (seconds: number, value: number) => ({ seconds, value, bend: 0 })

function Bench() {
  const [envelope, setEnvelope] = useState<Envelope>({ points: [point(0, 1), point(0.07, 0.5), point(0.2, 0)] })
  const [index, setIndex] = useState(1)
  const nothing = () => undefined
  return (
    <PointFields
      envelope={envelope}
      index={index}
      layer="level"
      canSustain={false}
      onChange={setEnvelope}
      onPoint={setIndex}
      onBend={nothing}
      onBent={nothing}
      onRemove={nothing}
    />
  )
}

const field = (name: string) => screen.getByLabelText(name)
const type = (name: string, text: string) => {
  fireEvent.change(field(name), { target: { value: text } })
  fireEvent.blur(field(name))
}
const valueOf = (name: string) => (field(name) as HTMLInputElement).value

test('a typed time is taken and moves what is after it; every point can be reached', () => {
  render(<Bench />)
  type('Time of the point, ms', '3500')
  expect(valueOf('Time of the point, ms')).toBe('3500.0')
  fireEvent.click(screen.getByRole('button', { name: 'Next point' }))
  expect(screen.getByText('Point 3 of 3')).toBeTruthy()
  expect(valueOf('Time of the point, ms')).toBe('3630.0')
  expect(screen.getByRole('button', { name: 'Next point' }).getAttribute('aria-disabled')).toBe('true')
})

test('a level that cannot be is held, and that is said', () => {
  render(<Bench />)
  type('Level of the point, %', '140')
  expect(valueOf('Level of the point, %')).toBe('100.0')
  expect(screen.getByRole('status').textContent).toMatch(/0 to 100 %/)
  type('Level of the point, %', '40')
  expect(screen.queryByRole('status')).toBeNull()
})

test('a held envelope waits at a point, or goes round to it from an earlier one, and neither any more', () => {
  const changed: Envelope[] = []
  const fields = (envelope: Envelope, index: number) => (
    <PointFields
      envelope={envelope}
      index={index}
      layer="pitch"
      canSustain
      onChange={(one) => changed.push(one)}
      onPoint={() => undefined}
      onBend={() => undefined}
      onBent={() => undefined}
      onRemove={() => undefined}
    />
  )
  const { points } = { points: [point(0, 0), point(0.1, 700), point(0.2, 0)] }
  const { rerender } = render(fields({ points }, 1))
  expect(screen.queryByText('Go round from here')).toBeNull()
  fireEvent.click(screen.getByText('Wait here until let go'))
  rerender(fields({ points, sustain: 1 }, 0))
  fireEvent.click(screen.getByText('Go round from here'))
  rerender(fields({ points, loop: { from: 0, to: 1 } }, 0))
  fireEvent.click(screen.getByText('Do not go round'))
  rerender(fields({ points, loop: { from: 0, to: 1 } }, 1))
  fireEvent.click(screen.getByText('Do not wait here'))
  expect(changed).toEqual([{ points, sustain: 1 }, { points, loop: { from: 0, to: 1 } }, { points, sustain: 1 }, { points }])
})

test('an envelope that is longer than its clip says so, in a one-shot', () => {
  const settings = settled(usualPadSettings, { envelopes: { level: { points: [point(0, 1), point(2, 0)] } } })
  const { rerender } = render(<EndsFirst settings={settings} clipSeconds={0.5} />)
  expect(screen.getByRole('status').textContent).toMatch(/ends after 0\.50 s, before its level envelope does \(2\.00 s\)/)
  rerender(<EndsFirst settings={settings} clipSeconds={3} />)
  expect(screen.queryByRole('status')).toBeNull()
  rerender(<EndsFirst settings={{ ...settings, mode: 'loopUntilLetGo' }} clipSeconds={0.5} />)
  expect(screen.queryByRole('status')).toBeNull()
})
