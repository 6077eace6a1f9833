import type { HeardRhythm } from '@heliaster/core/groove/rhythm'
import { timedBeads } from '@heliaster/core/groove'
import { applyEdit, createSource } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { aKitOf, aPad, audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { padsToSend } from './send-hits'
import { playedOn } from './rhythm-edits'
import { SendSheet } from './SendSheet'

let mockKit: Kit
let mockHeard: HeardRhythm | undefined
const mockEdit = (edits: KitEdit[]) => void (mockKit = edits.reduce(applyEdit, mockKit))
jest.mock('../../../kit-view', () => ({
  useKit: () => mockKit,
  useKitId: () => 'kit-1',
  editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits),
}))
jest.mock('../../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name }))
jest.mock('../../starts', () => ({ StartChips: () => null }))
jest.mock('../bench/use-things', () => ({ useThings: () => undefined, MOST_ALIKE: 2000, thingWords: (groups: unknown[]) => `${groups.length} things` })) // prettier-ignore
jest.mock('./use-rhythm', () => ({ useRhythm: (_source: unknown, _hits: unknown, isAsked: boolean) => (isAsked ? mockHeard : undefined) }))
jest.mock('../../../audio/playing/groove-player', () => ({ chooseGroove: () => undefined }))
jest.mock('../../../ui/layout/notices', () => ({ notify: () => undefined }))
const mockNavigate = jest.fn()
jest.mock('expo-router', () => ({ router: { navigate: (to: string) => mockNavigate(to) } }))

const source = createSource(makeId, audio, info, 'Cabin table')
/** Four strikes half a second apart, two things in turn. */
const at = (i: number) => 4800 + i * 24000
const played = hitsOf(4, (i) => ({ startFrame: at(i), endFrame: at(i) + 900 })).map((item, i) => ({
  ...item,
  marker: { ...item.marker, frame: at(i) },
}))
const pace = { tempoBpm: 120, firstSeconds: 0.1, stepsPerBeat: 4, swing: 0.5, beatsPerBar: 4, confidence: 0.9 }
const show = () => render(<SendSheet source={source} hits={played} first="rhythm" onHear={() => undefined} onClose={() => undefined} />)
const beats = () => mockKit.grooves[0]!.strings.map((string) => timedBeads(mockKit.grooves[0]!, string).map(({ beat }) => Number(beat.toFixed(3)))) // prettier-ignore

beforeEach(() => {
  mockKit = { ...aKitOf(aPad(1)), tempoBpm: 92 }
  mockHeard = { things: [[0, 2], [1, 3]], pace } // prettier-ignore
})

test('in one sending each thing is a pad, what was played is their groove, the kit takes its tempo, and the groove opens', () => {
  show()
  expect(screen.getByText('It goes at 120 beats a minute.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Send, and open the groove' }))
  expect([mockKit.pads.length, mockKit.tempoBpm]).toEqual([3, 120])
  expect(beats()).toEqual([[0, 2], [1, 3]]) // prettier-ignore
  expect(mockNavigate).toHaveBeenLastCalledWith('/kit/kit-1/groove')
})

test('the tempo can be halved, the one moved, the kit keep its own tempo', () => {
  show()
  fireEvent.click(screen.getByRole('button', { name: 'Half as fast' }))
  fireEvent.click(screen.getByRole('button', { name: 'The one a beat earlier' }))
  fireEvent.click(screen.getByRole('switch', { name: /^The kit takes this tempo, 60 BPM/ }))
  fireEvent.click(screen.getByRole('button', { name: 'Send, and open the groove' }))
  expect(mockKit.tempoBpm).toBe(92)
  expect(beats()).toEqual([[1, 2], [1.5, 2.5]]) // prettier-ignore
})

