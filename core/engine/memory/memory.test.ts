import { seeded } from '../../kit/builders'
import { readActs } from '../acts'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'
import { DoneField, EventField, LogField, StatusField } from '../program/layout'
import { createEngine } from '../state'
import { randomRulesKit } from '../testing/rules-kits'
import { ACT_RECORDS, createMemory, doneOf, LOG_RECORDS } from './memory'
import { createPrograms } from './programs'

test('before an engine has run, and while none plays, no groove stands on any beat', () => {
  const memory = createMemory(false)
  const beats = () => [memory.status[StatusField.grooveBeat], memory.status[StatusField.songBeat]]
  expect([beats(), memory.status[StatusField.frame]]).toEqual([[-1, -1], 0])
  renderOffline(createEngine(memory, 48000), toScore([]), 256)
  expect([beats(), memory.status[StatusField.frame]]).toEqual([[-1, -1], 256])
})

/** An array that tells of each place before it is written. */
const watched = (array: Float64Array, before: (place: number) => void) =>
  new Proxy(array, {
    get: (target, name) => Reflect.get(target, name, target) as unknown,
    set: (target, name, value: number) => (before(Number(name)), Reflect.set(target, name, value, target)),
  })

test.each([1, 2, 3, 4, 5, 6])(
  'what another thread is told of is written to its end: strikes and acts, whatever they do (kit %i)',
  (seed) => {
    const { kit, audio } = randomRulesKit(seed)
    const { engine } = createOffline(kit, 48000, (hash) => audio.get(hash))
    const { memory } = engine
    const late = new Set<string>()
    let writes = 0
    const watch = (array: Float64Array, field: number, records: number, width: number, name: string) =>
      watched(array, (place) => {
        writes++
        if (Math.floor(place / width) !== doneOf(memory, field) % records) late.add(`${name} ${place % width}`)
      })
    const log = watch(memory.log, DoneField.strikes, LOG_RECORDS, LogField.length, 'strike')
    const acts = watch(memory.acts, DoneField.acts, ACT_RECORDS, EventField.length, 'act')
    Object.assign(engine, { memory: { ...memory, log, acts } })
    const random = seeded(seed)
    const score = Array.from({ length: 200 }, (_, i) => ({
      frame: i * 90,
      type: random() < 0.2 ? EventType.release : EventType.strike,
      padSlot: Math.floor(random() * kit.pads.length),
      velocity: 1 + Math.floor(random() * 127),
    }))
    renderOffline(engine, toScore(score), 20_000)
    expect([...late]).toEqual([])
    expect(doneOf(memory, DoneField.strikes)).toBeGreaterThan(100)
    expect(readActs(memory)).toHaveLength(201 * EventField.length) // with the kit's own
    expect(readActs(memory, 3, 7)).toEqual(memory.acts.slice(3 * EventField.length, 7 * EventField.length)) // whatever has acted since
    expect(writes).toBeGreaterThan(200 * EventField.length)
  },
)

test('a program is not given away that begins to sound while it is asked who uses it', () => {
  const memory = createMemory(false)
  memory.done[DoneField.kit] = 1
  const given: string[] = []
  // The engine goes on between two looks of the page: a strike on the old program, and then it plays the new state.
  const uses = new Proxy(memory.uses, {
    get(target, place) {
      const seen = Reflect.get(target, place, target) as unknown
      target[Number(place)] = 1
      memory.done[DoneField.kit] = 2
      return seen
    },
  })
  const clips = { isAtHand: () => true, wasPlaced: () => false }
  const programs = createPrograms({ ...memory, uses }, clips, (key) => given.push(key) > 0, () => undefined) // prettier-ignore
  for (const key of ['old', 'new']) {
    programs.load(0, [key], (now) => (now.keys.push(key), new Float64Array(8)))
    programs.publish()
  }
  programs.sweep()
  expect(given).toEqual([])
  programs.sweep()
  expect(given).toEqual([]) // it sounds
})
