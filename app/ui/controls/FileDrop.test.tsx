import { createEvent, fireEvent, render, screen, waitFor } from '@testing-library/react'

import { FileDrop } from './FileDrop'
import { Text } from '../layout/Text'

const file = new File(['RIFF'], 'keel.wav', { type: 'audio/wav' })

/** Drops files as a browser without folders does. */
function drop(on: Element, files: readonly File[]): Event {
  const event = createEvent.drop(on)
  Object.assign(event, { dataTransfer: { files, items: [], types: ['Files'] }, clientX: 5, clientY: 5 })
  fireEvent(on, event)
  return event
}

beforeAll(() => Object.assign(document, { elementFromPoint: () => null }))

test('of two that lie in each other the inner one takes the files', async () => {
  const [inner, outer] = [jest.fn(), jest.fn()]
  render(
    <FileDrop onFiles={outer}>
      <FileDrop onFiles={inner} fills={false}>
        <Text>a pad</Text>
      </FileDrop>
    </FileDrop>,
  )
  const event = drop(screen.getByText('a pad'), [file])
  expect(event.defaultPrevented).toBe(true) // the browser would leave the page for the file
  await waitFor(() => expect(inner).toHaveBeenCalledWith([file], null))
  expect(outer).not.toHaveBeenCalled()
})

test('nothing is taken where nothing was dropped', async () => {
  const taken = jest.fn()
  render(
    <FileDrop onFiles={taken}>
      <Text>a pad</Text>
    </FileDrop>,
  )
  drop(screen.getByText('a pad'), [])
  drop(screen.getByText('a pad'), [file])
  await waitFor(() => expect(taken).toHaveBeenCalledTimes(1))
})
