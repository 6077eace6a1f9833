import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { Envelopes } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { DecaySlider } from './parts'

const falling = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.3, value: 0, bend: 0 }] } // prettier-ignore

function shown(envelopes: Envelopes) {
  const onChange = jest.fn()
  render(<DecaySlider settings={settled(usualPadSettings, { envelopes })} onChange={onChange} onDone={() => undefined} />)
  return onChange
}

test('a pad without envelopes has no decay', () => {
  shown({})
  expect(screen.queryByRole('slider')).toBeNull()
})

test('one decay acts on the level envelope, or on what there is', () => {
  const onChange = shown({ level: falling, pitch: falling })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Decay: length of the level envelope' }), { key: 'ArrowLeft' })
  expect(onChange).toHaveBeenCalledWith({ values: { decayScale: 0.99 } })
  shown({ filter1: falling })
  expect(screen.getByRole('slider', { name: 'Decay: length of its envelopes' })).toBeTruthy()
})
