import { GUARD_FRAMES } from '../program/layout'
import { laidLength, layOut, levelFrames } from './levels'

/** Where a level begins in what was laid out, behind its first guard. */
function placeOf(frames: number, level: number): number {
  let place = GUARD_FRAMES
  for (let above = 0; above < level; above++) place += levelFrames(frames, above) + 2 * GUARD_FRAMES
  return place
}

const laid = (samples: Float32Array, levels: number, roundFrom = -1) => {
  const to = new Float32Array(laidLength(samples.length, levels)).fill(9) // whatever lay there before
  layOut(to, samples, levels, roundFrom)
  return to
}

const noise = (length: number, seed: number) => {
  let state = seed
  return Float32Array.from({ length }, () => (state = (Math.imul(state, 1103515245) + 12345) >>> 0) / 2147483648 - 1)
}

test('with silence laid round it a clip has the very same levels, only later, and what sounds before and behind it in their guards', () => {
  for (const [length, levels] of [[1, 3], [17, 1], [160, 4], [777, 5], [4801, 2], [2400, 8]] as const) {
    const samples = noise(length, length)
    const alone = laid(samples, levels)
    const silence = Math.ceil((GUARD_FRAMES << levels) / (1 << levels)) * (1 << levels)
    const wide = new Float32Array(length + 2 * silence)
    wide.set(samples, silence)
    const within = laid(wide, levels)
    for (let level = 0; level <= levels; level++) {
      const from = placeOf(length, level) - GUARD_FRAMES
      const count = levelFrames(length, level) + 2 * GUARD_FRAMES
      const there = placeOf(wide.length, level) + (silence >> level) - GUARD_FRAMES
      expect(Array.from(alone.subarray(from, from + count))).toEqual(Array.from(within.subarray(there, there + count)))
    }
  }
}) // prettier-ignore

test('what goes round as a whole has levels that go round as well', () => {
  const levels = 3
  const samples = noise(4096, 5)
  const to = laid(samples, levels, 0)
  for (let level = 0; level <= levels; level++) {
    const [place, frames] = [placeOf(samples.length, level), levelFrames(samples.length, level)]
    for (let i = 1; i <= GUARD_FRAMES; i++) {
      expect(to[place - i]).toBeCloseTo(to[place + frames - i], 6)
      expect(to[place + frames + i - 1]).toBeCloseTo(to[place + i - 1], 6)
    }
  }
})

test('what would go round in nothing has nothing beside it', () => {
  const samples = noise(200, 3)
  for (const roundFrom of [200, 300]) expect(laid(samples, 2, roundFrom)).toEqual(laid(samples, 2))
})
