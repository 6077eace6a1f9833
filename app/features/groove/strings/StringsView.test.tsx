import { beadsOf, stringOf } from '@heliaster/core/groove'
import { applyEdit } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { aGroovyKit } from '../../../testing/a-groove'
import { useBeadHands } from '../hands/use-bead-hands'
import type { BeadHands } from '../hands/use-bead-hands'
import { beadX, beadY, layStrings, rowTop, stepX } from './strings-layout'
import { StringsView } from './StringsView'

let mockEdit: (edits: KitEdit[], isDrag?: boolean) => void
const mockHear = jest.fn((..._given: unknown[]) => undefined)
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits, true), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name,
}))
jest.mock('../../../audio/engine/sound', () => ({ hearVersion: (...given: unknown[]) => mockHear(...given) }))
jest.mock('../../../audio/playing/groove-take', () => ({ takeState: { getState: () => ({ isOn: false }) }, endTake: () => undefined }))
jest.mock('../../../audio/playing/groove-player', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { grooveState: createStore(() => ({ playing: false })), grooveBeat: () => undefined }
})
jest.mock('../../../ui/layout/use-is-wide', () => ({ useIsWide: () => true }))
jest.mock('../../../ui/layout/notices', () => ({ notify: () => undefined }))

const PX = 80
let hands: BeadHands
let edits = 0

function Shown() {
  const [kit, setKit] = useState<Kit>(() => aGroovyKit())
  mockEdit = (list) => {
    edits++
    setKit((now) => list.reduce(applyEdit, now))
  }
  hands = useBeadHands(kit, kit.grooves[0])
  return <StringsView hands={hands} pxPerBeat={PX} onWidth={() => undefined} onString={mockString} />
}
const mockString = jest.fn()

beforeEach(() => {
  edits = 0
  Element.prototype.setPointerCapture = () => undefined
  HTMLCanvasElement.prototype.getContext = () => null
  for (const side of ['clientWidth', 'clientHeight']) Object.defineProperty(HTMLElement.prototype, side, { configurable: true, value: 400 })
  globalThis.ResizeObserver ??= class {
    observe = () => undefined
    unobserve = () => undefined
    disconnect = () => undefined
  }
  mockHear.mockClear()
  render(<Shown />)
})

const strings = () => screen.getByRole('group', { name: /^Beads/ })
const layout = () => layStrings(hands.groove, hands.padIds, PX)
const pointer = (type: string, x: number, y: number, { shiftKey, pointerType = 'mouse' }: Partial<PointerEvent> = {}) =>
  act(() => void strings().dispatchEvent(Object.assign(new MouseEvent(type, { bubbles: true, clientX: x, clientY: y, shiftKey }), { pointerId: 1, pointerType }))) // prettier-ignore
const press = (key: string, more: object = {}) => fireEvent.keyDown(strings(), { key, ...more })
const stepsOn = (row: number) => stringOf(hands.groove, hands.padIds[row]).beads.map(({ step }) => step)
const beadAt = (row: number, step: number) => {
  const string = stringOf(hands.groove, hands.padIds[row])
  const bead = string.beads.find((one) => one.step === step)!
  return [beadX(layout(), string, bead), beadY(row, bead.velocity)] as const
}
const drag = (from: readonly [number, number], to: readonly [number, number], more: Partial<PointerEvent> = {}) => {
  pointer('pointerdown', ...from, more)
  pointer('pointermove', (from[0] + to[0]) / 2, (from[1] + to[1]) / 2, more)
  pointer('pointermove', ...to, more)
  pointer('pointerup', ...to, more)
}

test('a tap on an empty step makes a bead and sounds it, a tap on a bead chooses it and takes nothing away', () => {
  const [x, y] = [stepX(layout(), {}, 6), rowTop(2) + 20]
  drag([x, y], [x, y])
  expect(stepsOn(2)).toEqual([6])
  expect([...hands.chosen]).toEqual(['pad-3.6'])
  expect(mockHear).toHaveBeenCalledTimes(1)
  drag(beadAt(0, 4), beadAt(0, 4))
  expect([...hands.chosen]).toEqual(['pad-1.4'])
  expect(stepsOn(0)).toEqual([0, 4, 8, 12])
})

