import { clipOfSource, clipsOfPad, createSource, padSettings } from '@heliaster/core/kit'
import type { AudioHash, Kit, KitEdit, Source } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../documents/make-id'
import { after, aKitOf, aPad, info } from '../../testing/a-kit'
import { sources } from '../../documents'
import { nameEdits } from './place-files'
import { PutOnPad } from './PutOnPad'

let mockEdit: (edits: KitEdit[]) => void
const mockNotify = jest.fn()
jest.mock('../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../kit-view/PadGlyph', () => ({ PadGlyph: () => null }))
jest.mock('../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))
jest.mock('./use-loudness', () => ({ useLoudness: () => new Map() }))

const source: Source = createSource(makeId, 'c'.repeat(64) as AudioHash, info, 'Bollard ring')
const pads = [aPad(2), { ...aPad(0), bands: [] }].map((pad, i) => ({ ...pad, own: { name: ['Oar', 'Spare'][i]! } }))
let kit: Kit
const put = jest.fn()

function Shown() {
  const [doc, setDoc] = useState(() => aKitOf(...pads))
  kit = doc
  mockEdit = (edits) => setDoc((now) => (kit = after(now, edits)))
  return <PutOnPad kit={doc} source={source} onPut={put} />
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const filesOn = (at: number) => clipsOfPad(kit.pads[at]!).map(({ audio }) => audio[0])

beforeEach(() => {
  jest.clearAllMocks()
  render(<Shown />)
})

test('one tap on a pad puts the sound in the place of what is there, or into what is empty, and says so', () => {
  press('Put it on Oar')
  expect([filesOn(0), padSettings(kit, kit.pads[0]!).name]).toEqual([['c'], 'Oar'])
  expect(mockNotify).toHaveBeenCalledWith('“Bollard ring” is on Oar.')
  press('Put it on Spare')
  expect(filesOn(1)).toEqual(['c'])
  expect(put).toHaveBeenCalledTimes(2)
})

test('on a pad with a sound it may become a further turn or ray; what is there stays as it is', () => {
  const before = filesOn(0)
  choose('As a further turn')
  press('Put it on Oar')
  expect([filesOn(0), kit.pads[0]!.bands[0]!.turns.length]).toEqual([[...before, 'c'], 3])
  choose('As a further ray')
  press('Put it on Oar')
  expect([kit.pads[0]!.rays.length, kit.pads[0]!.bands[0]!.turns.length]).toEqual([2, 3])
  press('Put it on Spare') // nothing is there that it could join
  expect(filesOn(1)).toEqual(['c'])
})

test('a new pad is called as the sound is', () => {
  press('Put it on New pad')
  expect([kit.pads.length, kit.pads[2]!.own.name, filesOn(2)]).toEqual([3, 'Bollard ring', ['c']])
})

test('a pad that is called by its file, or by its named hit, is called by the next sound; a typed name stays', () => {
  const [first, second] = ['a', 'b'].map((letter) => createSource(makeId, letter.repeat(64) as AudioHash, info, `plank ${letter}`))
  const hit = { id: 'hand-1-x' as never, frame: 1, origin: 'hand' as const, pinned: true, removed: false, name: 'Oar knock' }
  const walk = { ...createSource(makeId, 'd'.repeat(64) as AudioHash, info, 'Walk'), markers: [hit] }
  sources.store.setState({ entries: Object.fromEntries([first!, second!, walk].map((doc) => [doc.id, { doc }])) as never })
  const named = (name: string, clip: object) => {
    const pad = aPad(1)
    const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: { [pad.rays[0]!.id]: { ...clipOfSource(first!), ...clip } } })) })) // prettier-ignore
    return nameEdits({ ...pad, own: { name }, bands }, 'Bollard ring').length
  }
  expect(named('plank a', {})).toBe(1)
  expect(named('Oar knock', { fromHit: { sourceId: walk.id, markerId: hit.id } })).toBe(1)
  expect([named('plank b', {}), named('Oar knock', {}), named('My plank', {})]).toEqual([0, 0, 0])
})
