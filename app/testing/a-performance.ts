import type { Performance } from '@heliaster/core/kit'

/** A performance for tests: strikes as pad, frame and velocity, heard from the first to behind the last. */
export function aPerformance(strikes: readonly (readonly [padId: string, frame: number, velocity: number])[]): Performance {
  return {
    ...{ format: 'heliaster-performance', version: 1, id: 'performance-a', name: 'Slipway 1', kitId: 'kit-a', playedAt: 1000 },
    ...{ sampleRateHz: 48000, originFrame: 0, fromFrame: strikes[0]![1], toFrame: strikes[strikes.length - 1]![1] + 4800, tempoBpm: 120 },
    ...{ standing: { pads: [], controls: [] }, segments: [{ frame: 0, kit: 'a'.repeat(64) }] },
    events: strikes.map(([padId, frame, velocity], i) => ({ type: 'strike', id: `event-${i}`, frame, padId, velocity, key: 1 })),
  } as unknown as Performance
}
