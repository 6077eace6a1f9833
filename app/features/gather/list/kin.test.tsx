import { portraitText } from '@heliaster/core/alike'
import type { KinWay } from '@heliaster/core/alike'
import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, renderHook, screen, waitFor } from '@testing-library/react'

import { endKin, kin, showKin, soundingOfSource, unmeasured, useKin } from './kin'
import { KinBar } from './KinBar'

jest.mock('../../../audio/files/measure-later', () => ({ measureNow: () => Promise.resolve() }))

/** A sound whose energy lies in one band, 0..23, louder by its place in the list. */
function sound(band: number, decaySeconds: number, n: number): Source {
  const portrait = Uint8Array.from({ length: 120 }, (_, i) => (i % 24 === band ? 54 : 10))
  const measured = { peakDb: -6, loudnessDb: -20 + n, portrait: portraitText(portrait), decaySeconds }
  const info = { name: `${n}.wav`, sampleRateHz: 48000, frames: 20_000, channels: 1 }
  return createSource(testIds(n), hashOf(String(n)), info, `plank ${n}`, { measured })
}
const all = [sound(4, 0.1, 1), sound(10, 0.3, 2), sound(4, 0.5, 3), sound(20, 0.1, 4)]
const query = { name: 'plank 1', sounding: soundingOfSource(all[0])!, id: all[0].id }

/** The names of the kin, once it is found. */
async function namesOf(sounds: readonly Source[], way?: KinWay): Promise<string[]> {
  const done = jest.fn()
  const { result } = renderHook(() => {
    const found = useKin(sounds, query, way)
    if (found.length > 0 || sounds.length === 0) done()
    return found
  })
  await waitFor(() => expect(done).toHaveBeenCalled())
  return result.current.map(({ name }) => name)
}

test('a list shows kin by likeness and the way it lies, without the sound itself', async () => {
  const nearest = await namesOf(all)
  expect(nearest[0]).toBe('plank 3')
  expect(nearest).toHaveLength(3)
  expect((await namesOf(all, 'brighter')).sort()).toEqual(['plank 2', 'plank 4'])
  expect(await namesOf(all, 'longer')).toEqual(['plank 3', 'plank 2'])
})

test('what came in before likeness was measured is named; long recordings are like nothing', () => {
  const { measured: _measured, ...older } = all[0]
  const long = { ...older, info: { ...older.info, frames: 48000 * 60 } }
  expect(unmeasured([...all, older, long])).toEqual([older])
  expect(soundingOfSource(older)).toBeUndefined()
})

test('the bar says what the list is, turns it another way, and gives the whole list back', () => {
  showKin(query)
  render(<KinBar query={query} all={all} count={3} />)
  expect(screen.getByText('Like “plank 1”')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Brighter' }))
  expect(kin.getState().way).toBe('brighter')
  expect(screen.getByRole('status').textContent).toBe('The most alike first, of 3 that are brighter.')
  fireEvent.click(screen.getByRole('radio', { name: 'Nearest' }))
  expect(kin.getState().way).toBeUndefined()
  fireEvent.click(screen.getByRole('button', { name: 'Show all sounds again' }))
  expect(kin.getState().query).toBeUndefined()
  endKin()
})
