import { createPad } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'

import { FarTuning } from './PadsTogether'

jest.mock('../../../kit-view', () => ({ editKit: () => undefined }))

test('sounds that lie octaves from their notes are asked about, with the nearest octave first', () => {
  const wanted = [-3600, -3550].map((cents, i) => ({ pad: createPad(testIds(i), {}, 40), cents }))
  const tune = jest.fn()
  const leave = jest.fn()
  render(<FarTuning far={{ wanted, words: 'One had no pitch.' }} onTune={tune} onLeave={leave} />)
  expect(screen.getByRole('status').textContent).toMatch(/3 octaves down from where these sounds are/)
  fireEvent.click(screen.getByRole('button', { name: 'In the nearest octave' }))
  expect((tune.mock.calls[0] as [typeof wanted, string])[0].map(({ cents }) => cents)).toEqual([0, 50])
  fireEvent.click(screen.getByRole('button', { name: 'At the very notes, 3 octaves down' }))
  expect(tune).toHaveBeenLastCalledWith(wanted, 'One had no pitch.')
  fireEvent.click(screen.getByRole('button', { name: 'Leave them' }))
  expect(leave).toHaveBeenCalled()
})
