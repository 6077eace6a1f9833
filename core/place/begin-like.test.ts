import { createGroove, withBead } from '../groove'
import { applyEdit, audioInUse, createKit, createPad, kitKind, kitSchema, padSettings } from '../kit'
import type { Bus, Groove, Kit, Pad } from '../kit'
import { randomKitOf, seeded, testIds } from '../kit/testing'
import { grooveOn, kitLike } from '.'

const makeId = testIds(12)
const seeds = Array.from({ length: 40 }, (_, i) => i + 1)

test('a kit like any other has its pads, notes, settings and ties, none of its sounds, and is whole', () => {
  let compared = 0
  for (const seed of seeds) {
    const kit = randomKitOf(kitSchema, seeded(seed)) as Kit
    if (kitKind.fault(kit)) continue
    compared++
    const like = kitLike(makeId, kit, 'Like it')
    expect(kitKind.fault(like)).toBeUndefined()
    expect(audioInUse(like)).toEqual([])
    expect(like.id).not.toBe(kit.id)
    expect(like.pads.map(({ id, notes, own }) => [id, notes, own])).toEqual(kit.pads.map(({ id, notes, own }) => [id, notes, own]))
    const silent = (bus: Bus) => ({ ...bus, inserts: bus.inserts.map(({ audio: _audio, ...insert }) => insert) })
    expect(like.buses).toEqual(kit.buses.map(silent))
    expect(like.ties).toEqual(kit.ties.filter(({ kind }) => kind !== 'parts'))
  }
  expect(compared).toBeGreaterThan(10)
})

const padOf = (name: string, family: 'kick' | 'snare' | 'hat' | 'other', note: number): Pad => createPad(makeId, { name, family }, note)
const [thump, slap, tick, chain] = [
  padOf('Thump', 'kick', 36),
  padOf('Slap', 'snare', 38),
  padOf('Tick', 'hat', 42),
  padOf('Chain', 'other', 50),
]
const from: Kit = { ...createKit(makeId, 'From'), pads: [thump, slap, tick, chain] }
const [drop, tock, keel] = [padOf('Drop', 'kick', 36), padOf('Tick', 'hat', 42), padOf('Keel', 'hat', 44)]
const to: Kit = { ...createKit(makeId, 'To'), pads: [drop, tock, keel] }
const beats = [[thump, 0], [thump, 8], [slap, 4], [tick, 2], [tick, 6], [chain, 3]] as const // prettier-ignore
const groove = beats.reduce((made: Groove, [pad, step]) => withBead(made, pad.id, step, 90), createGroove(makeId, 'Tide'))

test('a groove goes to pads of the same name, kind or family; what nobody answers is named, and waits for nothing that is gone', () => {
  const [first] = groove.strings.find(({ padId }) => padId === chain.id)!.beads
  const waiting: Groove = { ...groove, lanes: [], strings: groove.strings.map((string) => (string.padId === thump.id ? { ...string, beads: string.beads.map((bead, i) => (i === 0 ? { ...bead, chance: 0.5, when: { after: first!.id } } : bead)) } : string)) } // prettier-ignore
  const { groove: made, without } = grooveOn(makeId, from, waiting, to)
  expect(without).toEqual(['Slap', 'Chain'])
  const shown = made.strings.map(({ padId, beads }) => [
    padSettings(
      to,
      to.pads.find(({ id }) => id === padId)!,
    ).name,
    beads.map(({ step }) => step),
  ])
  expect(shown).toEqual([['Drop', [0, 8]], ['Tick', [2, 6]]]) // prettier-ignore
  expect(made.strings[0]!.beads[0]).toMatchObject({ chance: 0.5, velocity: 90 })
  expect(made.strings[0]!.beads[0]!.when).toBeUndefined()
  const after = applyEdit(to, { type: 'putGroove', groove: made })
  expect(kitKind.fault(after)).toBeUndefined()
  expect(after.grooves[0]).toEqual(made)
})

test('whatever groove of a random kit, it is whole on any other kit, and every bead lies on a pad of that', () => {
  for (const seed of seeds) {
    const [one, other] = [seed, seed + 500].map((each) => randomKitOf(kitSchema, seeded(each)) as Kit)
    if (kitKind.fault(one!) || kitKind.fault(other!)) continue
    for (const each of one!.grooves) {
      const { groove: made } = grooveOn(makeId, one!, each, other!)
      const after = applyEdit(other!, { type: 'putGroove', groove: made })
      expect(kitKind.fault(after)).toBeUndefined()
      expect(after.grooves.find(({ id }) => id === made.id)).toEqual(made)
    }
  }
})
