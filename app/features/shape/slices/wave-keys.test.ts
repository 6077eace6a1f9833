/** @jest-environment node */
import type { SliceSpan } from '@heliaster/core/slices'

import { keysOfWave } from './wave-keys'

const span: SliceSpan = { first: 2, last: 4 }

/** What a key did on a wave of eight slices, and whether the page was kept from it. */
function press(key: string, held: Partial<Record<'shiftKey' | 'altKey' | 'ctrlKey' | 'metaKey', boolean>> = {}, of: SliceSpan = span) {
  const did: unknown[] = []
  let isKept = false
  keysOfWave({
    span: of,
    count: 8,
    onChoose: (to) => did.push(to),
    onKey: (name) => did.push(name),
    onStep: (steps) => did.push(steps),
    onHear: () => did.push('hear'),
  })({ key, shiftKey: false, altKey: false, ctrlKey: false, metaKey: false, ...held, preventDefault: () => (isKept = true), stopPropagation: () => undefined })
  return { did, isKept }
} // prettier-ignore

test('arrows choose the next slice, take it in with shift, and end at the ends', () => {
  expect(press('ArrowRight').did).toEqual([{ first: 5, last: 5 }])
  expect(press('ArrowLeft').did).toEqual([{ first: 3, last: 3 }])
  expect(press('ArrowRight', { shiftKey: true }).did).toEqual([{ first: 2, last: 5 }])
  expect(press('ArrowRight', {}, { first: 7, last: 7 }).did).toEqual([{ first: 7, last: 7 }])
  expect(press('ArrowLeft', {}, { first: 0, last: 0 }).did).toEqual([{ first: 0, last: 0 }])
})

test('alt moves the stretch, alt and shift make it longer or shorter', () => {
  expect(press('ArrowLeft', { altKey: true }).did).toEqual(['earlier'])
  expect(press('ArrowRight', { altKey: true }).did).toEqual(['later'])
  expect(press('ArrowLeft', { altKey: true, shiftKey: true }).did).toEqual(['shorter'])
  expect(press('ArrowRight', { altKey: true, shiftKey: true }).did).toEqual(['longer'])
})

test('what is drawn is stepped, cleared, cut, copied, laid down and heard', () => {
  expect(['ArrowUp', 'ArrowDown', 'PageUp', 'PageDown'].flatMap((key) => press(key).did)).toEqual([1, -1, 6, -6])
  expect(['Delete', 'Backspace', 'Enter'].flatMap((key) => press(key).did)).toEqual(['clear', 'clear', 'hear'])
  for (const held of [{ ctrlKey: true }, { metaKey: true }])
    expect(['x', 'c', 'v'].flatMap((key) => press(key, held).did)).toEqual(['cut', 'copy', 'paste'])
})

test('keys of others are left to them', () => {
  for (const pressed of [press('x'), press('Tab'), press('ArrowUp', { ctrlKey: true }), press('Enter', { altKey: true }), press('z', { ctrlKey: true })])
    expect(pressed).toEqual({ did: [], isKept: false })
  expect(press('ArrowUp').isKept).toBe(true)
}) // prettier-ignore
