import { seeded, testIds } from '../kit/builders'
import { applySourceEdit, createSource } from '../kit/source'
import type { Source } from '../kit/source'
import { keptMarker, liveMarkers } from './markers'

const RATE = 48000
const FRAMES = 20 * RATE

function aSource(): Source {
  return createSource(testIds(), 'a'.repeat(64) as never, { name: 'deck.wav', sampleRateHz: RATE, frames: FRAMES, channels: 1 }, 'deck')
}

test('a hit that is moved, near or far, again and again, stays one hit under one id', () => {
  const random = seeded(4)
  const onsets = Array.from({ length: 16 }, (_, i) => ({ frame: 5000 + i * 48000 + Math.floor(random() * 20000), strength: 1 }))
  let source = aSource()
  for (let moves = 0; moves < 300; moves++) {
    const live = liveMarkers(source, onsets)
    expect([moves, live.length, new Set(live.map(({ id }) => id)).size]).toEqual([moves, 16, 16])
    const marker = live[Math.floor(random() * live.length)]
    const frame = Math.min(FRAMES - 1, Math.max(0, marker.frame + Math.round((random() - 0.5) * (random() < 0.5 ? 200 : 18000))))
    // Two hits that meet within what counts as one place are one only by what is found, never by what was moved.
    if (live.some((other) => other.id !== marker.id && Math.abs(other.frame - frame) < 0.02 * RATE)) continue
    source = applySourceEdit(source, { type: 'putMarkers', markers: [keptMarker(marker, { frame })] })
    expect(liveMarkers(source, onsets).find(({ id }) => id === marker.id)?.frame).toBe(frame)
  }
})

test('a hit that was moved and then removed does not come back where it was found', () => {
  const onsets = [{ frame: 10000, strength: 1 }]
  const [found] = liveMarkers(aSource(), onsets)
  const moved = applySourceEdit(aSource(), { type: 'putMarkers', markers: [keptMarker(found, { frame: 30000, removed: true })] })
  expect(liveMarkers(moved, onsets)).toEqual([])
  expect(liveMarkers(applySourceEdit(moved, { type: 'forgetMarkers', markerIds: [found.id] }), onsets)).toHaveLength(1)
})

test('marks of a grid are removed by themselves, not with the strikes that were removed near them', () => {
  const source = applySourceEdit(aSource(), {
    type: 'putMarkers',
    markers: [{ id: 'found-48010' as never, frame: 48010, origin: 'found', pinned: false, removed: true }],
  })
  const marks = [0, 48000, 96000].map((gridFrame) => ({ frame: gridFrame + 10, strength: 1, gridFrame }))
  const live = liveMarkers(source, marks)
  expect(live.map(({ frame, gridFrame }) => [frame, gridFrame])).toEqual([[10, 0], [48010, 48000], [96010, 96000]]) // prettier-ignore
  const removed = applySourceEdit(source, { type: 'putMarkers', markers: [keptMarker(live[2], { removed: true })] })
  expect(liveMarkers(removed, marks)).toHaveLength(2)
  expect(liveMarkers(removed, [{ frame: 96010, strength: 1 }])).toHaveLength(1) // and no strike with a mark
  const named = applySourceEdit(source, { type: 'putMarkers', markers: [keptMarker(live[1], { name: 'second' })] })
  expect(liveMarkers(named, marks).map(({ gridFrame, name }) => [gridFrame, name])).toEqual([[0, undefined], [48000, 'second'], [96000, undefined]]) // prettier-ignore
})
