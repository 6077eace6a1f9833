import { createSource } from '@heliaster/core/kit'
import type { HitSettings } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import type { CutHit } from '../bench/use-source-cut'
import { RepairSheet } from './RepairSheet'

const mockWrite = jest.fn()
const mockNotify = jest.fn()
jest.mock('./write-out', () => ({ writeOut: (...given: unknown[]) => mockWrite(...given) as unknown }))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) as unknown }))

const source = createSource(makeId, audio, info, 'Walk')
const done = jest.fn()
const heard = jest.fn()
let now: readonly CutHit[]

/** The bench under the sheet: what is slid is drawn at once. */
function Bench({ hits, chosen }: { readonly hits: readonly CutHit[]; readonly chosen?: number }) {
  const [items, setItems] = useState(hits)
  now = items
  const slide = (changes: readonly { marker: { id: string }; clip: HitSettings }[]) =>
    setItems((before) =>
      before.map((item) => {
        const change = changes.find(({ marker }) => marker.id === item.marker.id)
        return change ? { ...item, marker: { ...item.marker, clip: change.clip } } : item
      }),
    )
  const one = chosen === undefined ? undefined : items[chosen]
  return <RepairSheet source={source} chosen={one} listed={items} onSlide={slide} onDone={done} onHear={heard} onClose={() => undefined} />
}

const clips = () => now.map(({ marker }) => marker.clip)
const key = (name: string, pressed: string) => fireEvent.keyDown(screen.getByRole('slider', { name }), { key: pressed })
const check = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name: new RegExp(name) }))
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const levels = [-3, -9, -15]
const loud = () => hitsOf(3, (i) => ({ loudnessDb: levels[i], peakDb: levels[i] + 2 }))

beforeEach(() => jest.clearAllMocks())

test('of one hit: level, edges and tone are its clip’s settings; each change ends and is heard as it is now', () => {
  render(<Bench hits={loud()} chosen={1} />)
  key('Level', 'PageDown')
  check('Low cut')
  check('High shelf')
  fireEvent.click(screen.getByRole('switch', { name: 'Reverse' }))
  expect(clips()[1]).toEqual({ gainDb: -1, reverse: true, repairs: { lowCutHz: 60, shelfDb: -6 } })
  expect([clips()[0], clips()[2]]).toEqual([undefined, undefined])
  expect(done).toHaveBeenCalledTimes(4)
  expect((heard.mock.lastCall as [CutHit])[0].marker.clip).toEqual(clips()[1])
})

test('what is put back to nothing leaves no trace, and all repairs are undone in one step', () => {
  render(<Bench hits={loud()} chosen={0} />)
  expect(screen.getByRole('button', { name: 'Undo all repairs of this hit' }).getAttribute('aria-disabled')).toBe('true')
  check('Low cut')
  check('Low cut')
  expect(clips()[0]).toEqual({})
  fireEvent.click(screen.getByRole('switch', { name: 'Remove DC' }))
  expect(clips()[0]).toEqual({ repairs: { removeDc: true } })
  done.mockClear()
  press('Undo all repairs of this hit')
  expect(clips()[0]).toEqual({})
  expect(done).toHaveBeenCalledTimes(1)
})

test('several are evened out as far as asked: not at all, and wholly', () => {
  render(<Bench hits={loud()} />)
  key('Even out (0: as struck, 100: all alike)', 'End')
  const reached = clips().map((clip, i) => levels[i] + clip!.gainDb!)
  for (const level of reached) expect(level).toBeCloseTo(reached[0], 1)
  key('Even out (0: as struck, 100: all alike)', 'Home')
  for (const clip of clips()) expect(clip?.gainDb ?? 0).toBeCloseTo(0, 6)
})

test('the loudest is brought to the level that is typed, and the others keep their distance', () => {
  render(<Bench hits={loud()} />)
  const field = screen.getByRole('textbox', { name: 'Loudness to reach' })
  fireEvent.change(field, { target: { value: '-10' } })
  fireEvent.blur(field)
  press('Bring the loudest there, and all with it')
  expect(clips().map((clip) => clip?.gainDb)).toEqual([-7, -7, -7])
  fireEvent.click(screen.getByRole('radio', { name: 'Peak' }))
  press('Bring the loudest there, and all with it') // to -1 dB: it stands at -3 + 2 - 7
  expect(clips().map((clip) => clip?.gainDb)).toEqual([0, 0, 0])
})

test('hits are written out once, with what is said of those too loud for a file', async () => {
  let finish = (_words: string) => undefined as void
  mockWrite.mockReturnValue(new Promise<string>((resolve) => (finish = resolve)))
  render(<Bench hits={loud()} />)
  key('Even out (0: as struck, 100: all alike)', 'End')
  press('Write these 3 out as new files')
  press('Write these 3 out as new files')
  expect(mockWrite).toHaveBeenCalledTimes(1)
  expect(mockWrite).toHaveBeenCalledWith(source, now, 'together')
  await act(async () => finish('3 files are written.'))
  expect(mockNotify).toHaveBeenCalledWith('3 files are written.')
})

test('tone is a point for each repair over the spectrum: begun, moved by keys, typed, taken away', () => {
  render(<Bench hits={loud()} chosen={0} />)
  expect(screen.queryByRole('slider', { name: 'Bell' })).toBeNull()
  check('Bell')
  check('Notch')
  expect(clips()[0]).toEqual({ repairs: { bellHz: 800, bellDb: -6, notchHz: 300 } })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Bell' }), { key: 'ArrowUp', shiftKey: true })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Notch' }), { key: 'ArrowRight', shiftKey: true })
  expect(clips()[0]!.repairs).toMatchObject({ bellDb: -1, notchHz: expect.closeTo(300 * 2 ** (1000 / 1200), 0) as number })
  fireEvent.focus(screen.getByRole('slider', { name: 'Bell' }))
  const field = screen.getByRole('textbox', { name: 'Bell, octaves' })
  fireEvent.change(field, { target: { value: '9' } })
  fireEvent.blur(field)
  expect(clips()[0]!.repairs!.bellOctaves).toBe(4)
  check('Bell')
  check('Notch')
  expect(clips()[0]).toEqual({})
})