test('a bead is dragged up for its velocity, along for its step, and off its string to be removed', () => {
  const [x, y] = beadAt(1, 4)
  drag([x, y], [x, y - 15])
  expect(stringOf(hands.groove, hands.padIds[1]).beads[0].velocity).toBe(84)
  const now = beadAt(1, 4)
  drag(now, [now[0] + 2 * (PX / 4), now[1]])
  expect(stepsOn(1)).toEqual([6, 12])
  const there = beadAt(1, 6)
  drag(there, [there[0], there[1] + 120])
  expect(stepsOn(1)).toEqual([12])
  expect(hands.chosen.size).toBe(0)
})

test('a mouse marks over empty ground; what is marked moves as one, and a tap on one of them means that one', () => {
  drag([stepX(layout(), {}, 3), rowTop(0) + 2], [stepX(layout(), {}, 9), rowTop(1) + 30])
  expect([...hands.chosen].sort()).toEqual(['pad-1.4', 'pad-1.8', 'pad-2.4'])
  const held = beadAt(0, 8)
  drag(held, [held[0] + PX / 4, held[1]])
  expect([stepsOn(0), stepsOn(1)]).toEqual([[0, 5, 9, 12], [5, 12]]) // prettier-ignore
  drag(beadAt(0, 5), beadAt(0, 5))
  expect([...hands.chosen]).toEqual(['pad-1.4'])
  drag(beadAt(0, 12), beadAt(0, 12), { shiftKey: true })
  expect([...hands.chosen].sort()).toEqual(['pad-1.12', 'pad-1.4'])
})

test('a finger that moves over empty ground scrolls, and marks after it has rested', () => {
  jest.useFakeTimers()
  const touch = { pointerType: 'touch' }
  drag([stepX(layout(), {}, 3), rowTop(2) + 2], [stepX(layout(), {}, 9), rowTop(2) + 30], touch)
  expect([hands.chosen.size, stepsOn(2)]).toEqual([0, []])
  const from = [stepX(layout(), {}, 3), rowTop(0) + 2] as const
  pointer('pointerdown', ...from, touch)
  act(() => jest.advanceTimersByTime(400))
  pointer('pointermove', stepX(layout(), {}, 5), rowTop(0) + 30, touch)
  pointer('pointerup', stepX(layout(), {}, 5), rowTop(0) + 30, touch)
  expect([...hands.chosen]).toEqual(['pad-1.4'])
  jest.useRealTimers()
})

test('by keys: steps are gone through and told, beads made, heard, chosen, moved, made louder and removed', () => {
  press('Enter') // shows where keys stand
  expect(screen.getByRole('checkbox', { name: / step 1/ })).toBeTruthy()
  press('ArrowRight')
  press('ArrowDown')
  expect(screen.getByRole('checkbox', { name: 'Hull, step 2' }).getAttribute('aria-checked')).toBe('false')
  press('Enter')
  expect(screen.getByRole('checkbox', { name: 'Hull, step 2, velocity 100' }).getAttribute('aria-checked')).toBe('true')
  press('ArrowUp', { altKey: true })
  expect(screen.getByRole('checkbox', { name: 'Hull, step 2, velocity 105' })).toBeTruthy()
  press('ArrowRight', { altKey: true })
  expect([stepsOn(1), hands.cursor?.step]).toEqual([[2, 4, 12], 2])
  press('ArrowDown', { altKey: true, shiftKey: true })
  expect([stepsOn(1), stepsOn(2)]).toEqual([[4, 12], [2]]) // prettier-ignore
  press('c', { ctrlKey: true })
  press('End')
  press('v', { ctrlKey: true })
  expect(stepsOn(2)).toEqual([2, 15])
  press('Delete')
  expect(stepsOn(2)).toEqual([2])
  press('a', { ctrlKey: true })
  expect(hands.chosen.size).toBe(beadsOf(hands.groove).length)
  expect(press('p', { ctrlKey: true })).toBe(true) // what is not ours is the browser's
  press('Escape')
  expect(hands.chosen.size).toBe(0)
  expect(press('c', { ctrlKey: true })).toBe(true) // nothing is chosen that could be copied
  expect(press('ArrowLeft')).toBe(false)
  expect(edits).toBe(6)
})

test('a name leads to what can be done with its whole string', () => {
  fireEvent.click(screen.getByRole('button', { name: 'Oar: its string' }))
  expect(mockString).toHaveBeenCalledWith('pad-1')
})
