import { clipsOfPad, createRay, mapClips } from '@heliaster/core/kit'
import { workedClip } from '@heliaster/core/matter'
import { asBands } from '@heliaster/core/place'

import { makeId } from '../documents/make-id'
import { aPad, audio } from '../testing/a-kit'
import { describeFilling, describeMissing } from './describe-pad'

test('what fills a pad is counted in words, and one that is empty says what that means', () => {
  expect(describeFilling(aPad(0))).toBe('empty, so it is silent')
  expect(describeFilling(aPad(1))).toBe('1 band, 1 turn')
  expect(describeFilling(aPad(3))).toBe('1 band, 3 turns')
  expect(describeFilling(aPad(4, asBands))).toBe('4 bands, 4 turns')
  const pad = aPad(2)
  expect(describeFilling({ ...pad, rays: [...pad.rays, createRay(makeId, 'Far')] })).toBe('1 band, 2 turns, 2 rays')
})

test('the reason why some of a pad is silent is that of its own files', () => {
  expect(describeMissing(aPad(2), {})).toBeUndefined()
  expect(describeMissing(aPad(2), { ['c'.repeat(64)]: 'Gone.' } as never)).toBeUndefined()
  expect(describeMissing(aPad(2), { [audio]: 'Import the file again.' } as never)).toBe('Import the file again.')
  const pad = mapClips(aPad(2), (clip) => ({ ...clip, process: [{ id: 's', kind: 'time', values: {}, bypass: false }] }))
  const worked = workedClip({ audio: {}, tempoBpm: 120 }, clipsOfPad(pad)[1]!)
  expect(describeMissing(pad, { [worked.audio]: 'This is silent.' } as never)).toBe('This is silent.')
  expect(describeMissing(aPad(2), { [worked.audio]: 'This is silent.' } as never)).toBeUndefined()
})
