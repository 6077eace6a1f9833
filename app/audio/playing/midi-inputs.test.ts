import { controlNumbers } from '@heliaster/core/engine'
import type { Kit } from '@heliaster/core/kit'
import { createKit, createPad } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { takeMidi } from './midi-inputs'
import type { MidiTarget } from './midi-inputs'

jest.mock('../engine/sound', () => ({ sound: { getState: () => ({}) }, strikePad: jest.fn(), releasePad: jest.fn() }))

const makeId = testIds(3)
const pads = [36, 36, 40].map((note) => createPad(makeId, {}, note))
const kit: Kit = { ...createKit(makeId, 'Inputs'), pads }

function heard(...bytes: number[]) {
  const done: unknown[][] = []
  const note = (name: string) => (...given: unknown[]) => void done.push([name, ...given]) // prettier-ignore
  const target: MidiTarget = {
    strike: note('strike'),
    release: note('release'),
    player: { moveControl: note('move'), press: note('press'), stopAll: note('stopAll') },
  }
  return { words: takeMidi(Uint8Array.from(bytes), kit, target), done }
}

test('notes strike and let go of every pad that answers them, by a key that names channel and note', () => {
  const key = 2000 + 128 * 2 + 36
  expect(heard(0x92, 36, 101)).toEqual({ words: 'note 36, 101 hard', done: [['strike', pads[0].id, 101, 36, key], ['strike', pads[1].id, 101, 36, key]] }) // prettier-ignore
  const letGo = [['release', pads[0].id, key], ['release', pads[1].id, key]] // prettier-ignore
  expect(heard(0x92, 36, 0).done).toEqual(letGo)
  expect(heard(0x82, 36, 64).done).toEqual(letGo)
  expect(heard(0x90, 99, 90)).toEqual({ words: 'note 99, 90 hard', done: [] })
})

test('controllers, bend and pressure move their controls; all notes off stops; what is no message of playing does nothing', () => {
  expect(heard(0xb0, 4, 9).done).toEqual([['move', 4, 9]])
  expect(heard(0xb0, 1, 127).words).toBe('wheel at 127')
  expect(heard(0xe0, 0, 0).done).toEqual([['move', controlNumbers.bend, -1]])
  expect(heard(0xe0, 0, 64).done).toEqual([['move', controlNumbers.bend, 0]])
  expect(heard(0xe0, 127, 127).done).toEqual([['move', controlNumbers.bend, 1]])
  expect(heard(0xd3, 127).done).toEqual([['move', controlNumbers.pressure, 1]])
  expect(heard(0xa0, 40, 127).done).toEqual([['press', pads[2].id, 1]])
  expect(heard(0xb0, 123, 0).done).toEqual([['stopAll']])
  expect(heard(0xf8)).toEqual({ words: undefined, done: [] })
})
