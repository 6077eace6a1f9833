import { anImpulse, aKit, seeded } from '../../kit/builders'
import type { PadId, TieId } from '../../kit/ids'
import type { Kit, Tie } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import type { StrikeRecord } from '../strike-record'
import { EventType } from '../program/codes'

const RATE = 48000

interface Move {
  readonly frame: number
  readonly pad?: number
  readonly controller?: number
  readonly value?: number
}

/** Pads of a short sound each. */
function padsOf(count: number) {
  const { kit, audio } = aKit(Array.from({ length: count }, () => ({ bands: [[anImpulse(40)]] })))
  return { kit, audio }
}

function sounded(kit: Kit, audio: ReturnType<typeof padsOf>['audio'], moves: readonly Move[], frames: number, blockFrames = 4096) {
  const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const events = moves.map(({ frame, pad, controller = 0, value = 0 }, i): ScoreEvent =>
    pad === undefined
      ? { frame, type: EventType.controller, padSlot: 0, note: controller, velocity: value }
      : { frame, type: EventType.strike, padSlot: loader.slotOf(kit.pads[pad].id), velocity: 100, key: i + 1 },
  )
  const records: StrikeRecord[] = []
  const [left] = renderOffline(engine, toScore(events), frames, blockFrames, (record) => records.push(record))
  const placeOf = new Map(kit.pads.map((pad, place) => [loader.slotOf(pad.id), place]))
  return { heard: records.map(({ frame, padSlot }) => [frame, placeOf.get(padSlot)!]), left, records, engine }
}

/**
 * The rules, as they are said to people, with nothing of the engine: a strike goes through the openings of its pad, to the
 * pad whose threshold the controller has reached, or the lowest; then to the next of the pads that take turns with it, the
 * first one first; what sounds strikes others along, so much later; passed on only where the tie says so, and never to a
 * pad that is on the way already.
 */
function modelled(kit: Kit, moves: readonly Move[]): number[][] {
  const place = (id: PadId) => kit.pads.findIndex((pad) => pad.id === id)
  const tieOf = <Kind extends Tie['kind']>(kind: Kind, has: (tie: Extract<Tie, { kind: Kind }>) => boolean) =>
    kit.ties.find((tie): tie is Extract<Tie, { kind: Kind }> => tie.kind === kind && has(tie as never))
  const controls = new Map<number, number>()
  const turns = new Map<string, number>()
  const heard: number[][] = []
  let waiting = moves.map((move, order) => ({ ...move, order, way: [] as number[], passOn: true }))
  let order = waiting.length
  for (;;) {
    const next = [...waiting].sort((a, b) => a.frame - b.frame || a.order - b.order)[0]
    if (!next) return heard
    waiting = waiting.filter((one) => one !== next)
    if (next.pad === undefined) {
      controls.set(next.controller!, next.value!)
      continue
    }
    let pad = next.pad
    const openings = tieOf('openings', ({ steps }) => steps.some((step) => place(step.pad) === pad))
    if (openings) {
      const steps = [...openings.steps].sort((a, b) => a.from - b.from)
      const value = controls.get(openings.controller) ?? 0
      pad = place((steps.filter((step) => step.from <= value).pop() ?? steps[0]).pad)
    }
    const turn = tieOf('takeTurns', ({ pads }) => pads.some((id) => place(id) === pad))
    if (turn) {
      const count = turns.get(turn.pads[0]) ?? 0
      turns.set(turn.pads[0], count + 1)
      pad = place(turn.pads[count % turn.pads.length])
    }
    if (next.way.includes(pad)) continue
    heard.push([next.frame, pad])
    if (!next.passOn) continue
    for (const tie of kit.ties) {
      if (tie.kind !== 'alsoStrike' || place(tie.from) !== pad) continue
      for (const to of tie.to) {
        const way = [...next.way, pad]
        if (to.chance === 0 || way.includes(place(to.pad))) continue
        const frame = next.frame + Math.floor(to.delaySeconds * RATE + 0.5)
        waiting.push({ frame, pad: place(to.pad), order: order++, way, passOn: tie.passOn })
      }
    }
  }
}

function randomTies(kit: Kit, random: () => number): Tie[] {
  const ids = kit.pads.map(({ id }) => id)
  const some = () => ids.filter(() => random() < 0.4)
  const ties: Tie[] = []
  for (let i = 0; i < 6; i++) {
    const id = `tie-${i}` as TieId
    const [first, second] = [some(), some()]
    if (first.length === 0 || second.length === 0) continue
    const to = second.map((pad) => ({ pad, chance: random() < 0.2 ? 0 : 1, gainDb: -3, delaySeconds: Math.floor(random() * 40) / 1000 }))
    const steps = first.map((pad, at) => ({ from: at * 30 + Math.floor(random() * 20), pad }))
    const kinds: Tie[] = [
      { id, kind: 'alsoStrike', from: first[0], to, passOn: random() < 0.5 },
      { id, kind: 'takeTurns', pads: first, pick: 'cycle' },
      { id, kind: 'openings', controller: 4 + (i % 2), steps },
    ]
    ties.push(kinds[Math.floor(random() * 3)])
  }
  return ties
}