test('without a pulse it is said, and what was played goes along at the tempo of the kit', () => {
  mockHeard = { things: [[0, 2], [1, 3]], pace: undefined } // prettier-ignore
  show()
  expect(screen.getByText(/^No even pulse was found/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Send, and open the groove' }))
  const step = (0.5 * 92) / 60
  expect(beats().flat().sort((a, b) => a - b)).toEqual([0, 1, 2, 3].map((i) => Number((i * step).toFixed(3)))) // prettier-ignore
})

/** Of each bead, the place of the hit that it asks for, and of the hit that was struck where it stands. */
const asked = () =>
  mockKit.grooves[0]!.strings.flatMap((string) => {
    const pad = mockKit.pads.find(({ id }) => id === string.padId)!
    const turns = new Map(pad.bands.flatMap(({ turns }) => turns.map(({ id, clips }) => [id as string, Object.values(clips)[0] as Clip])))
    return timedBeads(mockKit.grooves[0]!, string).map(({ beat, bead }) => [turns.get(bead.turn ?? '')?.startFrame, at(Math.round(beat))])
  })

test('each bead plays its own hit, unless any take is to answer', () => {
  const { unmount } = show()
  fireEvent.click(screen.getByRole('button', { name: 'Send, and open the groove' }))
  expect(asked()).toHaveLength(4)
  for (const [own, struck] of asked()) expect(own).toBe(struck)
  unmount()
  mockKit = { ...aKitOf(), tempoBpm: 92 }
  show()
  fireEvent.click(screen.getByRole('switch', { name: /^Each bead plays its own hit/ }))
  fireEvent.click(screen.getByRole('button', { name: 'Send, and open the groove' }))
  expect(asked().map(([own]) => own)).toEqual([undefined, undefined, undefined, undefined])
})

test('hits that a pad has no room for are struck all the same', () => {
  const hits = hitsOf(200, (i) => ({ loudnessDb: -20 - i / 1000 }))
  const things = [hits.map((_, i) => i)]
  const pads = padsToSend(aKitOf(), source, hits, { way: 'rhythm', order: 'time', groups: things })
  const strikes = playedOn(source, { hits, things, pads })
  expect(strikes).toHaveLength(200)
  expect(strikes.filter(({ turn }) => turn !== undefined)).toHaveLength(128)
  expect(strikes.every(({ velocity }) => velocity >= 126)).toBe(true)
})

test('on a pad that is there, which keeps its settings, louder hits get higher velocities too', () => {
  const hits = hitsOf(4, (i) => ({ loudnessDb: [-8, -20, -14, -26][i] }))
  const pads = padsToSend(aKitOf(aPad(1)), source, hits, { way: 'rhythm', order: 'time', groups: [[0, 1, 2, 3]], onto: aPad(1).id })
  const [loud, softer, middle, softest] = playedOn(source, { hits, things: [[0, 1, 2, 3]], pads }).map(({ velocity }) => velocity)
  expect(loud > middle && middle > softer && softer > softest && softest > 0).toBe(true)
})

test('louder hits get higher velocities, each within the band that its clip lies in', () => {
  const levels = [-30, -29, -28, -12, -11, -10]
  const hits = hitsOf(6).map((item, i) => ({ ...item, hit: { ...item.hit!, loudnessDb: levels[i] } }))
  const [pad] = padsToSend(aKitOf(), source, hits, { way: 'rhythm', order: 'time', groups: [[0, 1, 2, 3, 4, 5]] })
  expect(pad.bands.length).toBeGreaterThan(1)
  const velocities = playedOn(source, { hits, things: [[0, 1, 2, 3, 4, 5]], pads: [pad] }).map(({ velocity }) => velocity)
  expect(velocities).toEqual([...velocities].sort((a, b) => a - b))
  expect(velocities.filter((velocity) => velocity < pad.bands[1].fromVelocity)).toHaveLength(3)
})

test('where a pad does not play as loud as was struck, a hit stands in its band as it lies among the others; alike ones in the middle', () => {
  const velocitiesOf = (levels: readonly number[]) => {
    const hits = hitsOf(6, (i) => ({ loudnessDb: levels[i] }))
    const [given] = padsToSend(aKitOf(), source, hits, { way: 'rhythm', order: 'time', groups: [[0, 1, 2, 3, 4, 5]] })
    const pad = { ...given, own: { ...given.own, responses: [] } } as typeof given
    const border = pad.bands[1].fromVelocity
    return { border, velocities: playedOn(source, { hits, things: [[0, 1, 2, 3, 4, 5]], pads: [pad] }).map(({ velocity }) => velocity) }
  }
  const apart = velocitiesOf([-30, -29, -28, -12, -10.5, -9])
  const half = (from: number, to: number) => Math.round((from + to) / 2)
  expect(apart.velocities).toEqual([1, half(1, apart.border - 1), apart.border - 1, apart.border, half(apart.border, 127), 127])
  const alike = velocitiesOf([-30.2, -30.1, -30, -10, -9.9, -9.8])
  const [low, high] = [half(1, alike.border - 1), half(alike.border, 127)]
  expect(alike.velocities).toEqual([low, low, low, high, high, high])
})
