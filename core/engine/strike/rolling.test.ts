import { aKit, aTone } from '../../kit/builders'
import type { OwnSettings } from '../../kit/kit'
import { responseTo } from '../../kit/responses'
import type { StrikeRecord } from '../strike-record'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import { readActs } from '../acts'
import { controlNumbers, EventType } from '../program/codes'
import { EventField } from '../program/layout'

const RATE = 48000

/** What sounded of two pads of which the first goes on while it is held. */
function played(
  own: OwnSettings,
  events: readonly (Omit<ScoreEvent, 'padSlot'> & { pad?: number })[],
  { frames = RATE, block = 128, ties = [] as object[] } = {},
) {
  const { kit, audio } = aKit([{ own: { mode: 'hold', maxStrikes: 64, ...own }, bands: [[aTone(600, 0.1), aTone(600, 0.2)]] }, { bands: [[aTone(600)]] }]) // prettier-ignore
  const withTies = { ...kit, ties: ties.map((tie, i) => ({ id: `t${i}`, from: kit.pads['isOwn' in tie ? 0 : 1].id, to: [kit.pads[0].id], ...tie })) } as unknown as typeof kit // prettier-ignore
  const { engine, loader } = createOffline(withTies, RATE, (hash) => audio.get(hash), 3)
  const records: StrikeRecord[] = []
  const score = toScore(events.map(({ pad = 0, ...event }) => ({ ...event, padSlot: loader.slotOf(kit.pads[pad].id) })))
  const sound = renderOffline(engine, score, frames, block, (record) => records.push(record))
  const own0 = records.filter(({ padSlot }) => padSlot === loader.slotOf(kit.pads[0].id))
  return { engine, sound, records: own0, framesOf: own0.map(({ frame }) => frame) }
}
const strike = (frame: number, key = 1) => ({ frame, type: EventType.strike, velocity: 90, note: 60, key })
const release = (frame: number, key = 1) => ({ frame, type: EventType.release, key })

test('a held pad goes on in its time until it is let go, through its turns; what was played is the first strike and the release', () => {
  const { framesOf, records, engine } = played({ values: { rollSeconds: 0.02 } }, [strike(100), release(100 + 5000)])
  expect(framesOf).toEqual([100, 1060, 2020, 2980, 3940, 4900])
  expect(records.map(({ turn }) => turn)).toEqual([0, 1, 0, 1, 0, 1])
  expect(records.map(({ velocity }) => velocity)).toEqual([90, 90, 90, 90, 90, 90])
  const acts = readActs(engine.memory, 0)
  const types = Array.from({ length: acts.length / EventField.length }, (_, i) => acts[i * EventField.length + EventField.type])
  expect(types.filter((type) => type !== EventType.kit)).toEqual([EventType.strike, EventType.release])
  expect(engine.strikes.active.includes(1)).toBe(false)
})

test('what was played, rendered again from what was kept of it, is the same to the bit', () => {
  const responses = [{ ...responseTo('pressure', 'rollSeconds', -0.03), id: 'a' }, { ...responseTo('chance', 'startSeconds', 0.004), id: 'b' }] // prettier-ignore
  const press = { frame: 3000, type: EventType.controller, note: controlNumbers.pressure, velocity: 0.7 }
  const own = { values: { rollSeconds: 0.05 }, responses }
  const once = played(own, [strike(200), press, release(15_000)], { frames: 24_000 })
  const acts = readActs(once.engine.memory, 0)
  const kept = Array.from({ length: acts.length / EventField.length }, (_, i) => {
    const value = (field: keyof typeof EventField) => acts[i * EventField.length + EventField[field]]
    return { frame: value('frame'), type: value('type'), velocity: value('velocity'), note: value('note'), key: value('key') }
  }).filter(({ type }) => type !== EventType.kit)
  expect(kept).toHaveLength(3)
  expect(played(own, kept, { frames: 24_000 }).sound).toEqual(once.sound)
})

test('the same in blocks of any length, bit for bit', () => {
  const events = [strike(7), release(9000), strike(12_000, 2), release(20_000, 2)]
  const one = played({ values: { rollSeconds: 0.013 } }, events, { block: 1, frames: 24_000 })
  for (const block of [64, 4096])
    expect(played({ values: { rollSeconds: 0.013 } }, events, { block, frames: 24_000 }).sound).toEqual(one.sound)
})

