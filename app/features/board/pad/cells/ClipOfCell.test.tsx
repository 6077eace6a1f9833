import { wholeClip } from '@heliaster/core/kit'
import type { AudioHash, Clip, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { aKitOf, aPad } from '../../../../testing/a-kit'
import { ClipOfCell } from './ClipOfCell'

const hash = 'a'.repeat(64) as AudioHash
jest.mock('../../../../audio/files/audio-files', () => ({}))
jest.mock('../../../../kit-view/loop/hear-seam', () => ({}))
jest.mock('../../../../kit-view/loop/LoopControls', () => ({ LoopControls: () => null }))
jest.mock('../../../../documents', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return {
    sources: { store: createStore(() => ({ entries: { yard: { doc: { audio: 'a'.repeat(64), measured: { midLossDb: -20 } } } } })) },
  }
})

const edit = jest.fn((..._edits: KitEdit[]) => undefined)
const set = jest.fn((_edits: KitEdit[]) => undefined)
const end = jest.fn()
const clipsOf = (edits: KitEdit[]) => edits.flatMap((one) => (one.type === 'setClip' ? [one.clip as Clip] : []))

function show(clips: readonly Clip[]) {
  const pad = aPad(1)
  const kit = { ...aKitOf(pad), audio: { [hash]: { name: 'yard.wav', frames: 9600, channels: 2, sampleRateHz: 48000 } } }
  const cells = { ray: pad.rays[0], bands: pad.bands, isOwn: false }
  const chosen = clips.map((clip, i) => ({ clip, turnId: `turn-${i}` as never, rayId: pad.rays[0].id }))
  const withClip = () => ({ type: 'setPad', padId: pad.id, own: {} }) as KitEdit
  render(
    <ClipOfCell
      {...{ kit, pad, cells: cells as never, clip: clips[0], chosen, edit, withClip }}
      isAlone={clips.length === 1}
      gesture={{ set, end } as never}
    />,
  )
}

const clip = (more: Partial<Clip>): Clip => ({ ...wholeClip(hash, { frames: 9600, channels: 2 }), ...more })

beforeEach(() => jest.clearAllMocks())

test('cells that are set together keep how loud they are against each other, within what a level can be', () => {
  show([clip({ gainDb: -6 }), clip({ gainDb: 2 }), clip({ gainDb: -60 })])
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Level of this clip; 3 move with it' }), { key: 'ArrowLeft' })
  const [one, other, silent] = clipsOf(set.mock.lastCall![0]).map(({ gainDb }) => gainDb)
  expect(one).toBeLessThan(-6)
  expect(other - one).toBeCloseTo(8, 6)
  expect(silent).toBe(-60)
})

test('turned round and upside down are one step for all of them', () => {
  show([clip({}), clip({ invert: true })])
  fireEvent.click(screen.getByRole('switch', { name: 'Reversed' }))
  expect(clipsOf(edit.mock.lastCall!).map(({ reverse, invert }) => [reverse, invert])).toEqual([[true, false], [true, true]]) // prettier-ignore
  expect(edit).toHaveBeenCalledTimes(1)
})

test('which side of its file a clip takes: mixed ones are said to be, and a middle that cancels is warned of', () => {
  show([clip({ channel: 'mid' }), clip({ channel: 'left' })])
  expect(screen.getByRole('radiogroup', { name: 'Takes of its file (mixed)' })).toBeTruthy()
  expect(screen.getByRole('alert').textContent).toMatch(/cancel here/)
  fireEvent.click(screen.getByRole('radio', { name: 'Left' }))
  expect(clipsOf(edit.mock.lastCall!).map(({ channel }) => channel)).toEqual(['left', 'left'])
})
