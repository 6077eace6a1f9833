import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'

import { soundsNow } from './ImportReport'

jest.mock('../../place', () => ({ PlaceSheet: () => null }))

test('what came in is put on pads as it is called now; what was deleted since is not', () => {
  const info = { name: 'plank.wav', sampleRateHz: 48000, frames: 100, channels: 1 }
  const [first, second] = [1, 2].map((seed) => createSource(testIds(seed), hashOf(String(seed)), info, 'plank'))
  const done = [first, second].map((source) => ({ type: 'imported' as const, name: 'plank.wav', source, notes: [] }))
  const renamed: Source = { ...first, name: 'gunwale soft' }
  expect(soundsNow(done as never, { [first.id]: { doc: renamed } }).map(({ name }) => name)).toEqual(['gunwale soft'])
})
