import { padSettings, shapeOf } from '@heliaster/core/kit'
import type { Kit, RayId } from '@heliaster/core/kit'

import { after, aKitOf, aPad } from '../../../testing/a-kit'
import { reversedOf, reverseEdits } from '../quick/reverse'
import { hasOwn, isSet, targetOf } from './target'
import type { Whom } from './target'

const base = aPad(3)
const second = { ...base.rays[0]!, id: 'ray-second' as RayId, name: 'Second' }
const clipsTwice = base.bands.map((band) => ({
  ...band,
  turns: band.turns.map((turn) => ({ ...turn, clips: { ...turn.clips, [second.id]: Object.values(turn.clips)[0]! } })),
}))
const kit = aKitOf({ ...base, rays: [...base.rays, second], bands: clipsTwice })
const padsOf = (of: Kit) => [of.pads[0]!]
const padOf = (of: Kit) => of.pads[0]!
const ray: Whom = { kind: 'ray', rayId: second.id }
const turn: Whom = { kind: 'turn', turnId: base.bands[0]!.turns[1]!.id }
const own = { values: { filter1CutoffHz: 300 }, choices: { filter1Kind: 'lowPass' as const }, envelopes: { pitch: { points: [{ seconds: 0, value: 100, bend: 0 }] } } } // prettier-ignore

test.each([
  ['a pad', { kind: 'pad' } as Whom],
  ['a ray', ray],
  ['a turn', turn],
])('%s: what is set on it is what holds for it, and goes back by name', (_, whom) => {
  const target = targetOf(kit, padOf(kit), whom)
  const changed = after(kit, target.edits(own))
  const now = targetOf(changed, padOf(changed), whom)
  expect(now.settings.values.filter1CutoffHz).toBe(300)
  expect(now.settings.choices.filter1Kind).toBe('lowPass')
  expect(now.settings.envelopes.pitch.points).toHaveLength(1)
  expect([isSet(now, ['filter1CutoffHz']), isSet(now, ['driveDb'])]).toEqual([true, false])
  expect(hasOwn(now, ['pitch'])).toBe(whom.kind !== 'pad') // a pad that leans on none has nothing to inherit
  const back = after(changed, now.back(['filter1CutoffHz', 'filter1Kind', 'pitch']))
  expect(targetOf(back, padOf(back), whom).settings.values.filter1CutoffHz).toBe(2000)
  expect(isSet(targetOf(back, padOf(back), whom), ['filter1CutoffHz', 'filter1Kind', 'pitch'])).toBe(false)
})

test('what is set on one ray or turn touches no other, nor the pad', () => {
  const rayed = after(kit, targetOf(kit, padOf(kit), ray).edits(own))
  expect(padSettings(rayed, padOf(rayed)).values.filter1CutoffHz).toBe(2000)
  expect(shapeOf(padSettings(rayed, padOf(rayed)), padOf(rayed).rays[0]!).values.filter1CutoffHz).toBe(2000)
  const turned = after(kit, targetOf(kit, padOf(kit), turn).edits(own))
  expect(padOf(turned).bands[0]!.turns.map(({ values }) => values?.filter1CutoffHz)).toEqual([undefined, 300, undefined])
})

test('a ray is drawn alone, a turn alone at any strength; one that is gone is the pad', () => {
  expect(targetOf(kit, padOf(kit), ray).drawn.rays.map(({ mute }) => mute)).toEqual([true, false])
  const drawn = targetOf(kit, padOf(kit), turn).drawn
  expect(drawn.bands.map(({ fromVelocity, turns }) => [fromVelocity, turns.length])).toEqual([[1, 1]])
  expect(targetOf(kit, padOf(kit), { kind: 'ray', rayId: 'gone' as RayId }).whom).toEqual({ kind: 'pad' })
})

test('clips are turned backwards as far as the edit reaches, and forward again', () => {
  const count = (of: Kit) => padOf(of).bands[0]!.turns.flatMap(({ clips }) => Object.values(clips)).filter((clip) => clip !== 'intendedSilence' && clip.reverse).length // prettier-ignore
  const reversed = (whom: Whom) => after(kit, reverseEdits(padsOf(kit), whom, true))
  expect([reversed({ kind: 'pad' }), reversed(ray), reversed(turn)].map(count)).toEqual([6, 3, 2])
  const mixed = reversed(ray)
  expect([reversedOf(padsOf(mixed), { kind: 'pad' }), reversedOf(padsOf(mixed), ray), reversedOf(padsOf(kit), ray)]).toEqual(['some', 'all', 'none']) // prettier-ignore
  expect(count(after(mixed, reverseEdits(padsOf(mixed), { kind: 'pad' }, false)))).toBe(0)
})
