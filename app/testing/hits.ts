import type { CutHit } from '../features/cut'

/** Hits as a recording of 48 kHz has them: one each 1000 frames, each louder than the one before. */
export function hitsOf(count: number, more: (index: number) => Partial<CutHit['hit'] & object> = () => ({})): CutHit[] {
  return Array.from({ length: count }, (_, i) => ({
    marker: { id: `found-${i * 1000}` as never, frame: i * 1000, origin: 'found' as const, pinned: false, kept: false },
    hit: {
      onsetFrame: i * 1000,
      secondFrames: [],
      startFrame: i * 1000,
      endFrame: i * 1000 + 900,
      seconds: 0.02,
      peakDb: -6,
      loudnessDb: -40 + i,
      centreHz: 500,
      family: 'wood' as const,
      reason: 'it is short and dull',
      attackSeconds: 0.001,
      warnings: [],
      ...more(i),
    },
  }))
}
