import { aGroovyKit } from '../../testing/a-groove'
import { hearGroove, playKit, sound } from './sound'

jest.mock('../files/audio-files', () => ({}))
jest.mock('./player', () => ({ createPlayer: () => Promise.reject(new Error('none here')) }))

test('a groove that is tried is heard and ended; where none is tried the kit’s own goes on', () => {
  const acts: string[] = []
  const player = { load: (kit: { grooves: { name: string }[] }) => acts.push(`load ${kit.grooves[0]!.name}`), stopGroove: () => acts.push('stop'), beginGroove: () => acts.push('begin'), resume: () => Promise.resolve() } // prettier-ignore
  sound.setState({ player: player as never })
  const kit = aGroovyKit()
  jest.useFakeTimers()
  playKit(kit)
  jest.runAllTimers() // it is taken up
  jest.useRealTimers()
  acts.length = 0
  hearGroove(undefined)
  expect(acts).toEqual([])
  hearGroove({ ...kit.grooves[0]!, id: 'groove-try' as never, name: 'Tried' })
  hearGroove(undefined)
  hearGroove(undefined)
  expect(acts).toEqual(['stop', 'load Tried', 'begin', 'stop', 'load Ebb'])
})
