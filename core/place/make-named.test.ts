import fc from 'fast-check'

import { hashOf, testIds } from '../kit/builders'
import { createKit, wholeClip } from '../kit/make'
import { kitSchema } from '../kit/kit'
import { editsOfPlan, padsOfPlan } from './make-named'
import { planByNames } from './name-plan'
import { readNames } from './names/read'
import { kitKind, makeChange } from '../kit/document'

const clip = wholeClip(hashOf('a'), { frames: 100, channels: 1 })

function made(names: readonly string[]) {
  const makeId = testIds()
  const kit = createKit(makeId, 'Quay')
  const files = names.map((name) => ({ name, frames: 4800 }))
  const plan = planByNames(files, readNames(files))
  const pads = padsOfPlan(makeId, kit, { plan, clipOf: () => clip })
  const { doc, refused } = makeChange(kitKind, kit, editsOfPlan(kit, pads))
  expect(refused).toEqual([])
  expect(kitSchema.safeParse({ ...doc, audio: {} }).success).toBe(true)
  return { plan, kit: doc }
}

test('a set of which some takes have two more microphones becomes one pad of three rays, and says what lacks', () => {
  const takes = Array.from({ length: 12 }, (_, i) => i + 1)
  const { plan, kit } = made(takes.flatMap((n) => (n <= 4 ? [`thud_${n}.wav`, `thud_${n}_room.wav`, `thud_${n}_far.wav`] : [`thud_${n}.wav`]))) // prettier-ignore
  expect(plan.unplaced).toEqual([])
  expect(kit.pads).toHaveLength(1)
  const [pad] = kit.pads
  expect(pad.rays.map((ray) => ray.name)).toEqual(['Body', 'Far', 'Room'])
  expect(kit.buses.map((bus) => bus.name)).toEqual(['Body', 'far', 'room'])
  expect(pad.bands.flatMap(({ turns }) => turns.map(({ clips }) => Object.keys(clips).length))).toEqual([3, 3, 3, 3, 1, 1, 1, 1, 1, 1, 1, 1]) // prettier-ignore
  expect(plan.pads[0].gaps).toContain('far and room, take 12')
})

test('where every take has a plain file beside two microphones, the plain one is the third', () => {
  const takes = Array.from({ length: 12 }, (_, i) => i + 1)
  const { plan, kit } = made(takes.flatMap((n) => [`thud_${n}.wav`, `thud_${n}_room.wav`, `thud_${n}_far.wav`]))
  expect([plan.unplaced, plan.pads.map(({ gaps }) => gaps)]).toEqual([[], [[]]])
  expect(kit.pads[0].rays.map((ray) => ray.name)).toEqual(['Body', 'Far', 'Room'])
})

test('whatever names there are and whatever lacks, they become a kit that can be read, and each file is placed or told of', () => {
  const part = fc.constantFrom(
    'oar',
    'keel',
    'room',
    'far',
    'close',
    'v1',
    'v2',
    'rr1',
    'soft',
    'hard',
    '1',
    '2',
    '03',
    '36',
    'C2',
    '',
    'ä',
    '001-064',
  )
  const name = fc.array(part, { minLength: 1, maxLength: 6 }).chain((parts) => fc.constantFrom('_', ' ', '-', '').map((by) => `${parts.join(by)}.wav`)) // prettier-ignore
  fc.assert(
    fc.property(fc.uniqueArray(name, { minLength: 1, maxLength: 40 }), (names) => {
      const { plan } = made(names)
      const placed = plan.pads.flatMap(({ bands }) => bands.flatMap(({ turns }) => turns.flatMap(({ files }) => [...files.values()])))
      const all = [...placed, ...plan.unplaced.map(({ file }) => file)].sort((a, b) => a - b)
      expect(all).toEqual(names.map((_, i) => i))
    }),
    { numRuns: 300 },
  )
})
