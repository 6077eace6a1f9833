import { applyEdit, clipsOfPad, createSource } from '@heliaster/core/kit'
import type { AudioHash, Kit, KitEdit, Source } from '@heliaster/core/kit'
import { cellsOf } from '@heliaster/core/place'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad, audio, info } from '../../../../testing/a-kit'
import { DropOnCells } from './DropOnCells'

interface Done {
  readonly type: 'failed' | 'sound'
  readonly name: string
  readonly reason?: string
  readonly sound?: Source
}
let mockEdit: (edits: KitEdit[]) => void
let mockDone: Done[]
const mockNotify = jest.fn()
jest.mock('../../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('../../../../audio/import/import', () => ({
  importFiles: (_files: unknown, progress: (state: object) => void) => {
    progress({ done: [], state: 'running' })
    progress({ done: mockDone, state: 'finished' })
  },
  soundsOf: (done: { sound?: object }[]) => done.flatMap(({ sound }) => (sound ? [sound] : [])),
}))
jest.mock('../../../place', () => ({ ...jest.requireActual<object>('../../../place/place-files') }))

let kit: Kit
const many = jest.fn()
const put = jest.fn()
const sound = (letter: string, name: string): Done => ({
  type: 'sound',
  name: `${name}.wav`,
  sound: createSource(makeId, letter.repeat(64) as AudioHash, { ...info, name: `${name}.wav` }, name),
})

function Shown({ of }: { readonly of: Kit }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  const pad = doc.pads[0]!
  const turns = pad.bands.flatMap((band) => band.turns)
  return (
    <DropOnCells kit={doc} pad={pad} cells={cellsOf(pad)!} onMany={many} onShown={put}>
      {turns.map(({ id }, i) => (
        <span key={id} data-turn={id} data-testid={`cell ${i}`} />
      ))}
      <span data-testid="beside" />
    </DropOnCells>
  )
}
async function dropOn(where: string, ...done: Done[]) {
  mockDone = done
  const target = screen.getByTestId(where)
  document.elementFromPoint = () => target
  const files = done.map(({ name }) => new File(['x'], name))
  const data = { files, items: files.map((file) => ({ kind: 'file', type: file.type, getAsFile: () => file })), types: ['Files'] }
  fireEvent.drop(target, { dataTransfer: data })
}
const hashes = () => clipsOfPad(kit.pads[0]!).map((clip) => clip.audio[0])
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => jest.clearAllMocks())

test('a file on an empty cell is its clip, and names a pad that has no other', async () => {
  const pad = aPad(1)
  const empty = { ...pad, own: {}, bands: pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: {} })) })) }
  render(<Shown of={aKitOf(empty)} />)
  await dropOn('cell 0', sound('c', 'Rope end'))
  await waitFor(() => expect(hashes()).toEqual(['c']))
  expect(kit.pads[0]!.own.name).toBe('Rope end')
  expect(put).toHaveBeenCalledWith(expect.objectContaining({ name: 'Rope end' }), kit.pads[0]!.bands[0]!.turns[0]!.id)
  expect(screen.queryByText('There is a clip already')).toBeNull()
}) // prettier-ignore

test('on a cell with a clip it is asked, and each answer does what it says', async () => {
  const { unmount } = render(<Shown of={aKitOf(aPad(2))} />)
  await dropOn('cell 1', sound('c', 'Rope end'))
  await waitFor(() => expect(screen.getByText('There is a clip already')).toBeTruthy())
  expect(hashes()).toEqual(['b', 'b'])
  press('Put it in the place of the other')
  expect(hashes()).toEqual(['b', 'c'])
  expect(kit.pads[0]!.own.name).toBe('Oar') // it has other clips, so its name stays
  expect(screen.queryByText('There is a clip already')).toBeNull()
  await dropOn('cell 0', sound('d', 'Rope end'))
  await waitFor(() => expect(screen.getByText('There is a clip already')).toBeTruthy())
  press('Add it as one more turn of the band')
  expect(hashes()).toEqual(['b', 'c', 'd'])
  unmount()
  render(<Shown of={aKitOf(aPad(2))} />)
  await dropOn('cell 0', sound('e', 'Rope end'))
  await waitFor(() => expect(screen.getByText('There is a clip already')).toBeTruthy())
  press('Sound it together with all of the pad')
  expect(kit.pads[0]!.rays.map(({ name, source }) => [name, source.kind])).toEqual([expect.anything(), ['Rope end', 'clips']])
  expect(hashes().sort()).toEqual(['b', 'b', 'e'])
})

test('nothing changes where the question is left', async () => {
  render(<Shown of={aKitOf(aPad(1))} />)
  await dropOn('cell 0', sound('c', 'Rope end'))
  await waitFor(() => expect(screen.getByText('There is a clip already')).toBeTruthy())
  press('Close')
  expect([hashes(), kit.pads[0]!.rays.length]).toEqual([['b'], 1])
})

test('several files, and one beside the cells, are placed; what could not be read is told by name', async () => {
  render(<Shown of={aKitOf(aPad(1))} />)
  await dropOn('cell 0', sound('c', 'One'), sound('d', 'Two'), { type: 'failed', name: 'three.wav', reason: 'It is cut off.' })
  await waitFor(() => expect(many).toHaveBeenCalledTimes(1))
  expect((many.mock.lastCall![0] as Source[]).map(({ name }) => name)).toEqual(['One', 'Two'])
  expect(mockNotify.mock.lastCall![0]).toBe('three.wav: It is cut off.')
  await dropOn('beside', sound('e', 'Three'))
  await waitFor(() => expect(many).toHaveBeenCalledTimes(2))
  expect(hashes()).toEqual([audio[0]])
})
