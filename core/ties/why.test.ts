import { createOffline, EventType, renderOffline, toScore } from '../engine'
import type { StrikeRecord } from '../engine'
import { createBand, createKit, createPad, createTurn, wholeClip } from '../kit'
import type { AudioHash, Kit, OwnSettings, Pad, Tie, TieId } from '../kit'
import { testIds } from '../kit/testing'
import { whyWords } from '.'

const RATE = 48000
const makeId = testIds(31)
const hash = 'a'.repeat(64) as AudioHash
const audio = { sampleRateHz: RATE, channels: [new Float32Array(RATE).fill(0.01)] }

function padOf(name: string, own: OwnSettings = {}): Pad {
  const pad = createPad(makeId, { name, responses: [], ...own })
  const clip = wholeClip(hash, { frames: RATE, channels: 1 })
  return { ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0]!.id]: clip })])] }
}

/** What is told of each strike that the engine decides, after strikes of these pads, 1 ms apart. */
function told(pads: readonly Pad[], ties: readonly Tie[], struck: readonly Pad[], more: Partial<Kit> = {}): string[][] {
  const kit: Kit = { ...createKit(makeId, 'Why'), ...more, pads: [...pads], ties: [...ties] }
  const { engine, loader } = createOffline(kit, RATE, () => audio)
  const events = struck.map((pad, i) => ({
    frame: 48 * i,
    type: EventType.strike,
    padSlot: loader.slotOf(pad.id),
    velocity: 90,
    key: i + 1,
  }))
  const records: StrikeRecord[] = []
  renderOffline(engine, toScore(events), 48 * struck.length + 4800, 512, (record) => records.push(record))
  const idsOf = (slots: readonly number[]) => pads.filter(({ id }) => slots.includes(loader.slotOf(id))).map(({ id }) => id)
  return records.map((record) =>
    whyWords(kit, {
      ...record,
      padId: idsOf([record.padSlot])[0],
      struckId: idsOf([record.struckSlot])[0],
      chokedIds: idsOf(record.chokedSlots),
      roomIds: idsOf(record.roomSlots),
    }),
  )
}
const id = (name: string) => name as TieId

test('a strike along says whose it is, a turn what led to it, and a choke whom and how fast', () => {
  const [hull, hatch, oar] = ['Hull', 'Hatch', 'Oar'].map((name) => padOf(name)) as [Pad, Pad, Pad]
  const along: Tie = { id: id('a'), kind: 'alsoStrike', from: hull.id, to: [{ pad: oar.id, chance: 1, gainDb: 0, delaySeconds: 0 }], passOn: false } // prettier-ignore
  const choke: Tie = { id: id('c'), kind: 'choke', from: oar.id, to: [hull.id], fadeSeconds: 0.012 }
  expect(told([hull, hatch, oar], [along, choke], [hull])).toEqual([
    ['Hull sounded by hand at 90: band 1, turn 1.'],
    ['Oar sounded along with Hull at 90: band 1, turn 1.', 'It silenced Hull within 12 ms.'],
  ])
  const turns: Tie = { id: id('t'), kind: 'takeTurns', pads: [hull.id, hatch.id], pick: 'cycle' }
  expect(told([hull, hatch, oar], [turns], [hull, hull])[1]).toEqual([
    'Hatch sounded by hand at 90, since Hull was struck and it was the turn of this one: band 1, turn 1.',
  ])
})

test('what stops to make room is said, with whose limit was full', () => {
  const [hull, hatch] = [padOf('Hull', { maxStrikes: 2 }), padOf('Hatch')]
  expect(told([hull, hatch], [], [hull, hull, hull])[2]![1]).toBe('The oldest strike of Hull stopped to make room: its own limit was full.')
  const shared: Tie = { id: id('l'), kind: 'limit', name: 'Deck', pads: [hull.id, hatch.id], maxStrikes: 1 }
  expect(told([hull, hatch], [shared], [hull, hatch])[1]![1]).toBe(
    'The oldest strike of Hull stopped to make room: the limit that it shares was full.',
  )
  expect(told([hull, hatch], [], [hull, hatch], { maxStrikes: 1 })[1]![1]).toContain('the limit of the kit was full')
})

test('what makes no sound says so, with why where that is told, and what holds says how it ends', () => {
  const hull = padOf('Hull', { mode: 'silencer' })
  expect(told([hull], [], [hull])).toEqual([['Hull was struck by hand at 90, and nothing of it sounds.']])
  const silent = { padId: hull.id, struckId: hull.id, cameBy: 'bead' as const, velocity: 90, band: -1, turn: -1, voices: 0, chokedIds: [], roomIds: [], fullLimits: [] } // prettier-ignore
  expect(whyWords({ ...createKit(makeId, 'Why'), pads: [hull] }, { ...silent, why: 'it only silences others' })).toEqual([
    'Hull was struck by a bead of the groove at 90, and nothing of it sounds: it only silences others.',
  ])
  const held = padOf('Oar', { mode: 'hold' })
  expect(told([held], [], [held])[0]).toEqual(['Oar sounded by hand at 90: band 1, turn 1.', 'It stops when it is let go.'])
  const round = padOf('Keel', { mode: 'loopUntilStruckAgain' })
  expect(told([round], [], [round, round]).map(([first]) => first)).toEqual(['Keel sounded by hand at 90: band 1, turn 1.', 'Keel was struck by hand at 90, and nothing of it sounds.']) // prettier-ignore
  expect(whyWords(createKit(makeId, 'Other'), silent)).toEqual(['A pad that is not in this kit any more was struck.'])
})
