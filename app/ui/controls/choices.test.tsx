import { fireEvent, render, screen, within } from '@testing-library/react'

import { Check } from './Check'
import { CheckChips } from './CheckChips'
import { Chips } from './Chips'
import { Toggle } from './Toggle'

const PICKS = [
  { value: 'cycle', text: 'In turn' },
  { value: 'random', text: 'At random' },
] as const

test('of a few one is chosen; another is chosen by its word', () => {
  const choose = jest.fn()
  render(<Chips label="Turns" options={PICKS} value="cycle" onChoose={choose} />)
  expect(screen.getByRole('radiogroup', { name: 'Turns' })).toBeTruthy()
  expect(screen.getAllByRole('radio').map((one) => one.getAttribute('aria-checked'))).toEqual(['true', 'false'])
  fireEvent.click(screen.getByRole('radio', { name: 'At random' }))
  expect(choose).toHaveBeenCalledWith('random')
})

test('a choice that nothing has been made of has none chosen, and may keep its words to those who cannot see it', () => {
  render(<Chips label="Turns" hideLabel isOneLine options={PICKS} value={undefined} onChoose={() => undefined} />)
  expect(screen.queryByText('Turns')).toBeNull()
  expect(screen.getByRole('radiogroup', { name: 'Turns' })).toBeTruthy()
  expect(screen.getAllByRole('radio').some((one) => one.getAttribute('aria-checked') === 'true')).toBe(false)
})

test('of several any are chosen, ticked as well as coloured', () => {
  const toggle = jest.fn()
  render(<CheckChips label="Microphones" options={PICKS} values={['random']} onToggle={toggle} />)
  expect(screen.getByRole('checkbox', { name: 'At random' }).textContent).toBe('✓ At random')
  expect(screen.getByRole('checkbox', { name: 'In turn' }).textContent).toBe('In turn')
  fireEvent.click(screen.getByRole('checkbox', { name: 'In turn' }))
  expect(toggle).toHaveBeenCalledWith('cycle')
})

test('a switch says what it means and turns to the other side', () => {
  const change = jest.fn()
  const { rerender } = render(<Toggle label="Waits" words="Until it is let go." value={false} onChange={change} />)
  expect(screen.getByText('Until it is let go.')).toBeTruthy()
  fireEvent.click(screen.getByRole('switch', { name: 'Waits' }))
  expect(change).toHaveBeenLastCalledWith(true)
  rerender(<Toggle label="Waits" value onChange={change} />)
  expect(screen.getByRole('switch')).toHaveProperty('checked', true)
  fireEvent.click(screen.getByRole('switch'))
  expect(change).toHaveBeenLastCalledWith(false)
})

test('a box says what it ticks and whether it does; the words of a switch press it too', () => {
  const change = jest.fn()
  const { unmount } = render(<Check label="plank 1" value={false} onChange={change} />)
  const box = screen.getByRole('checkbox', { name: 'plank 1' })
  expect(box.getAttribute('aria-checked')).toBe('false')
  fireEvent.click(box)
  expect(change).toHaveBeenLastCalledWith(true, false)
  unmount()
  render(<Toggle label="Waits" value onChange={change} />)
  fireEvent.click(screen.getByText('Waits'))
  expect(change).toHaveBeenLastCalledWith(false)
})

test('a press on its row, its words or the switch itself changes it once', () => {
  const change = jest.fn()
  render(<Toggle label="Waits" words="Until it is let go." value={false} onChange={change} />)
  for (const place of [screen.getByText('Waits'), screen.getByText('Until it is let go.'), screen.getByRole('switch')])
    fireEvent.click(place)
  expect(change.mock.calls).toEqual([[true], [true], [true]])
})

test('many choices stand in groups under their names, and are one choice all the same', () => {
  const options = [
    { value: 'level', text: 'Level', group: 'Loud' },
    { value: 'pitch', text: 'Pitch', group: 'High' },
    { value: 'place', text: 'Place', group: 'Loud' },
  ]
  const choose = jest.fn()
  render(<Chips label="What it moves" options={options} value="pitch" onChoose={choose} />)
  const group = screen.getByRole('radiogroup', { name: 'What it moves' })
  expect(group.textContent).toBe('What it movesLoudLevelPlaceHighPitch')
  expect(within(group).getAllByRole('radio').map((one) => one.getAttribute('aria-checked'))).toEqual(['false', 'false', 'true'])
  fireEvent.click(screen.getByRole('radio', { name: 'Place' }))
  expect(choose).toHaveBeenCalledWith('place')
}) // prettier-ignore
