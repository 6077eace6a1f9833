import type { Strikes } from '@heliaster/core/cut'
import { createSource } from '@heliaster/core/kit'
import type { CutSettings } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'

import { WaterBar } from './WaterBar'

const info = { name: 'steps.wav', sampleRateHz: 48000, frames: 480_000, channels: 1 }
/** Four steps, a toe in each, and two that are in between. */
const heights = [0.8, 0.1, 0.78, 0.09, 0.5, 0.82, 0.1, 0.48, 0.79, 0.08]
const strikes: Strikes = {
  hopFrames: 64,
  line: 0.65,
  strikes: heights.map((height, i) => ({ hop: 200 * i, beginHop: 200 * i, strength: Math.max(height, 0.7), odds: 0, height })),
}

function shown(cut: Partial<CutSettings>) {
  const source = createSource(testIds(1), hashOf('1'), info, 'steps', { cut: { waterLine: 0.3, minGapSeconds: 0.06, ...cut } })
  const changes: Partial<CutSettings>[] = []
  const audio = { sampleRateHz: 48000, channels: [] }
  render(<WaterBar source={source} analysis={{ strikes, audio }} onCut={(change) => changes.push(change)} />)
  return changes
}

test('the line says what it did, and a tap shows the next sensible level', () => {
  const changes = shown({ findsLevel: true })
  expect(screen.getByText('4 hits; 6 weaker ones lie under the line: echoes and aftershocks.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Let the line find its level' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'More hits: 6' }))
  expect(changes).toEqual([{ waterLine: expect.closeTo(0.29, 2), findsLevel: undefined }])
})

test('a line of one’s own stays until it is let go', () => {
  const changes = shown({ waterLine: 0.29 })
  expect(screen.getByText(/^Your own line. 6 hits; 4 weaker ones/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Fewer hits: 4' }))
  fireEvent.click(screen.getByRole('button', { name: 'Let the line find its level' }))
  expect(changes).toEqual([{ waterLine: expect.closeTo(0.64, 2), findsLevel: undefined }, { findsLevel: true }])
})
