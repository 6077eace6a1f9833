import fc from 'fast-check'

import { audioTold } from './audio-told'

const soundOf = (frames: number) => ({ sampleRateHz: 48000, channels: [new Float32Array(frames)] })

test('a worker that keeps what it was told has every sound of each request, each sent again only when it was forgotten, and no more than it may', () => {
  const frames = [10, 400, 30, 250, 90, 5, 600, 120]
  const request = fc.uniqueArray(fc.nat(frames.length - 1), { maxLength: 5 })
  fc.assert(
    fc.property(fc.array(request, { maxLength: 30 }), fc.integer({ min: 0, max: 6000 }), (requests, most) => {
      const tell = audioTold(most)
      const kept = new Map<string, number>()
      for (const wanted of requests) {
        const { audio, forget } = tell(wanted.map((i) => [`${i}`, soundOf(frames[i])] as const))
        for (const hash of forget) expect(kept.delete(hash)).toBe(true)
        for (const [hash, { channels }] of audio) {
          expect(kept.has(hash)).toBe(false)
          kept.set(hash, channels[0].byteLength)
        }
        expect(wanted.every((i) => kept.has(`${i}`))).toBe(true)
        const total = (hashes: readonly string[]) => hashes.reduce((sum, hash) => sum + kept.get(hash)!, 0)
        expect(total([...kept.keys()])).toBeLessThanOrEqual(Math.max(most, total(wanted.map(String))))
      }
    }),
  )
})

test('what was asked for longest ago is forgotten first', () => {
  const tell = audioTold(1200)
  const ask = (...names: string[]) => tell(names.map((name) => [name, soundOf(100)] as const))
  ask('a', 'b', 'c')
  expect(ask('a')).toEqual({ audio: [], forget: [] })
  expect(ask('d').forget).toEqual(['b'])
})
