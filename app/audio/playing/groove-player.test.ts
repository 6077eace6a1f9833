import { createGroove } from '@heliaster/core/groove'
import { createKit } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { chooseGroove, grooveBeat, grooveState, lapNow, playSong, songSection, startGroove, stopGroove } from './groove-player'

const mockPlays = jest.fn((_what: unknown) => undefined)
const mockBegun = jest.fn((..._given: unknown[]) => undefined)
let mockPlayer: object | undefined
const mockTold = new Set<(state: object) => void>()
jest.mock('../engine/sound', () => ({
  sound: {
    getState: () => ({ player: mockPlayer }),
    subscribe: (listener: (state: object) => void) => {
      mockTold.add(listener)
      return () => mockTold.delete(listener)
    },
  },
  playGrooveOf: (what: unknown) => mockPlays(what),
  kitNow: () => undefined,
}))
jest.mock('../../documents', () => ({
  kits: { store: { getState: () => ({ entries: { 'kit-w': { doc: { grooves: [], song: [] } } } }) } },
}))

const makeId = testIds(2)
const grooves = ['Ebb', 'Flood'].map((name) => createGroove(makeId, name))
const kit: Kit = { ...createKit(makeId, 'Grooves'), grooves }
const at = (beat: number, section = 0) => ({ grooveBeat: () => beat, grooveSection: () => section })

test('the beat is that of the groove on the screen while it plays, counted on through its laps', () => {
  grooveState.setState({ playing: false, isSong: false }, true)
  expect(grooveBeat(kit, at(3) as never)).toBeUndefined()
  grooveState.setState({ playing: true })
  expect([-1, 0, 3.9, 5.5].map((beat) => grooveBeat(kit, at(beat) as never))).toEqual([undefined, 0, 3.9, 5.5])
  expect(lapNow(grooves[0])).toBe(-1)
})

test('while another groove of the song sounds nothing of the one on the screen does; what is chosen plays by itself unless the song does', () => {
  const song = grooves.map(({ id }, i) => ({ id: `s${i}`, groove: id, laps: 1 }))
  const sung = { ...kit, song: [song[1], song[0]] }
  chooseGroove(grooves[1].id)
  expect(mockPlays).toHaveBeenLastCalledWith(grooves[1].id)
  playSong(true)
  expect(mockPlays).toHaveBeenLastCalledWith('song')
  chooseGroove(grooves[0].id)
  expect(mockPlays).toHaveBeenLastCalledWith('song')
  expect([grooveBeat(sung, at(1, 0) as never), grooveBeat(sung, at(1, 1) as never)]).toEqual([undefined, 1])
  expect(songSection({ ...sung, grooves: [grooves[0]] }, at(1, 0))?.groove).toBe(grooves[0].id)
  playSong(false)
  expect(mockPlays).toHaveBeenLastCalledWith(grooves[0].id)
})

test('asked for before there is sound, the groove begins once there is; not if it was stopped meanwhile', () => {
  grooveState.setState({ playing: false, isSong: false }, true)
  const arrive = () => {
    mockPlayer = { resume: () => Promise.resolve(), beginGroove: mockBegun, stopGroove: () => undefined }
    for (const listener of [...mockTold]) listener({ player: mockPlayer })
  }
  startGroove('kit-w' as never)
  expect(grooveState.getState().playing).toBe(false)
  arrive()
  expect([mockBegun.mock.calls.length, grooveState.getState().playing, mockTold.size]).toEqual([1, true, 0])
  stopGroove()
  mockPlayer = undefined
  startGroove('kit-w' as never)
  stopGroove()
  arrive()
  expect(mockBegun).toHaveBeenCalledTimes(1)
})
