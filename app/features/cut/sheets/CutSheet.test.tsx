import { createSource } from '@heliaster/core/kit'
import type { CutSettings, Source } from '@heliaster/core/kit'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { CutSheet } from './CutSheet'

jest.mock('../../starts', () => ({ StartChips: () => null, KeepStart: () => null }))

const RATE = 48000
const analysis = {
  audio: { sampleRateHz: RATE, channels: [new Float32Array(RATE)] },
  mono: new Float32Array(RATE),
  curve: { hopFrames: 64, strength: new Float32Array(750) },
  strikes: { hopFrames: 64, strikes: [], line: 0.3 },
} as never
let cut: CutSettings
const close = jest.fn()
const slid = jest.fn()

function Shown({ name = 'Walk', given = {} }: { readonly name?: string; readonly given?: Partial<Source> }) {
  const [source, setSource] = useState(() => createSource(makeId, audio, info, name, given))
  cut = source.cut
  const change = (changes: Partial<CutSettings>) => setSource((now) => ({ ...now, cut: { ...now.cut, ...changes } }))
  return <CutSheet source={source} analysis={analysis} tempoBpm={97} onCut={change} onSlide={change} onSlid={slid} onClose={close} />
}
const choose = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole('radiogroup', { name: group })).getByRole('radio', { name }))
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

test('by strikes: how far apart, whether slow attacks count, whether it is played in time, and where a clip begins', () => {
  render(<Shown />)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes are apart by at least' }), { key: 'Home' })
  expect(cut.minGapSeconds).toBe(0.005)
  expect(slid).toHaveBeenCalledTimes(1)
  fireEvent.click(screen.getByRole('switch', { name: 'Slow attacks too' }))
  choose('A clip begins at', 'Zero, rising')
  fireEvent.click(screen.getByRole('switch', { name: 'Played in time' }))
  expect(cut).toMatchObject({ attack: 'slow', snap: 'up', inTime: true })
  fireEvent.click(screen.getByRole('switch', { name: 'Played in time' }))
  expect(cut.inTime).toBeUndefined()
})

test('quick strikes of who plays in time may come closer, until another distance is chosen', () => {
  render(<Shown />)
  const turn = () => fireEvent.click(screen.getByRole('switch', { name: 'Played in time' }))
  turn()
  expect(cut.minGapSeconds).toBe(0.045)
  turn()
  expect(cut.minGapSeconds).toBe(0.06)
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Strikes are apart by at least' }), { key: 'End' })
  turn()
  expect(cut).toMatchObject({ inTime: true, minGapSeconds: 2 })
})

test('in equal parts: as many as are asked for, halved and doubled, never none and never too many', () => {
  render(<Shown />)
  choose('Cut', 'In equal parts')
  expect(cut.grid).toEqual({ kind: 'parts', count: 8 })
  for (let i = 0; i < 5; i++) press('Half as many')
  expect(cut.grid).toEqual({ kind: 'parts', count: 1 })
  for (let i = 0; i < 12; i++) press('Twice as many')
  expect(cut.grid).toEqual({ kind: 'parts', count: 512 })
})

test('on beats: the tempo that its file or its name says, else the kit’s; typed ones stay within what can be', () => {
  const { unmount } = render(<Shown name="deck loop 120bpm" />)
  choose('Cut', 'On beats')
  expect(cut.grid).toMatchObject({ kind: 'beats', tempoBpm: 120 })
  expect(screen.getByText('Its name says 120 beats a minute.')).toBeTruthy()
  unmount()
  render(<Shown />)
  choose('Cut', 'On beats')
  expect(cut.grid).toMatchObject({ tempoBpm: 97 })
  const tempo = screen.getByRole('textbox', { name: 'Tempo, beats a minute' })
  fireEvent.change(tempo, { target: { value: '9000' } })
  fireEvent.blur(tempo)
  expect(cut.grid).toMatchObject({ tempoBpm: 400 })
  press('Half the tempo')
  choose('One cut each', '1/8')
  expect(cut.grid).toMatchObject({ tempoBpm: 200, beats: 0.5 })
})

test('by markers only: nothing is looked for, and how many there are is said', () => {
  const marker = { id: 'm1' as never, frame: 5, origin: 'file' as const, pinned: true, removed: false }
  render(<Shown given={{ markers: [marker] as never }} />)
  choose('Cut', 'By markers only')
  expect(cut.grid).toEqual({ kind: 'marks' })
  expect(screen.getByText(/^Nothing is looked for: 1 marker came with the file, 0 were set/)).toBeTruthy()
  choose('Cut', 'By strikes')
  expect(cut.grid).toBeUndefined()
})

test('Done and Escape close it', () => {
  render(<Shown />)
  press('Done')
  fireEvent.keyDown(window, { key: 'Escape' })
  expect(close).toHaveBeenCalledTimes(2)
})

test('marks move to the attacks near them, or stay where a grid of parts or beats puts them; one’s own marks and strikes have no such choice', () => {
  render(<Shown />)
  const toggle = () => screen.queryByRole('switch', { name: 'Marks move to the attacks near them' })
  expect(toggle()).toBeNull()
  choose('Cut', 'In equal parts')
  fireEvent.click(toggle()!)
  expect(cut.marksStay).toBe(true)
  fireEvent.click(toggle()!)
  expect(cut.marksStay).toBeUndefined()
  const ways = within(screen.getByRole('radiogroup', { name: 'Cut' })).getAllByRole('radio')
  const has = ways.map((way) => {
    fireEvent.click(way)
    return [cut.grid?.kind ?? 'strikes', toggle() !== null]
  })
  for (const [kind, isThere] of has) expect([kind, isThere]).toEqual([kind, kind === 'parts' || kind === 'beats'])
  expect(has.length).toBeGreaterThan(2)
})
