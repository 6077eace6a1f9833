import { createOffline, EventType, renderOffline, toScore } from '../engine'
import { applyEdit, createBand, createKit, createPad, createTurn, kitSchema, wholeClip } from '../kit'
import type { AudioHash, Kit, KitEdit, Pad } from '../kit'
import { seeded, testIds } from '../kit/testing'
import { feetApart, feetOf, feetTogether, twoFeet } from '.'

const RATE = 48000
const makeId = testIds(5)
const hash = 'c'.repeat(64) as AudioHash
const audio = { sampleRateHz: RATE, channels: [new Float32Array(RATE).fill(0.01)] }
const edited = (kit: Kit, edits: readonly KitEdit[]): Kit => edits.reduce(applyEdit, kit)

/** A kit of one pad whose two bands have so many turns, each of its own stretch of the recording. */
function aWalk(counts: readonly number[]): { kit: Kit; pad: Pad } {
  const pad = createPad(makeId, { name: 'Deck', responses: [] }, 36)
  let at = 0
  const clip = () => ({ ...wholeClip(hash, { frames: RATE, channels: 1 }), startFrame: (at += 100), endFrame: at + 90 })
  const bands = counts.map((count, i) => createBand(makeId, i === 0 ? 1 : 64, Array.from({ length: count }, () => createTurn(makeId, { [pad.rays[0]!.id]: clip() })))) // prettier-ignore
  const full = { ...pad, bands }
  return { kit: { ...createKit(makeId, 'Walk'), pads: [full] }, pad: full }
}

/** Which clip each strike sounds, by feet that come down by chance: its band and turn among all, and the foot. */
function walked(kit: Kit, seed: number, strikes: number) {
  const random = seeded(seed)
  const { engine, loader } = createOffline(kit, RATE, () => audio)
  const feet = Array.from({ length: strikes }, () => Math.floor(random() * 2))
  const events = feet.map((foot, i) => ({
    frame: 500 * i,
    type: EventType.strike,
    padSlot: loader.slotOf(kit.pads[foot]!.id),
    velocity: 90,
    key: 1,
  }))
  const heard: string[] = []
  renderOffline(engine, toScore(events), 500 * strikes, 512, ({ padSlot, band, turn }) => {
    const own = kit.pads.find(({ id }) => loader.slotOf(id) === padSlot)!
    heard.push((own.bands.length > 0 ? own : kit.pads[0]!).bands[band]!.turns[turn]!.id)
  })
  return { feet, heard }
}

test('two feet from one pool: whichever comes down, no two alike follow each other, and each round has every one once', () => {
  for (let seed = 1; seed < 40; seed++) {
    const count = 2 + (seed % 7)
    const { kit, pad } = aWalk([1, count])
    const made = edited(kit, twoFeet(makeId, kit, pad.id)!)
    expect(kitSchema.safeParse(made).success).toBe(true)
    expect(feetOf(made, pad.id)).toEqual({ left: pad.id, right: made.pads[1]!.id, areApart: false })
    const { heard } = walked(made, seed, 60)
    for (let i = 1; i < heard.length; i++) expect(heard[i]).not.toBe(heard[i - 1])
    for (let round = 0; round + count <= heard.length; round += count) expect(new Set(heard.slice(round, round + count)).size).toBe(count)
  }
})

test('kept apart, each foot has its own half, none twice running; together again all are there', () => {
  for (let seed = 1; seed < 20; seed++) {
    const { kit, pad } = aWalk([1, 4 + (seed % 5)])
    const made = edited(kit, twoFeet(makeId, kit, pad.id)!)
    const apart = edited(made, feetApart(made, feetOf(made, pad.id)!))
    expect(feetOf(apart, pad.id)!.areApart).toBe(true)
    const { feet, heard } = walked(apart, seed, 60)
    const of = (foot: number) => new Set(heard.filter((_one, i) => feet[i] === foot))
    expect([...of(0)].filter((one) => of(1).has(one))).toEqual([])
    for (let i = 1; i < heard.length; i++) expect(heard[i]).not.toBe(heard[i - 1])
    expect(apart.pads.map(({ bands }) => bands[0]!.turns.length)).toEqual([1, 1])
    const again = edited(apart, feetTogether(apart, feetOf(apart, pad.id)!))
    expect(again.pads[0]!.bands.map(({ turns }) => turns.map(({ id }) => id))).toEqual(
      pad.bands.map(({ turns }) => turns.map(({ id }) => id)),
    )
    expect(again.pads[1]!.bands).toEqual([])
  }
})

test('a pad that is of a drum already walks on no two feet', () => {
  const { kit, pad } = aWalk([2])
  const made = edited(kit, twoFeet(makeId, kit, pad.id)!)
  expect(twoFeet(makeId, made, pad.id)).toBeUndefined()
  expect(feetOf(kit, pad.id)).toBeUndefined()
})
