import { createGroove } from '@heliaster/core/groove'
import { createKit } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { chooseGroove, grooveState, stepOf } from './groove-player'

jest.mock('../engine/sound', () => ({ sound: { getState: () => ({}) }, playGrooveOf: jest.fn() }))
jest.mock('../../documents', () => ({ kits: {} }))

const makeId = testIds(2)
const grooves = ['Ebb', 'Flood'].map((name) => createGroove(makeId, name))
const kit: Kit = { ...createKit(makeId, 'Grooves'), grooves }
const at = (beat: number, section = 0) => ({ grooveBeat: () => beat, grooveSection: () => section })

test('the step that sounds is that of the groove on the screen, lap after lap', () => {
  grooveState.setState({ playing: false, step: -1 }, true)
  expect([-1, 0, 0.24, 0.25, 3.9, 4, 5.5].map((beat) => stepOf(kit, at(beat)))).toEqual([-1, 0, 0, 1, 15, 0, 6])
})

test('while another groove of the song sounds no step is lit; a groove that was chosen plays by itself', () => {
  const song = grooves.map(({ id }, i) => ({ id: `s${i}`, groove: id, laps: 1 }))
  const sung = { ...kit, song: [song[1], song[0]] }
  expect([stepOf(sung, at(1, 0)), stepOf(sung, at(1, 1))]).toEqual([-1, 4])
  chooseGroove(grooves[1].id)
  expect(stepOf(sung, at(1, 0))).toBe(4)
})
