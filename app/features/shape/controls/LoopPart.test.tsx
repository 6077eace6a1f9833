import { applyEdit } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { session } from '../../../kit-view/session'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { targetOf } from '../whom/target'
import { LoopPart } from './LoopPart'

jest.mock('../../../audio/files/audio-files', () => ({ decodedAudio: () => new Promise(() => undefined) }))
jest.mock('../../../kit-view/loop/hear-seam', () => ({ hearSeam: jest.fn() }))

let kit: Kit

/** As the bench does it: each change is heard, and the next strike takes another turn. */
function Shown() {
  const [doc, set] = useState(kit)
  kit = doc
  const pad = doc.pads[0]!
  const edit = (edits: KitEdit[]) => set((now) => edits.reduce(applyEdit, now))
  return <LoopPart kit={doc} pad={pad} target={targetOf(doc, pad, { kind: 'pad' })} onEdits={edit} onDone={() => sounds(2)} />
}
const sounds = (turn: number) => session.setState({ lit: { [kit.pads[0]!.id]: { band: 0, turn, at: 1, velocity: 100 } } })
const loops = () => kit.pads[0]!.bands[0]!.turns.map(({ clips }) => (Object.values(clips)[0] as Clip).loop?.kind)

test('the clip heard last is meant until it is changed; then it stays, whatever sounds next, until one asks for that', () => {
  kit = aKitOf(aPad(3))
  sounds(1)
  render(<Shown />)
  expect(screen.getByText('The clip of band 1, turn 2')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Goes round' }))
  fireEvent.click(screen.getByRole('radio', { name: 'There and back' }))
  expect(loops()).toEqual([undefined, 'backAndForth', undefined])
  expect(screen.getByText('The clip of band 1, turn 2')).toBeTruthy()
  act(() => fireEvent.click(screen.getByRole('button', { name: 'The one heard last' })))
  expect(screen.getByText('The clip of band 1, turn 3')).toBeTruthy()
})
