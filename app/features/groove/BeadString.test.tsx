import { createGroove, withBead } from '@heliaster/core/groove'
import { createIds } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { grooveState } from '../../audio/playing/groove-player'
import { aPad } from '../../testing/a-kit'
import { BeadString } from './BeadString'

jest.mock('../../audio/playing/groove-player', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { grooveState: createStore(() => ({ playing: false, step: -1 })) }
})

const pad = aPad(1)
const groove = withBead(
  createGroove(
    createIds(() => 0.5),
    'Slip',
  ),
  pad.id,
  4,
  90,
)
const step = (number: number) => screen.getByRole('checkbox', { name: new RegExp(`^Oar, step ${number}(,|$)`) })
const onTap = jest.fn()
beforeEach(() => {
  jest.clearAllMocks()
  act(() => grooveState.setState({ step: -1 }))
  render(<BeadString name="Oar" pad={pad} groove={groove} onTap={onTap} />)
})

test('a step with a bead is ticked and says its velocity; a tap on any tells pad and step', () => {
  expect(screen.getAllByRole('checkbox')).toHaveLength(groove.lengthSteps)
  expect(step(5).getAttribute('aria-checked')).toBe('true')
  expect(step(5).getAttribute('aria-label')).toBe('Oar, step 5, velocity 90')
  expect(step(6).getAttribute('aria-checked')).toBe('false')
  fireEvent.click(step(6))
  expect(onTap).toHaveBeenCalledWith(pad, 5)
})

test('the step that sounds is wider than the others, and steps that stay as they are keep their picture', () => {
  const mark = (number: number) => step(number).firstElementChild as HTMLElement
  const before = mark(9).outerHTML
  act(() => grooveState.setState({ step: 4 }))
  expect(mark(5).style.width).toBe('3px')
  expect(mark(4).style.width).toBe('1px')
  act(() => grooveState.setState({ step: 5 }))
  expect(mark(5).style.width).toBe('1px')
  expect(mark(6).style.width).toBe('3px')
  expect(mark(9).outerHTML).toBe(before)
})
