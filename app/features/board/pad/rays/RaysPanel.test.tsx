import { applyEdit, createRay, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad } from '../../../../testing/a-kit'
import { RaysPanel } from './RaysPanel'

let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn()
const mockSolo = jest.fn()
let mockAdded: () => Promise<number>
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../kit-view/use-kit', () => ({
  padGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
}))
jest.mock('../../../../audio/engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    soloed: createStore(() => ({ pads: [], rays: [], bands: [], turns: [] })),
    raysLevel: () => new Float64Array(32),
    hearRay: (...given: unknown[]) => mockHear(...given) as unknown,
    toggleSolo: (...given: unknown[]) => mockSolo(...given) as unknown,
  }
})
jest.mock('./added-by-rays', () => ({ addedByRays: () => mockAdded() }))
jest.mock('./LineUpPanel', () => ({ LineUpPanel: () => null }))
jest.mock('./RayPanel', () => ({ RayPanel: ({ ray }: { ray: { name: string } }) => `all of ${ray.name}` }))

let kit: Kit
const twoRays = (pad: Pad): Pad => ({ ...pad, rays: [{ ...pad.rays[0], name: 'Near' }, createRay(makeId, 'Far')] })

function Shown({ of }: { readonly of: Pad }) {
  const [doc, setDoc] = useState(() => aKitOf(of))
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <RaysPanel kit={doc} pad={doc.pads[0]} />
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const rays = () => kit.pads[0].rays

test('a ray is added with cells of its own, and what belongs to it opens at once', () => {
  render(<Shown of={aPad(2)} />)
  expect(screen.getByText('One ray')).toBeTruthy()
  press('Add a ray')
  expect(rays().map(({ name }) => name)).toEqual([kit.pads[0].rays[0].name, 'Ray 2'])
  expect(rays()[1].source).toEqual({ kind: 'clips', bands: [] })
  expect(screen.getByText('all of Ray 2')).toBeTruthy()
  expect(screen.getByText('2 rays sound together')).toBeTruthy()
})

test('each ray is heard alone, muted, sounds alone and has a level', () => {
  render(<Shown of={twoRays(aPad(1))} />)
  press('Hear Far alone')
  expect(mockHear).toHaveBeenCalledWith(kit.pads[0], rays()[1].id)
  press('Mute Far')
  expect(rays().map(({ mute }) => mute)).toEqual([false, true])
  press('Far is muted')
  expect(rays()[1].mute).toBe(false)
  press('Only Near')
  expect(mockSolo).toHaveBeenCalledWith('rays', rays()[0].id)
  fireEvent.keyDown(screen.getAllByRole('slider', { name: 'Level' })[1], { key: 'ArrowLeft' })
  expect(valueOf(rays()[1], 'gainDb')).toBeCloseTo(-0.1)
})

test('of two rays one control goes from one to the other, and their powers add up to the same', () => {
  render(<Shown of={twoRays(aPad(1))} />)
  const blend = screen.getByRole('slider', { name: 'Blend Near to Far' })
  for (const key of ['Home', 'ArrowRight', 'PageUp', 'End']) {
    fireEvent.keyDown(blend, { key })
    const powers = rays().map((ray) => 10 ** (valueOf(ray, 'gainDb') / 10))
    expect(powers[0] + powers[1]).toBeCloseTo(2, 1)
  }
  expect(valueOf(rays()[0], 'gainDb')).toBe(-60)
})

test('more rays are louder: the pad gives back what they add, or says why that cannot be told', async () => {
  render(<Shown of={twoRays(aPad(1))} />)
  mockAdded = async () => 3.21
  await act(async () => press('Keep it as loud as Near alone'))
  expect(kit.pads[0].own.values).toMatchObject({ gainDb: -3.2 })
  expect(screen.getByRole('status').textContent).toContain('3.2 dB louder than Near alone')
  mockAdded = () => Promise.reject(new Error('Its audio is not here yet.'))
  await act(async () => press('Keep it as loud as Near alone'))
  expect(screen.getByRole('status').textContent).toBe('Its audio is not here yet.')
})
