import type { Bead } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { BeadPanel } from './BeadPanel'

test('velocity is at hand; chance, time and repeats stand behind the arrow, and each changes its own field', () => {
  const slide = jest.fn()
  const bead: Bead = { id: 'b' as never, step: 2, velocity: 90, chance: 0.5, repeats: { count: 2, rise: 0.3 } }
  render(<BeadPanel bead={bead} name="Oar, low" onSlide={slide} onDone={() => undefined} />)
  const right = (name: string) => fireEvent.keyDown(screen.getByRole('slider', { name }), { key: 'ArrowRight' })
  right('Velocity of step 3, Oar, low')
  expect(slide).toHaveBeenLastCalledWith({ velocity: 91 })
  expect(screen.queryByRole('slider', { name: 'Chance' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'More of this bead' }))
  right('Chance')
  expect(slide).toHaveBeenLastCalledWith({ chance: 0.51 })
  right('Off its step')
  expect(slide).toHaveBeenLastCalledWith({ offset: 0.01 })
  right('Strikes in its time')
  expect(slide).toHaveBeenLastCalledWith({ repeats: { count: 3, rise: 0.3 } })
})
