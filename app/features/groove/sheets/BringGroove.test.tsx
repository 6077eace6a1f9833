import { createGroove, withBead } from '@heliaster/core/groove'
import { applyEdit } from '@heliaster/core/kit'
import type { Groove, Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { BringGroove } from './BringGroove'

let mockEdit: (edits: KitEdit[]) => void
const mockHear = jest.fn((_groove: Groove | undefined) => undefined)
const mockChoose = jest.fn()
let mockOther: Kit
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-other-kits', () => ({
  useOtherKits: () => [{ value: mockOther.id, text: 'High Water' }],
  useKitById: (id: unknown) => (id ? mockOther : undefined),
}))
jest.mock('../../../audio/engine/sound', () => ({ hearGroove: (groove: Groove | undefined) => mockHear(groove) }))
jest.mock('../../../audio/playing/groove-player', () => ({ chooseGroove: (id: unknown) => mockChoose(id), stopGroove: () => undefined }))
jest.mock('../../../ui/layout/notices', () => ({ notify: () => undefined }))

const named = (name: string, family: string) => {
  const pad = aPad(1)
  return { ...pad, id: `pad-${name}` as never, own: { ...pad.own, name, family: family as never } }
}
const [drop, gong] = [named('Drop', 'kick'), named('Gong', 'other')]
const groove = withBead(withBead({ ...createGroove(makeId, 'Ebb') }, drop.id, 0, 90), gong.id, 4, 90)
let kit: Kit

function Shown() {
  const [doc, setDoc] = useState<Kit>(() => aKitOf(named('Hull', 'kick')))
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return <BringGroove kit={doc} onClose={() => undefined} />
}

test('a groove of another kit is heard on the pads here, says what nobody answers, and comes', () => {
  mockOther = { ...aKitOf(drop, gong), id: 'kit-other' as never, grooves: [groove] }
  const { unmount } = render(<Shown />)
  fireEvent.click(screen.getByRole('radio', { name: 'Ebb' }))
  expect(screen.getByText('No pad here answers Gong: what they play is left out.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Hear it on this kit' }))
  expect(mockHear.mock.lastCall![0]!.strings.map(({ padId }) => padId)).toEqual([kit.pads[0]!.id])
  expect(kit.grooves).toEqual([])
  fireEvent.click(screen.getByRole('button', { name: 'Bring it here' }))
  expect(mockHear).toHaveBeenLastCalledWith(undefined)
  expect(kit.grooves.map(({ name }) => name)).toEqual(['Ebb'])
  expect(mockChoose).toHaveBeenCalledWith(kit.grooves[0]!.id)
  unmount()
})

test('a groove that nothing here answers cannot be brought', () => {
  mockOther = { ...aKitOf(gong), id: 'kit-other' as never, grooves: [{ ...groove, strings: groove.strings.slice(1) }] }
  render(<Shown />)
  fireEvent.click(screen.getByRole('radio', { name: 'Ebb' }))
  expect(screen.getByRole('button', { name: 'Bring it here' }).getAttribute('aria-disabled')).toBe('true')
})
