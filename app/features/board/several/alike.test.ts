import { createRay, padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { oddOnes } from '@heliaster/core/place'

import { makeId } from '../../../documents/make-id'
import { after, aKitOf, aPad } from '../../../testing/a-kit'
import { copySettingsEdits } from './copy-settings'
import { settingsInWords } from './settings-in-words'

const withRays = (): Pad => {
  const pad = aPad(2)
  return { ...pad, rays: [{ ...pad.rays[0]!, name: 'Keel' }, createRay(makeId, 'Deck')] }
}
const items = (kit: Kit) => kit.pads.map((pad) => ({ name: pad.id, values: settingsInWords(kit, pad) }))
const oddIn = (kit: Kit) =>
  oddOnes(items(kit)).map(({ setting, odd }) => [setting, odd.map(({ name }) => kit.pads.findIndex(({ id }) => id === name))])

test('the odd one out is found by its shape, by a microphone of the same name, and by turns with settings of their own', () => {
  const kit = aKitOf(withRays(), withRays(), withRays(), withRays())
  expect(oddIn(kit)).toEqual([])
  const [one, two, three] = kit.pads
  const shaped = after(kit, [{ type: 'setPad', padId: one!.id, own: { values: { driveDb: 12 } } }])
  expect(oddIn(shaped)).toEqual([['Drive', [0]]]) // once, not for each of its rays again
  const muffled = after(kit, [{ type: 'setRay', padId: two!.id, rayId: two!.rays[1]!.id, fields: { choices: { filter1Kind: 'lowPass' } } }])
  expect(oddIn(muffled)).toEqual([['Ray Deck, filter', [1]]])
  const bands = three!.bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn, i) => (i === 0 ? { ...turn, values: { tuneCents: 50 } } : turn)),
  }))
  expect(oddIn(after(kit, [{ type: 'setPadFilling', padId: three!.id, bands }]))).toEqual([['Turns with settings of their own', [2]]])
})

test('a microphone that only some pads have is compared among those', () => {
  const kit = aKitOf(aPad(1), withRays(), withRays(), withRays(), withRays())
  const ray = kit.pads[4]!.rays[1]!
  const louder = after(kit, [{ type: 'setRay', padId: kit.pads[4]!.id, rayId: ray.id, fields: { values: { gainDb: 6 } } }])
  expect(oddIn(louder)).toEqual([['Ray Deck, level', [4]]])
})

test('rays take the settings of the rays of the same name, and lose what those have not', () => {
  const kit = aKitOf(withRays(), withRays())
  const [from, to] = kit.pads as [Pad, Pad]
  const set = after(kit, [
    {
      type: 'setRay',
      padId: from.id,
      rayId: from.rays[1]!.id,
      fields: { values: { filter1CutoffHz: 400 }, choices: { filter1Kind: 'highPass' }, mute: true },
    },
    {
      type: 'setRay',
      padId: to.id,
      rayId: to.rays[1]!.id,
      fields: { values: { driveDb: 9 }, order: ['drive', 'transient', 'crush', 'filter1', 'filter2'] },
    },
    { type: 'setRay', padId: to.id, rayId: to.rays[0]!.id, fields: { values: { gainDb: 2 } } },
  ])
  const copied = after(set, copySettingsEdits(set.pads[0]!, set.pads, 'rays'))
  const [keel, deck] = copied.pads[1]!.rays
  expect(deck).toMatchObject({ values: { filter1CutoffHz: 400 }, choices: { filter1Kind: 'highPass' }, mute: true })
  expect(deck!.values?.driveDb).toBeUndefined()
  expect(keel!.values?.gainDb ?? 0).toBe(0)
  expect(padSettings(copied, copied.pads[1]!)).toEqual(padSettings(kit, to)) // the pad itself stays as it was
})