test('random ties of every kind sound the pads, on the frames, that their rules say', () => {
  let strikes = 0
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed)
    const rig = padsOf(6)
    const kit = { ...rig.kit, ties: randomTies(rig.kit, random) }
    const moves = Array.from({ length: 60 }, (_, i): Move => {
      const frame = 7 + i * 311
      return random() < 0.2
        ? { frame, controller: 4 + Math.floor(random() * 2), value: Math.floor(random() * 128) }
        : { frame, pad: Math.floor(random() * 6) }
    })
    const expected = modelled(kit, moves)
    for (const block of seed % 8 === 0 ? [4096, 101] : [4096])
      expect([seed, sounded(kit, rig.audio, moves, 24000, block).heard]).toEqual([seed, expected])
    strikes += expected.length
  }
  expect(strikes).toBeGreaterThan(3000)
})

test('what is struck along has its level and delay, comes by its chance, and is let go with the finger', () => {
  const { kit, audio } = aKit([{ own: { mode: 'hold' }, bands: [[anImpulse(1)]] }, { own: { mode: 'hold' }, bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(9000).fill(0.5)] }]] }]) // prettier-ignore
  const also = (chance: number, gainDb: number): Kit => ({
    ...kit,
    ties: [{ id: 'also' as TieId, kind: 'alsoStrike', from: kit.pads[0].id, to: [{ pad: kit.pads[1].id, chance, gainDb, delaySeconds: 0.01 }], passOn: false }],
  }) // prettier-ignore
  const { left } = sounded(also(1, -6.0206), audio, [{ frame: 0, pad: 0 }], 3000)
  expect([left[479], Number(left[480].toFixed(4))]).toEqual([0, 0.25])
  const { engine, loader } = createOffline(also(1, 0), RATE, (hash) => audio.get(hash))
  const padSlot = loader.slotOf(kit.pads[0].id)
  const held: ScoreEvent[] = [{ frame: 0, type: EventType.strike, padSlot, velocity: 100, key: 5 }, { frame: 200, type: EventType.release, padSlot, key: 5 }] // prettier-ignore
  const [again] = renderOffline(engine, toScore(held), 3000)
  expect(again.slice(480 + 192).every((sample) => sample === 0)).toBe(true) // it is let go as soon as it sounds
  const strikes = Array.from({ length: 400 }, (_, i) => ({ frame: i * 100, pad: 0 }))
  const along = sounded(also(0.3, 0), audio, strikes, 44000).heard.filter(([, pad]) => pad === 1).length
  expect(along / 400).toBeCloseTo(0.3, 1)
})

test('a controller that closes silences what it has closed, and pads share a limit without silencing each other', () => {
  const long = { sampleRateHz: RATE, channels: [new Float32Array(20000).fill(0.1)] }
  const { kit, audio } = aKit([{ bands: [[long]] }, { bands: [[long]] }, { bands: [[long]] }])
  const [closed, open, other] = kit.pads.map(({ id }) => id)
  const steps = [{ from: 0, pad: closed }, { from: 64, pad: open }] // prettier-ignore
  const hat: Kit = { ...kit, ties: [{ id: 'hat' as TieId, kind: 'openings', controller: 4, steps, chokeAt: 20 }] }
  const moves = [{ frame: 0, controller: 4, value: 100 }, { frame: 10, pad: 0 }, { frame: 4000, controller: 4, value: 30 }, { frame: 8000, controller: 4, value: 20 }] // prettier-ignore
  const { heard, left } = sounded(hat, audio, moves, 12000)
  expect(heard).toEqual([[10, 1]])
  expect([left[7990] > 0.09, left[8300]]).toEqual([true, 0])
  const shared: Kit = { ...kit, ties: [{ id: 'two' as TieId, kind: 'limit', name: 'two', pads: [closed, open], maxStrikes: 2 }] }
  const strikes = [{ frame: 0, pad: 0 }, { frame: 100, pad: 1 }, { frame: 200, pad: kit.pads.findIndex(({ id }) => id === other) }, { frame: 300, pad: 0 }] // prettier-ignore
  const three = sounded(shared, audio, strikes, 4000)
  expect(three.left[250]).toBeCloseTo(0.3, 5)
  expect(three.left[3000]).toBeCloseTo(0.3, 5) // the fourth took the place of the first
})
