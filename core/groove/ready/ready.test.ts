import { aKit, anImpulse, seeded, testIds } from '../../kit/builders'
import { families } from '../../kit/families'
import type { Family } from '../../kit/families'
import { grooveSchema } from '../../kit/grooves'
import type { Kit } from '../../kit/kit'
import { tappedTempo, withTap } from '../tap-tempo'
import { unrolled } from '../unroll'
import { readyOn, readyPatterns, withFill } from '.'

const kitOf = (...kinds: Family[]): Kit => aKit(kinds.map((family) => ({ own: { family }, bands: [[anImpulse(40)]] }))).kit

test('every ready groove is whole on kits of any families, never two strings on one pad, and moves what there is', () => {
  for (const pattern of readyPatterns) {
    for (const { steps } of pattern.strings) expect([pattern.name, steps.length]).toEqual([pattern.name, pattern.strings[0].steps.length])
    for (let seed = 1; seed <= 30; seed++) {
      const random = seeded(seed * 11)
      for (let i = 0; i < 5; i++) random()
      const kit = kitOf(...Array.from({ length: 1 + Math.floor(random() * 6) }, () => families[Math.floor(random() * families.length)]))
      const { groove, without } = readyOn(testIds(), kit, pattern)
      expect(grooveSchema.safeParse(groove).error?.issues ?? []).toEqual([])
      const pads = groove.strings.map(({ padId }) => padId)
      expect(new Set(pads).size).toBe(pads.length)
      expect(pads.length + without.length).toBe(pattern.strings.length)
    }
  }
})

test('strings go to pads of their family, then to what stands in for it, then to pads of none', () => {
  const kit = kitOf('other', 'wood', 'lowTom', 'closedHat')
  const { groove, without } = readyOn(testIds(), kit, readyPatterns[0])
  expect(groove.strings.map(({ padId }) => kit.pads.findIndex(({ id }) => id === padId))).toEqual([2, 1, 3])
  expect(without).toEqual([])
  const unknown = kitOf('other', 'other', 'other')
  expect(readyOn(testIds(), unknown, readyPatterns[0]).groove.strings.map(({ padId }) => padId)).toEqual(unknown.pads.map(({ id }) => id))
  expect(readyOn(testIds(), kitOf(), readyPatterns[0]).without).toEqual(['kick', 'snare', 'hat'])
})

test('a fill sounds at the end of every fourth lap, and what stood there in the other three', () => {
  const kit = kitOf('kick', 'snare', 'hat')
  const { groove } = readyOn(testIds(), kit, readyPatterns[0])
  const { groove: fill } = readyOn(
    testIds(5),
    kit,
    readyPatterns.find(({ name }) => name === 'Splinter')!,
  )
  const filled = withFill(groove, fill)
  const sounds = { ...kit, grooves: [filled] }
  const snare = kit.pads[1].id
  const inLap = (lap: number) => unrolled(sounds, filled.id, 16).filter(({ beat, padId }) => padId === snare && beat >= lap * 4 && beat < lap * 4 + 4).length // prettier-ignore
  expect(inLap(3)).toBe(1 + 2 + 6) // what came before it, its own strikes, the last one six times
  for (const lap of [0, 1, 2]) expect([2, 3]).toContain(inLap(lap))
  expect(withFill({ ...groove, lengthSteps: 4 }, fill)).toEqual({ ...groove, lengthSteps: 4 })
  expect(filled.strings.find(({ padId }) => padId === kit.pads[2].id)).toEqual(groove.strings[2])
})

test('taps tell a tempo through their tremble, and begin anew after a pause', () => {
  const random = seeded(9)
  let taps: number[] = []
  for (let i = 0; i < 10; i++) taps = withTap(taps, 1000 + i * 500 + 24 * (random() - 0.5))
  expect(Math.abs(tappedTempo(taps)! - 120)).toBeLessThan(1)
  expect(tappedTempo(withTap(taps, 12_000))).toBeUndefined()
  expect(tappedTempo([0, 10, 20])).toBe(400)
})
