import { fireEvent, render, screen } from '@testing-library/react'

import { useCutKeys } from './use-cut-keys'
import type { CutKeys } from './use-cut-keys'

const did = jest.fn()
const tell = (name: string) => (...given: unknown[]) => void did(name, ...given) // prettier-ignore
const marker = { id: 'm', frame: 4800 }
const hit = { marker } as never
const keys = (chosen: boolean): CutKeys => ({
  step: tell('step'),
  add: tell('add'),
  zoom: tell('zoom'),
  toggleZoom: tell('toggleZoom'),
  changeHeight: tell('changeHeight'),
  mark: tell('mark'),
  hearPassage: tell('hearPassage'),
  chosen: chosen ? hit : undefined,
  actions: { nudge: tell('nudge'), pin: tell('pin'), setVerdict: tell('setVerdict') } as never,
  remove: tell('remove'),
  hear: tell('hear'),
  rate: 44100,
})

function Bench({ chosen }: { readonly chosen: boolean }) {
  useCutKeys(keys(chosen))
  return (
    <>
      <input aria-label="Name" />
      <div role="slider" aria-valuenow={0} tabIndex={0} />
      <button role="button">Hear</button>
    </>
  )
}

const press = (key: string, more: object = {}, on: Element = document.body) => fireEvent.keyDown(on, { key, ...more })
beforeEach(() => did.mockClear())

test.each([
  ['ArrowLeft', {}, ['step', -1]],
  ['ArrowRight', {}, ['step', 1]],
  ['ArrowLeft', { shiftKey: true }, ['nudge', marker, -44]],
  ['ArrowRight', { shiftKey: true }, ['nudge', marker, 44]],
  ['ArrowRight', { altKey: true }, ['nudge', marker, 1]],
  ['+', { shiftKey: true }, ['zoom', 0.5]],
  ['-', {}, ['zoom', 2]],
  ['0', {}, ['toggleZoom']],
  ['Insert', {}, ['add']],
  ['PageUp', {}, ['changeHeight']],
  ['PageDown', {}, ['mark']],
  ['ArrowUp', {}, ['hearPassage']],
  ['ArrowDown', {}, ['hear', hit]],
  ['Delete', {}, ['remove', marker]],
  ['Home', {}, ['pin', marker]],
  ['Enter', {}, ['setVerdict', marker, 'keep']],
  ['Backspace', {}, ['setVerdict', marker, 'pass']],
])('%s %j does its one thing, and the page does not scroll with it', (key, more, told) => {
  render(<Bench chosen />)
  expect(press(key, more)).toBe(false) // the browser's own way with it is prevented
  expect(did.mock.calls).toEqual([told])
})

test('with no hit chosen arrows go on, and keys that are for a hit are left to the page', () => {
  render(<Bench chosen={false} />)
  press('ArrowRight', { shiftKey: true })
  expect(did.mock.calls).toEqual([['step', 1]])
  for (const key of ['Delete', 'Home', 'Enter', 'Backspace', 'ArrowDown', 'q']) expect(press(key)).toBe(true)
  expect(did).toHaveBeenCalledTimes(1)
})

test('what is pressed in a field, on a slider or with Control belongs there; Enter on a button presses the button', () => {
  render(<Bench chosen />)
  press('Delete', {}, screen.getByRole('textbox'))
  press('ArrowLeft', {}, screen.getByRole('slider'))
  press('Enter', {}, screen.getByRole('button'))
  press('0', { ctrlKey: true })
  expect(did).not.toHaveBeenCalled()
  press('Backspace', {}, screen.getByRole('button'))
  expect(did.mock.calls).toEqual([['setVerdict', marker, 'pass']])
})
