import { act, fireEvent, render, screen, within } from '@testing-library/react'

import { Check } from './Check'
import { CheckChips } from './CheckChips'
import { Chip } from './Chip'
import { Chips } from './Chips'
import { chooseByKeys } from './choose-by-keys'
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

describe('by keys', () => {
  let stop: () => void
  const chosen = jest.fn()
  const ticked = jest.fn()
  const heard = jest.fn()
  beforeEach(() => {
    jest.clearAllMocks()
    stop = chooseByKeys()
    document.addEventListener('keydown', heard)
    const shores = ['Lee', 'Weather', 'Far'].map((text) => ({ value: text.toLowerCase(), text }))
    render(
      <>
        <Chips label="Shore" options={shores} value="lee" onChoose={chosen} />
        <Chip role="checkbox" text="Go round" isChosen={false} onPress={ticked} />
      </>,
    )
  })
  afterEach(() => {
    stop()
    document.removeEventListener('keydown', heard)
  })
  const radio = (name: string) => screen.getByRole('radio', { name })

  test('arrows go from one of a few to the next, round and round, and choose nothing; Space does', () => {
    act(() => radio('Lee').focus())
    fireEvent.keyDown(radio('Lee'), { key: 'ArrowRight' })
    expect(document.activeElement).toBe(radio('Weather'))
    expect(chosen).not.toHaveBeenCalled()
    fireEvent.keyDown(radio('Weather'), { key: ' ' })
    fireEvent.keyDown(radio('Weather'), { key: ' ', repeat: true }) // held
    expect(chosen.mock.calls).toEqual([['weather']])
    fireEvent.keyDown(radio('Far'), { key: 'ArrowDown' })
    expect(document.activeElement).toBe(radio('Lee'))
    fireEvent.keyDown(radio('Lee'), { key: 'ArrowUp' })
    expect(document.activeElement).toBe(radio('Far'))
    expect(heard).not.toHaveBeenCalled() // nobody else acts on what was a choice
  })

  test('Space ticks one of several; letters and keys with Ctrl stay those of the pads and of undoing', () => {
    const box = screen.getByRole('checkbox', { name: 'Go round' })
    fireEvent.keyDown(box, { key: ' ' })
    expect(ticked).toHaveBeenCalledTimes(1)
    fireEvent.keyDown(box, { key: 'ArrowRight' })
    fireEvent.keyDown(radio('Far'), { key: 'x' })
    fireEvent.keyDown(radio('Far'), { key: ' ', ctrlKey: true })
    expect(heard).toHaveBeenCalledTimes(3)
    expect(chosen).not.toHaveBeenCalled()
  })
})
