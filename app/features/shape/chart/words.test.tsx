import { settled, usualPadSettings } from '@heliaster/core/kit'
import { render, screen } from '@testing-library/react'

import { EndsFirst } from '../controls/parts'
import { homeWords } from './WaterWords'

jest.mock('./TideChart', () => ({ TideChart: () => null }))

const point = (seconds: number, value: number) => ({ seconds, value, bend: 0 })

test('an envelope that is longer than its clip says so, in a one-shot', () => {
  const settings = settled(usualPadSettings, { envelopes: { level: { points: [point(0, 1), point(2, 0)] } } })
  const { rerender } = render(<EndsFirst settings={settings} clipSeconds={0.5} />)
  expect(screen.getByRole('status').textContent).toMatch(/ends after 0\.50 s, before its level envelope does \(2\.00 s\)/)
  rerender(<EndsFirst settings={settings} clipSeconds={3} />)
  expect(screen.queryByRole('status')).toBeNull()
  rerender(<EndsFirst settings={{ ...settings, mode: 'loopUntilLetGo' }} clipSeconds={0.5} />)
  expect(screen.queryByRole('status')).toBeNull()
})

test('where a family is at home, and where this one is, in Hz and notes', () => {
  const note = (hz: number) => `n${hz}`
  expect(homeWords('kick', [40, 60], 82.2, note)).toBe('A kick’s water: 40-60 Hz (n40-n60). This one: 82 Hz.')
  expect(homeWords('tom', [80, 250], 100, note)).toMatch(/This one: 100 Hz, in it\.$/)
})
