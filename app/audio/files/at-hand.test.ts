import type { AudioHash } from '@heliaster/core/kit'

import { createAtHand } from './at-hand'

const hash = (name: string) => name as AudioHash
const audio = (frames: number, channels = 1) => ({
  sampleRateHz: 48000,
  channels: Array.from({ length: channels }, () => new Float32Array(frames)),
})

test('what was not used for longest goes first, as much of it as there is too much', () => {
  const atHand = createAtHand(100)
  for (const name of ['a', 'b', 'c']) expect(atHand.keep(hash(name), audio(30))).toEqual([])
  atHand.keep(hash('a'), atHand.get(hash('a'))!) // used again
  expect(atHand.keep(hash('d'), audio(20, 2))).toEqual(['b'])
  expect(atHand.hashes()).toEqual(['c', 'a', 'd'])
  expect(atHand.keep(hash('e'), audio(70))).toEqual(['c', 'a', 'd'])
})

test('one that is too long by itself stays until another comes, and what was forgotten makes room', () => {
  const atHand = createAtHand(100)
  expect(atHand.keep(hash('long'), audio(500))).toEqual([])
  expect(atHand.get(hash('long'))?.channels[0]).toHaveLength(500)
  expect(atHand.keep(hash('short'), audio(60))).toEqual(['long'])
  atHand.forget(hash('short'))
  atHand.forget(hash('short'))
  for (const name of ['a', 'b']) expect(atHand.keep(hash(name), audio(50))).toEqual([])
  expect(atHand.get(hash('short'))).toBeUndefined()
})

test('the same audio kept again counts once', () => {
  const atHand = createAtHand(100)
  for (let i = 0; i < 5; i++) atHand.keep(hash('a'), audio(60))
  expect(atHand.keep(hash('b'), audio(40))).toEqual([])
})
