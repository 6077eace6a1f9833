import { createEvent, fireEvent, render, screen, waitFor } from '@testing-library/react'

import { FileDrop } from './FileDrop'
import { Text } from '../layout/Text'

const file = new File(['RIFF'], 'keel.wav', { type: 'audio/wav' })

/** Drops files as a browser does. */
function drop(on: Element, files: readonly File[], folder?: object): Event {
  const event = createEvent.drop(on)
  const items = files.map((one) => ({ kind: 'file', type: one.type, getAsFile: () => one, webkitGetAsEntry: () => null }))
  const all = folder ? [...items, { kind: 'file', type: '', getAsFile: () => null, webkitGetAsEntry: () => folder }] : items
  Object.assign(event, { dataTransfer: { files, items: all, types: ['Files'] }, clientX: 5, clientY: 5 })
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

test('what is in dropped folders is read, and of that only audio', async () => {
  const taken = jest.fn()
  render(
    <FileDrop onFiles={taken}>
      <Text>a pad</Text>
    </FileDrop>,
  )
  const entry = (name: string) => ({
    isFile: true,
    isDirectory: false,
    fullPath: `/capstan/${name}`,
    file: (found: (file: File) => void) => found(new File(['x'], name)),
  })
  const portions = [[entry('pawl 1.wav')], [entry('notes.txt'), entry('pawl 2.wav')], []]
  const folder = {
    isFile: false,
    isDirectory: true,
    fullPath: '/capstan',
    createReader: () => ({ readEntries: (found: (entries: unknown[]) => void) => found(portions.shift()!) }),
  }
  drop(screen.getByText('a pad'), [file], folder)
  await waitFor(() => expect(taken).toHaveBeenCalledTimes(1))
  expect((taken.mock.lastCall as [File[]])[0].map(({ name }) => name)).toEqual(['keel.wav', 'pawl 1.wav', 'pawl 2.wav'])
})
