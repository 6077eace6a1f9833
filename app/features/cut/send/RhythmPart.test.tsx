import type { HeardRhythm, Pace } from '@heliaster/core/groove/rhythm'
import { createSource } from '@heliaster/core/kit'
import { act, fireEvent, render, renderHook, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { RhythmPart } from './RhythmPart'
import { useRhythmChoice } from './RhythmThings'

let mockRhythm: HeardRhythm | undefined
const mockAsked = jest.fn()
jest.mock('../../../audio/workers/workers', () => ({
  coreWork: () => ({ rhythm: (...given: unknown[]) => Promise.resolve((mockAsked(...given), mockRhythm)) }),
}))
jest.mock('../bench/use-things', () => ({ MOST_ALIKE: 4 }))

const pace: Pace = { tempoBpm: 96, firstSeconds: 1, stepsPerBeat: 4, swing: 0.5, beatsPerBar: 4, confidence: 1 }
const told = jest.fn()
const show = (given: Partial<Pace> = {}, more: object = {}) =>
  render(
    <RhythmPart
      pace={{ ...pace, ...given }}
      isGuess={false}
      onPace={told}
      share={0}
      onShare={told}
      ownHits
      onOwnHits={told}
      kitBpm={120}
      takesTempo
      onTakesTempo={told}
      {...more}
    />,
  )
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const says = () => screen.getByRole('status').textContent
beforeEach(() => jest.clearAllMocks())

test('how it goes is said: its tempo, its swing or its triplets, and where no pulse was found, what to do', () => {
  const words = [{}, { swing: 0.58 }, { stepsPerBeat: 3 }, { stepsPerBeat: 6, swing: 0.6 }].map((given) => {
    const { unmount } = show(given)
    const said = says()
    unmount()
    return said
  })
  const at = 'It goes at 96 beats a minute'
  expect(words).toEqual([`${at}.`, `${at}, swung 58 %.`, `${at}, in triplets.`, `${at}, in triplets.`])
  show({}, { isGuess: true })
  expect(says()).toBe('No even pulse was found: type the tempo, or keep what was played as it was.')
})

test('half and twice as fast keep the steps where they are; the one moves by a beat', () => {
  show()
  press('Half as fast')
  expect(told).toHaveBeenLastCalledWith({ ...pace, tempoBpm: 48, stepsPerBeat: 8 })
  press('Twice as fast')
  expect(told).toHaveBeenLastCalledWith({ ...pace, tempoBpm: 192, stepsPerBeat: 2 })
  press('The one a beat earlier')
  expect(told).toHaveBeenLastCalledWith({ ...pace, firstSeconds: 1 - 60 / 96 })
  press('A beat later')
  expect(told).toHaveBeenLastCalledWith({ ...pace, firstSeconds: 1 + 60 / 96 })
})

test('the tempo is set to a tenth of a beat a minute', () => {
  show()
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Tempo' }), { key: 'ArrowRight' })
  expect(told).toHaveBeenLastCalledWith({ ...pace, tempoBpm: 96.1 })
})

test('no tempo leaves what can be played', () => {
  const cannot = (name: string) => screen.getByRole('button', { name }).getAttribute('aria-disabled') === 'true'
  const { unmount } = show({ tempoBpm: 39 })
  expect([cannot('Half as fast'), cannot('Twice as fast')]).toEqual([true, false])
  unmount()
  show({ tempoBpm: 201 })
  expect([cannot('Half as fast'), cannot('Twice as fast')]).toEqual([false, true])
})

test('whose hits answer is chosen; the kit’s tempo is asked about only where it is another', () => {
  const { unmount } = show()
  fireEvent.click(screen.getByRole('switch', { name: 'Each bead plays its own hit' }))
  expect(told).toHaveBeenLastCalledWith(false)
  fireEvent.click(screen.getByRole('switch', { name: 'The kit takes this tempo, 96 BPM' }))
  expect(told).toHaveBeenCalledTimes(2)
  unmount()
  show({}, { kitBpm: 96 })
  expect(screen.queryByRole('switch', { name: /^The kit takes/ })).toBeNull()
})

describe('what was heard', () => {
  const source = createSource(makeId, audio, info, 'Table')
  const hits = hitsOf(3).slice(1) // the first one at frame 1000
  const choice = async (isAsked = true, of = hits) => {
    const hook = renderHook(() => useRhythmChoice(source, of, isAsked, 110))
    await act(async () => undefined)
    return hook.result
  }

  test('counts until someone says otherwise', async () => {
    mockRhythm = { things: [[0], [1]], pace }
    const chosen = await choice()
    expect(chosen.current).toMatchObject({ pace, things: [[0], [1]], isGuess: false, share: 0, ownHits: true })
    expect(mockAsked).toHaveBeenCalledWith(audio, hits.map(({ hit }) => ({ onsetFrame: hit!.onsetFrame, endFrame: hit!.endFrame, peakDb: -6, centreHz: 500 }))) // prettier-ignore
    act(() => chosen.current.setPace({ ...pace, tempoBpm: 48 }))
    expect([chosen.current.pace.tempoBpm, chosen.current.isGuess]).toEqual([48, false])
  })

  test('is a guess at the tempo of the kit, from the first strike on, where there is no pulse; not before it was listened for', async () => {
    mockRhythm = { things: [[0, 1]], pace: undefined }
    const chosen = await choice()
    expect([chosen.current.isGuess, chosen.current.pace]).toEqual([true, expect.objectContaining({ tempoBpm: 110, firstSeconds: 1000 / 48000, stepsPerBeat: 4, swing: 0.5 })]) // prettier-ignore
    act(() => chosen.current.setPace(pace))
    expect(chosen.current.isGuess).toBe(false)
    const unasked = await choice(false)
    expect([unasked.current.isGuess, unasked.current.things]).toEqual([false, undefined])
  })

  test('is asked for two hits and more, as far as they can be compared', async () => {
    for (const [count, asked] of [[1, 0], [2, 1], [4, 1], [5, 0]] as const) {
      mockAsked.mockClear()
      await choice(true, hitsOf(count))
      expect([count, mockAsked.mock.calls.length]).toEqual([count, asked])
    }
  }) // prettier-ignore
})
