import type { Band, Kit, Pad, Turn } from '@heliaster/core/kit'
import { asBands } from '@heliaster/core/place'
import { fireEvent, render, screen } from '@testing-library/react'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { WalkSheet } from './WalkSheet'
import { walks } from './walks'

const mockHear = jest.fn((_pad: Pad, _turn: Turn, _band: Band, _velocity: number) => undefined)
const mockTargets: unknown[] = []
jest.mock('../../../audio/engine/sound', () => ({
  hearTurn: (...given: Parameters<typeof mockHear>) => mockHear(...given),
  hearClip: () => Promise.resolve(),
}))
jest.mock('../../../kit-view/PadGlyph', () => ({ PadGlyph: () => null }))
jest.mock('../../record-here', () => ({
  RecordHereSheet: ({ target, onClose }: { target: unknown; onClose: () => void }) => {
    mockTargets.push(target)
    return <button onClick={onClose}>recorded</button>
  },
}))

const kit = aKitOf({ ...aPad(2, asBands), own: { name: 'Oar' } }, { ...aPad(1), own: { name: 'Keel' } })
const second = kit.pads[0]!.bands[1]!.fromVelocity
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const title = () => screen.getByRole('dialog').getAttribute('aria-label') ?? screen.getAllByText(/^(Cell|To be)/)[0]!.textContent
const show = (of: Kit = kit) => render(<WalkSheet kit={of} onClose={() => undefined} />)
const key = (code: string) => fireEvent.keyDown(window, { code })

beforeEach(() => {
  jest.clearAllMocks()
  mockTargets.length = 0
  walks.setState({ kits: {} })
})

test('each cell sounds as it is reached, is kept or noted by a tap, and the list at the end records it', () => {
  show()
  expect(screen.getByText('Cell 1 of 3')).toBeTruthy()
  expect(screen.getByText(`band 1 of 2 (velocity 1 to ${second - 1})`)).toBeTruthy()
  expect(mockHear.mock.lastCall![3]).toBe(Math.round(second / 2))
  press('Keep it')
  press('Strike again later')
  expect(screen.getByText('Keel')).toBeTruthy()
  expect(mockHear).toHaveBeenCalledTimes(3)
  press('Keep it')
  expect(screen.getByText('To be struck again')).toBeTruthy()
  press(`Record Oar, band 2 of 2 (velocity ${second} to 127)`)
  expect(mockTargets.at(-1)).toEqual({ kind: 'turn', turnId: kit.pads[0]!.bands[1]!.turns[0]!.id, rayId: undefined })
  press('recorded')
  expect(screen.getByText('To be struck again')).toBeTruthy()
})

test('by keys: Enter keeps, R notes, the arrow goes back, Space sounds again; a walk that was left goes on where it was', () => {
  const { unmount } = show()
  key('Enter')
  key('ArrowLeft')
  key('Space')
  expect([screen.getByText('Cell 1 of 3'), mockHear.mock.calls.length]).toEqual([expect.anything(), 4])
  key('KeyR')
  unmount()
  show()
  expect(screen.getByText('Cell 2 of 3')).toBeTruthy()
  press('To the list')
  expect(screen.getByRole('button', { name: /^Record Oar, band 1/ })).toBeTruthy()
  press('Walk through all cells anew')
  expect(screen.getByText('Cell 1 of 3')).toBeTruthy()
})

test('a cell leaves the list as another clip lies in it, and a kit without cells says what to do', () => {
  const { unmount } = show()
  key('KeyR')
  key('Enter')
  key('Enter')
  unmount()
  const [oar, keel] = kit.pads as [Pad, Pad]
  const struckAnew = { ...oar, bands: oar.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, clip === 'intendedSilence' ? clip : { ...clip, startFrame: 7 }])) })) })) } // prettier-ignore
  const { unmount: gone } = show({ ...kit, pads: [struckAnew, keel] })
  expect(title()).toContain('Cell 1 of 3') // what was struck anew is walked through again
  press('To the list')
  expect(screen.getByText(/^Nothing is left to be struck again/)).toBeTruthy()
  gone()
  show(aKitOf(aPad(0)))
  expect(screen.getByText(/^This kit has no cells with clips yet/)).toBeTruthy()
})
