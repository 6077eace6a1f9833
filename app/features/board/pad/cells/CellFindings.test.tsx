import { createRay } from '@heliaster/core/kit'
import type { Clip, Kit, Pad } from '@heliaster/core/kit'
import { render, screen } from '@testing-library/react'

import { makeId } from '../../../../documents/make-id'
import { aKitOf, aPad, audio, info } from '../../../../testing/a-kit'
import { CellFindings } from './CellFindings'

/** A pad of so many turns, each changed in its own way. */
function padOf(turns: number, change: (clip: Clip, turn: number) => Partial<Clip> = () => ({})): Pad {
  const pad = aPad(turns)
  const ray = pad.rays[0].id
  const bands = pad.bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn, i) => ({ ...turn, clips: { [ray]: { ...(turn.clips[ray] as Clip), ...change(turn.clips[ray] as Clip, i) } } })), // prettier-ignore
  }))
  return { ...pad, bands }
}
const show = (pad: Pad, at = 0, kit: Kit = { ...aKitOf(pad), audio: { [audio]: { ...info, channels: 2 } } }) =>
  render(<CellFindings kit={kit} pad={pad} cells={{ ray: pad.rays[at], bands: pad.bands, isOwn: false }} />)
const said = () => [...screen.getByRole('status').children].map((line) => line.textContent)

test('where all cells are alike nothing is said', () => {
  const { container } = show(padOf(4))
  expect(container.textContent).toBe('')
})

test('what is set otherwise than everywhere else is named by its place and its value', () => {
  const { unmount } = show(padOf(5, (_clip, turn) => (turn === 2 ? { reverse: true } : {})))
  expect(said()).toEqual(['Direction is forward everywhere but in band 1, turn 3 (reversed).'])
  unmount()
  show(padOf(6, (_clip, turn) => (turn === 0 ? { gainDb: -6, channel: 'right' } : {})))
  expect(said()).toEqual([
    'Level of the clip is 0.0 dB everywhere but in band 1, turn 1 (-6.0 dB).',
    expect.stringMatching(/^Channel of the file is .* everywhere but in band 1, turn 1 \(.*\)\.$/),
  ])
})

test('of files with one channel none is chosen, so none is odd', () => {
  const pad = padOf(5, (_clip, turn) => (turn === 0 ? { channel: 'right' } : {}))
  const { container } = show(pad, 0, { ...aKitOf(pad), audio: { [audio]: info } })
  expect(container.textContent).toBe('')
})

test('a microphone without a clip says what sounds there instead; of many places the first four are named', () => {
  const pad = padOf(6)
  const room = { ...createRay(makeId, 'Room'), microphone: true }
  const { unmount } = show({ ...pad, rays: [{ ...pad.rays[0], microphone: true }, room] }, 1)
  expect(said()[0]).toMatch(
    /^Room has no clip in band 1, turn 1; band 1, turn 2; band 1, turn 3; band 1, turn 4; and 2 more: it is silent there\./,
  )
  unmount()
  show(
    {
      ...pad,
      rays: [
        { ...pad.rays[0], microphone: true },
        { ...room, onMissing: 'nearest' },
      ],
    },
    1,
  )
  expect(said()[0]).toContain('the nearest band’s sounds there')
})