test('what is not held, or is struck without a key that could let it go, sounds once', () => {
  expect(played({ values: { rollSeconds: 0.02 }, mode: 'oneShot' }, [strike(0)]).framesOf).toEqual([0])
  expect(played({ values: { rollSeconds: 0.02 } }, [strike(0, 0)]).framesOf).toEqual([0])
  expect(played({ values: {} }, [strike(0)]).framesOf).toEqual([0])
})

test('two keys go on each for itself, and one is let go without the other', () => {
  const { framesOf } = played({ values: { rollSeconds: 0.1 } }, [strike(0, 1), strike(1000, 2), release(12_000, 1), release(30_000, 2)])
  expect(framesOf).toEqual([0, 1000, 4800, 5800, 9600, 10_600, 15_400, 20_200, 25_000, 29_800])
})

test('controls move how close strikes follow and where in the clip they begin, each as it stands when its strike comes', () => {
  const responses = [
    { ...responseTo('pressure', 'rollSeconds', -0.09), id: 'a' },
    { ...responseTo('wheel', 'startSeconds', 0.005), id: 'b' },
  ]
  const press = (frame: number, value: number) => ({ frame, type: EventType.controller, note: controlNumbers.pressure, velocity: value })
  const { framesOf } = played({ values: { rollSeconds: 0.1 }, responses }, [strike(0), press(4000, 1), press(7000, 0.5), release(14_000)])
  expect(framesOf).toEqual([0, 4800, 5280, 5760, 6240, 6720, 7200, 9840, 12_480])
})

test('silenced by another pad or stopped it goes on no longer; struck anew it does', () => {
  const values = { rollSeconds: 0.05 }
  const silenced = played({ values }, [strike(0), { ...strike(5000, 9), pad: 1 }, strike(10_000, 2), release(13_000, 2)], { ties: [{ kind: 'choke', fadeSeconds: 0 }] }) // prettier-ignore
  expect(silenced.framesOf).toEqual([0, 2400, 4800, 10_000, 12_400])
  const stopped = played({ values }, [strike(0), { frame: 3000, type: EventType.stopAll }])
  expect(stopped.framesOf).toEqual([0, 2400])
})

test('let go, a pad silences another that goes on, whichever was struck last; one that silences itself goes on', () => {
  const values = { rollSeconds: 0.05 }
  const letGo = played({ values }, [{ ...strike(0, 9), pad: 1 }, strike(1000), { ...release(5000, 9), pad: 1 }], { ties: [{ kind: 'choke', on: 'letGo', fadeSeconds: 0 }], frames: 20_000 }) // prettier-ignore
  expect(letGo.framesOf).toEqual([1000, 3400])
  const own = played({ values }, [strike(0), release(9000)], { ties: [{ kind: 'choke', fadeSeconds: 0, isOwn: true }] })
  expect(own.framesOf).toEqual([0, 2400, 4800, 7200])
})

test('a bead of a groove strikes it once, and stops no sooner or later for it', () => {
  const { kit, audio } = aKit([{ own: { mode: 'hold', values: { rollSeconds: 0.05 } }, bands: [[aTone(600)]] }])
  const bead = { id: 'bead' as never, step: 0, velocity: 100 }
  const groove = { id: 'groove' as never, name: 'G', lengthSteps: 16, stepsPerBeat: 4, swing: 0.5, strings: [{ id: 'string' as never, padId: kit.pads[0].id, beads: [bead] }] } // prettier-ignore
  const { engine, loader } = createOffline({ ...kit, tempoBpm: 120, grooves: [groove] } as never, RATE, (hash) => audio.get(hash), 3)
  const records: StrikeRecord[] = []
  const play = { frame: 0, type: EventType.groove, padSlot: 0 }
  renderOffline(engine, toScore([play]), RATE, 128, (record) => records.push(record))
  expect(records.filter(({ padSlot }) => padSlot === loader.slotOf(kit.pads[0].id)).map(({ frame }) => frame)).toEqual([0])
})

test('it never follows closer than 4 ms, whatever moves it', () => {
  const responses = [{ ...responseTo('velocity', 'rollSeconds', 5), id: 'a' }]
  const { framesOf } = played({ values: { rollSeconds: 0.01 }, responses }, [{ ...strike(0), velocity: 1 }, release(1000)])
  expect(framesOf).toEqual([0, 192, 384, 576, 768, 960])
})
