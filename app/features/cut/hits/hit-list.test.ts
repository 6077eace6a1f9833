import type { Hit } from '@heliaster/core/cut'

import { listedHits, plainHitList } from './hit-list'
import type { HitListView } from './hit-list'
import type { CutHit } from '../bench/use-source-cut'

const RATE = 48000

function aHit(i: number, hit: Partial<Hit>, verdict?: 'keep' | 'pass'): CutHit {
  const facts = {
    onsetFrame: i * RATE,
    secondFrames: [],
    startFrame: i * RATE,
    endFrame: i * RATE + 9,
    seconds: 0.1,
    peakDb: -6,
    loudnessDb: -20,
  }
  const more = { centreHz: 500, family: 'wood' as const, reason: '', attackSeconds: 0.001, warnings: [] }
  return {
    marker: { id: `hit-${i}` as never, frame: i * RATE, origin: 'found', pinned: false, kept: false, ...(verdict ? { verdict } : {}) },
    hit: { ...facts, ...more, ...hit },
  }
}

const hits = [
  aHit(0, { loudnessDb: -30, seconds: 0.4, family: 'tom', pitch: { hz: 220, confidence: 1 }, warnings: ['clipped'] }),
  aHit(1, { loudnessDb: -12, seconds: 0.2, family: 'kick' }, 'pass'),
  aHit(2, { loudnessDb: -20, seconds: 0.3, family: 'hat', pitch: { hz: 90, confidence: 1 } }, 'keep'),
  aHit(3, { loudnessDb: -25, seconds: 0.05, family: 'hat', warnings: ['odd', 'clipped'] }),
]
const listed = (view: Partial<HitListView>) =>
  listedHits(hits, { ...plainHitList, ...view }, RATE).map(({ marker }) => Number(marker.id.slice(4)))

test('hits are sorted by any measure, either way; what has no value goes last', () => {
  expect(listed({})).toEqual([0, 1, 2, 3])
  expect(listed({ isReversed: true })).toEqual([3, 2, 1, 0])
  expect(listed({ sort: 'loudness' })).toEqual([0, 3, 2, 1])
  expect(listed({ sort: 'pitch' })).toEqual([2, 0, 1, 3])
  expect(listed({ sort: 'pitch', isReversed: true })).toEqual([0, 2, 1, 3])
  expect(listed({ sort: 'family' })).toEqual([1, 2, 3, 0])
  expect(listed({ sort: 'warnings', isReversed: true })).toEqual([3, 0, 1, 2])
})

test('only hits of one family, verdict, warning, or between two values are shown', () => {
  expect(listed({ family: 'hat' })).toEqual([2, 3])
  expect(listed({ only: 'open' })).toEqual([0, 3])
  expect(listed({ only: 'warned', warning: 'odd' })).toEqual([3])
  expect(listed({ sort: 'length', from: 150, to: 300 })).toEqual([1, 2]) // ms
  expect(listed({ sort: 'pitch', from: 100 })).toEqual([0])
  expect(listed({ sort: 'time', to: 1.5 })).toEqual([0, 1])
})
