import { createGroove } from '@heliaster/core/groove'
import type { Bead, Groove, GrooveString, Kit } from '@heliaster/core/kit'
import { act, render, screen } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { padsNamed } from '../../testing/a-groove'
import { aKitOf } from '../../testing/a-kit'
import { GrooveView } from './GrooveView'

let mockBeat: number | undefined
let mockDraw: (() => boolean) | undefined
const mockEnd = jest.fn()
jest.mock('../../audio/playing/groove-player', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { chosenGroove: (kit: Kit) => kit.grooves[0], grooveBeat: () => mockBeat, grooveState: createStore(() => ({})) }
})
jest.mock('../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name }))
jest.mock('../../ui/drawing/while-moving', () => ({
  whileMoving: (draw: () => boolean) => {
    mockDraw = draw
    return mockEnd
  },
}))

const pads = padsNamed(['Oar', 'kick'], ['Hull', 'snare'])
const string = (place: number, steps: number[], more: Partial<GrooveString> = {}): GrooveString =>
  ({
    padId: pads[place]!.id,
    beads: steps.map((step, i) => ({ id: `b${place}${i}`, step, velocity: 127 }) as Bead),
    ...more,
  }) as GrooveString
const kitOf = (strings: GrooveString[], more: Partial<Groove> = {}): Kit => ({
  ...aKitOf(...pads),
  grooves: [{ ...createGroove(makeId, 'Ebb'), strings, ...more }],
})
const shares = () => [...document.querySelectorAll('circle')].map((circle) => Number.parseFloat(circle.getAttribute('cx')!) / 100)
const hand = () => document.querySelector<HTMLElement>('[style*="opacity"]')! // prettier-ignore

beforeEach(() => {
  jest.clearAllMocks()
  mockBeat = mockDraw = undefined
})

test('each pad that strikes has a line, and each bead stands where it sounds', () => {
  render(<GrooveView kit={kitOf([string(0, [0, 4, 8, 12]), string(1, [])])} />)
  expect(screen.getByRole('img', { name: 'The groove Ebb' })).toBeTruthy()
  expect([shares(), screen.queryByText('Oar') !== null, screen.queryByText('Hull')]).toEqual([[0, 0.25, 0.5, 0.75], true, null])
})

test('a string that is shorter comes again, and what lies behind its end is not there; swing moves every second step', () => {
  const first = render(<GrooveView kit={kitOf([string(0, [1, 9], { lengthSteps: 6 })])} />)
  expect(shares()).toEqual([1, 7, 13].map((step) => expect.closeTo(step / 16, 6) as number))
  first.unmount()
  render(<GrooveView kit={kitOf([string(0, [1, 2])], { swing: 0.75 })} />)
  expect(shares()).toEqual([expect.closeTo(1.5 / 16, 6), 2 / 16])
})

test('a strike that is early on the first step is seen where it sounds, at the end', () => {
  const early = string(0, [0])
  render(<GrooveView kit={kitOf([{ ...early, beads: early.beads.map((bead) => ({ ...bead, offset: -0.5 })) }])} />)
  expect(shares()).toEqual([expect.closeTo(15.5 / 16, 6)])
})

test('where the groove is moves over it while it plays, round and round, and is not seen while it does not', () => {
  const { unmount } = render(<GrooveView kit={kitOf([string(0, [0])])} />)
  const at = (beat: number | undefined) => {
    mockBeat = beat
    let moves = false
    act(() => void (moves = mockDraw!()))
    return [moves, hand().style.opacity, hand().style.left]
  }
  expect([at(1), at(5), at(undefined)]).toEqual([[true, '1', '25%'], [true, '1', '25%'], [false, '0', '0%']]) // prettier-ignore
  unmount()
  expect(mockEnd).toHaveBeenCalledTimes(1)
})

test('without a groove, or without a bead on any string, there is nothing to see', () => {
  expect(render(<GrooveView kit={{ ...aKitOf(...pads), grooves: [] }} />).container.textContent).toBe('')
  expect(render(<GrooveView kit={kitOf([string(0, [])])} />).container.textContent).toBe('')
})
