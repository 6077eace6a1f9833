import { settled, usualPadSettings } from '@heliaster/core/kit'
import type { OwnSettings } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { DriveControls } from './DriveControls'

const tone = Float32Array.from({ length: 4800 }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 100 * i) / 48000))

function shown(own: OwnSettings, samples: Float32Array | undefined = tone) {
  const onChange = jest.fn<void, [OwnSettings]>()
  render(<DriveControls settings={settled(usualPadSettings, own)} samples={samples} onChange={onChange} onDone={() => undefined} />)
  return onChange
}

test('a pad that is not driven asks how much, no more; with a filter, behind it too', () => {
  shown({})
  expect(screen.getAllByRole('slider')).toHaveLength(1)
  shown({ choices: { filter1Kind: 'lowPass' } })
  expect(screen.getByRole('slider', { name: 'Drive after the filters' })).toBeTruthy()
})

test('more drive is as loud: the level behind it goes down by what is added', () => {
  const onChange = shown({ values: { driveDb: 12 } })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Drive' }), { key: 'End' })
  const { driveDb, driveLevelDb } = onChange.mock.lastCall![0].values!
  expect(driveDb).toBe(60)
  // A soft curve far up makes nearly a square of 1 of the sine of 0.5 by 12 dB, which it leaves at about 0.82 at its middle.
  expect(driveLevelDb).toBeLessThan(-1)
  expect(driveLevelDb).toBeGreaterThan(-4)
})

test('what was set by hand stays on top, and another character is as loud', () => {
  const onChange = shown({ values: { driveDb: 24, driveLevelDb: -3 } })
  fireEvent.click(screen.getByRole('radio', { name: 'Folded' }))
  const { choices, values } = onChange.mock.lastCall![0]
  expect(choices).toEqual({ driveKind: 'folded' })
  expect(values!.driveLevelDb).not.toBe(-3)
  expect(Math.abs(values!.driveLevelDb! + 3)).toBeLessThan(6)
})

test('while the sound is not there yet the level stays as it is', () => {
  const onChange = jest.fn()
  const settings = settled(usualPadSettings, { values: { driveDb: 3, driveLevelDb: -1 } })
  render(<DriveControls settings={settings} samples={undefined} onChange={onChange} onDone={() => undefined} />)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Drive' }), { key: 'ArrowRight' })
  expect(onChange).toHaveBeenCalledWith({ values: { driveDb: 3.1, driveLevelDb: -1 } })
})
