import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import type { ReactNode } from 'react'

import { layOut } from '../../testing/lay-out'
import { Button } from '../controls/Button'
import { Sheet } from './Sheet'
import { Text } from './Text'

/** Two sheets, the second opened over the first. */
function Two() {
  const [open, setOpen] = useState(['first', 'second'])
  const without = (name: string) => () => setOpen((names) => names.filter((one) => one !== name))
  return (
    <>
      <Sheet title="First" isOpen={open.includes('first')} onClose={without('first')}>
        <Text>Below</Text>
      </Sheet>
      <Sheet title="Second" isOpen={open.includes('second')} onClose={without('second')}>
        <Text>Above</Text>
      </Sheet>
    </>
  )
}

/** By their names; what lies around the one on top is a dialog too, without one. */
const dialogs = () => screen.queryAllByRole('dialog', { hidden: true }).flatMap((one) => one.getAttribute('aria-label') ?? [])
const escape = () => {
  fireEvent.keyDown(document.body, { key: 'Escape' })
  fireEvent.keyUp(document.body, { key: 'Escape' })
}

test('Escape closes the sheet that lies on top, and only that one', () => {
  render(<Two />)
  expect(dialogs()).toEqual(['Second']) // the one below is none while it is covered
  expect(screen.getByText('First')).toBeTruthy()
  escape()
  expect(dialogs()).toEqual(['First'])
  escape()
  expect(dialogs()).toEqual([])
  escape()
})

test('a sheet has its name, what is in it and what can be done, and is closed by its sign or beside it', () => {
  const close = jest.fn()
  render(
    <Sheet title="Mixer" isOpen onClose={close} beside={<Text>beside</Text>} actions={<Text>actions</Text>}>
      <Text>inside</Text>
    </Sheet>,
  )
  expect(screen.getByRole('dialog', { name: 'Mixer' }).textContent).toBe('Mixerbesideinsideactions')
  fireEvent.click(screen.getByRole('button', { name: 'Close' })) // one, told once
  fireEvent.click(screen.getByTestId('RNE__Overlay__backdrop'))
  expect(close).toHaveBeenCalledTimes(2)
})

test('a sheet that is not open is not there and hears no keys', () => {
  const close = jest.fn()
  render(
    <Sheet title="Mixer" isOpen={false} onClose={close}>
      <Text>inside</Text>
    </Sheet>,
  )
  expect(dialogs()).toEqual([])
  escape()
  expect(close).not.toHaveBeenCalled()
})

test('words alone that are longer than the sheet are reached by keys and scrolled by them; where something in it is reached they need not', () => {
  const long = jest.spyOn(HTMLElement.prototype, 'scrollHeight', 'get').mockReturnValue(500)
  jest.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(100)
  const open = (within: ReactNode) => {
    const { unmount } = render(<Sheet title="Delete it?" isOpen onClose={() => undefined}>{within}</Sheet>) // prettier-ignore
    layOut(300, 100)
    const group = screen.queryByRole('group', { name: 'Delete it?' })
    unmount()
    return group?.tabIndex
  }
  expect([open(<Text>words</Text>), open(<Button label="Keep" onPress={() => undefined} />)]).toEqual([0, undefined])
  long.mockReturnValue(100)
  expect(open(<Text>words</Text>)).toBeUndefined()
  jest.restoreAllMocks()
})
