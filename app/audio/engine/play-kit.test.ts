import { applyEdit } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'

import { aKitOf, aPad } from '../../testing/a-kit'
import { playKit, sound, strikePad } from './sound'

jest.mock('../files/audio-files', () => ({}))
jest.mock('./player', () => ({ createPlayer: () => Promise.reject(new Error('none here')) }))

const acts: string[] = []
const player = {
  load: (kit: Kit) => acts.push(`load ${kit.name}`),
  strike: () => (acts.push('strike'), false),
  resume: () => Promise.resolve(),
}
const kitNamed = (name: string): Kit => ({ ...aKitOf(aPad(1)), id: name as Kit['id'], name })
const renamed = (kit: Kit, name: string) => applyEdit(kit, { type: 'setKit', fields: { name } })
const took = () => acts.splice(0)

beforeEach(() => {
  jest.useFakeTimers()
  sound.setState({ player: player as never })
})
afterEach(() => jest.useRealTimers())

test('a kit that is opened is taken up after the screen was drawn, an edit of it at once', () => {
  const kit = kitNamed('Slip')
  playKit(kit)
  expect(took()).toEqual([])
  jest.runAllTimers()
  expect(took()).toEqual(['load Slip'])
  playKit(renamed(kit, 'Slipway'))
  expect(took()).toEqual(['load Slipway'])
  jest.runAllTimers()
  expect(took()).toEqual([])
})

test('a strike, or an edit, that comes before that takes it up at once, and once only', () => {
  const kit = kitNamed('Quay')
  playKit(kit)
  strikePad({ padId: kit.pads[0]!.id, velocity: 90 } as never)
  jest.runAllTimers()
  expect(took()).toEqual(['load Quay', 'strike'])
  const other = kitNamed('Pier')
  playKit(other)
  playKit(renamed(other, 'Pier head'))
  jest.runAllTimers()
  expect(took()).toEqual(['load Pier head'])
})

test('a kit that is left before it was taken up is not', () => {
  playKit(kitNamed('Mole'))
  playKit(undefined)
  jest.runAllTimers()
  expect(took()).toEqual([])
})
