import { createSource } from '@heliaster/core/kit'
import type { AudioHash, KitId } from '@heliaster/core/kit'

import { gathered, gatherFor, noteGathered, soundsOfKit } from './gathered'
import { makeId } from './make-id'

const sound = (letter: string) =>
  createSource(makeId, letter.repeat(64) as AudioHash, { name: 'x.wav', sampleRateHz: 48000, frames: 1, channels: 1 }, letter)
const [a, b, c] = ['a', 'b', 'c'].map(sound) as [ReturnType<typeof sound>, ReturnType<typeof sound>, ReturnType<typeof sound>]

beforeEach(() => gathered.setState({ ofKit: {} }))

test('what comes in while a kit is open is its own; what no kit is open for is nobody’s', () => {
  gatherFor(undefined)
  noteGathered([a.id])
  expect(gathered.getState().ofKit).toEqual({})
  gatherFor('low' as KitId)
  noteGathered([a.id])
  noteGathered([])
  gatherFor('high' as KitId)
  noteGathered([b.id])
  expect(gathered.getState().ofKit).toEqual({ low: [a.id], high: [b.id] })
  expect(localStorage.getItem('heliaster-gathered')).toContain(a.id)
})

test('a kit’s sounds are those that its pads use and those that came in for it', () => {
  expect(soundsOfKit([a, b, c], [b.audio], [c.id])).toEqual([b, c])
  expect(soundsOfKit([a, b, c], [], [])).toEqual([])
})

test('the kits that were gathered for last are remembered, and of each the last sounds', () => {
  for (let i = 0; i < 70; i++) {
    gatherFor(`kit-${i}` as KitId)
    noteGathered(Array.from({ length: i === 69 ? 2500 : 1 }, (_, k) => `${i}-${k}` as never))
  }
  const { ofKit } = gathered.getState()
  expect([Object.keys(ofKit).length, 'kit-9' in ofKit, 'kit-10' in ofKit, ofKit['kit-69']!.length]).toEqual([60, false, true, 2000])
})
