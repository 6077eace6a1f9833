import { act, fireEvent, render, screen } from '@testing-library/react'
import { Pressable, Text, View } from 'react-native'

import { Swapping, useSwapped, useSwapPlace } from './Swapping'

const boxes: Record<string, [x: number, y: number]> = { mallet: [0, 0], oar: [100, 0], hull: [0, 100], shore: [100, 100] }

function Thing({ id }: { readonly id: string }) {
  const { ref, listeners, described, isOver, isDragging } = useSwapped(id)
  return (
    <Pressable ref={ref} role="button" aria-label={id} testID={id} {...described} {...listeners}>
      <Text>{isDragging ? `${id} is up` : isOver ? `over ${id}` : id}</Text>
    </Pressable>
  )
}

function Place({ id }: { readonly id: string }) {
  const { ref, isOver } = useSwapPlace(id)
  return (
    <View ref={ref} testID={id}>
      <Text>{isOver ? `over ${id}` : id}</Text>
    </View>
  )
}

const onDrop = jest.fn()
beforeEach(() => {
  jest.clearAllMocks()
  jest.useFakeTimers()
  jest.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockImplementation(function (this: HTMLElement) {
    const [left, top] = boxes[this.dataset.testid ?? ''] ?? [0, 0]
    return { left, top, x: left, y: top, width: 50, height: 50, right: left + 50, bottom: top + 50, toJSON: () => '' }
  })
  render(
    <Swapping nameOf={(id) => `the ${id}`} onDrop={onDrop}>
      <Thing id="mallet" />
      <Thing id="oar" />
      <Thing id="hull" />
      <Place id="shore" />
    </Swapping>,
  )
})
afterEach(() => jest.useRealTimers())

const settle = () => act(() => jest.advanceTimersByTime(400))
const key = (code: string) => {
  fireEvent.keyDown(document.activeElement ?? document.body, { code, key: code === 'Space' ? ' ' : code })
  settle()
}
const takeUp = (name: string) => {
  const thing = screen.getByRole('button', { name })
  act(() => thing.focus())
  key('Space')
}

test.each([
  ['ArrowRight', 'oar'],
  ['ArrowDown', 'hull'],
])('by keys: Space takes up, %s goes to the next place that way, Space puts it there', (arrow, there) => {
  takeUp('mallet')
  expect(screen.getByText('mallet is up')).toBeTruthy()
  key(arrow)
  expect(screen.getByText(`over ${there}`)).toBeTruthy()
  key('Space')
  expect(onDrop).toHaveBeenCalledTimes(1)
  expect(onDrop).toHaveBeenCalledWith('mallet', there)
  expect(screen.getByRole('status').textContent).toBe(`the mallet is put on the ${there}.`)
})

test('a place that is no thing takes what is put on it', () => {
  takeUp('oar')
  key('ArrowDown')
  key('Space')
  expect(onDrop).toHaveBeenCalledWith('oar', 'shore')
})

test('Escape leaves a thing where it was, and so does a way on which nothing lies', () => {
  takeUp('mallet')
  key('ArrowRight')
  key('Escape')
  takeUp('mallet')
  key('ArrowLeft')
  key('Space')
  expect(onDrop).not.toHaveBeenCalled()
  expect(screen.getByRole('status').textContent).toBe('the mallet stays.')
})

test('by mouse a thing is dragged at once; a press that hardly moves is none', () => {
  const mallet = screen.getByRole('button', { name: 'mallet' })
  fireEvent.mouseDown(mallet, { button: 0, clientX: 10, clientY: 10 })
  fireEvent.mouseMove(document, { clientX: 14, clientY: 10 })
  fireEvent.mouseUp(document)
  settle()
  expect(onDrop).not.toHaveBeenCalled()
  fireEvent.mouseDown(mallet, { button: 0, clientX: 10, clientY: 10 })
  fireEvent.mouseMove(document, { clientX: 60, clientY: 10 })
  settle()
  fireEvent.mouseMove(document, { clientX: 120, clientY: 20 })
  settle()
  fireEvent.mouseUp(document)
  settle()
  expect(onDrop).toHaveBeenCalledWith('mallet', 'oar')
})

test('a finger takes up after a rest; one that moves before scrolls', () => {
  const mallet = screen.getByRole('button', { name: 'mallet' })
  const touches = (clientX: number, isUp = false) => {
    const touch = {
      identifier: 1,
      target: mallet,
      clientX,
      clientY: 10,
      pageX: clientX,
      pageY: 10,
      screenX: clientX,
      screenY: 10,
      force: 1,
    }
    const down = isUp ? [] : [touch]
    return { touches: down, targetTouches: down, changedTouches: [touch] }
  }
  fireEvent.touchStart(mallet, touches(10))
  fireEvent.touchMove(mallet, touches(60))
  settle()
  fireEvent.touchEnd(mallet, touches(60, true))
  settle()
  expect(onDrop).not.toHaveBeenCalled()
  fireEvent.touchStart(mallet, touches(10))
  settle()
  fireEvent.touchMove(mallet, touches(120))
  settle()
  fireEvent.touchEnd(mallet, touches(120, true))
  settle()
  expect(onDrop).toHaveBeenCalledWith('mallet', 'oar')
})
