import { createSource } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { StereoQuestion } from './StereoQuestion'

const mockSet = jest.fn()
jest.mock('../list/sound-actions', () => ({ setSounds: (...given: unknown[]) => mockSet(...given) as unknown }))

const imported = (name: string, channels: number, midLossDb = 0) => {
  const source = createSource(makeId, audio, { ...info, channels }, name, { measured: { loudnessDb: -20, peakDb: -3, midLossDb } as never })
  return { type: 'imported' as const, source, notes: [] }
}

test('files of one channel, known ones and failed ones ask nothing', () => {
  const known = { ...imported('was here', 2), type: 'known' as const, name: 'was here.wav' }
  render(<StereoQuestion done={[imported('mono', 1), known, { type: 'failed', name: 'x', reason: 'no' }]} />)
  expect(screen.queryByRole('radiogroup')).toBeNull()
})

test('asked once for all stereo files, and answered for all in one step', () => {
  const done = [imported('a', 2), imported('mono', 1), imported('b', 2)]
  render(<StereoQuestion done={done} />)
  expect(screen.getByRole('radiogroup', { name: '2 files are stereo. Their clips take' })).toBeTruthy()
  expect(screen.getByRole('radio', { name: 'Both' }).getAttribute('aria-checked')).toBe('true')
  fireEvent.click(screen.getByRole('radio', { name: 'Right' }))
  expect(mockSet.mock.calls).toEqual([[[done[0].source, done[2].source], { channel: 'right' }]])
})

test('where the middle would be thin that is said, by name where it is one', () => {
  render(<StereoQuestion done={[imported('opposed', 2, -40), imported('fine', 2)]} />)
  expect(screen.queryByRole('alert')).toBeNull()
  fireEvent.click(screen.getByRole('radio', { name: 'Mid' }))
  expect(screen.getByRole('alert').textContent).toMatch(/^In “opposed” left and right cancel/)
})
