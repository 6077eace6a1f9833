import fc from 'fast-check'

import { createHeld } from '.'
import type { PadId } from '../kit/ids'

const inputs = ['fingers', 'keys', 'a controller'] as const
const keys = ['1', '2', '3']
const pads = ['pad-a', 'pad-b', 'pad-c'] as PadId[]

type Act =
  | { readonly does: 'strike' | 'release'; readonly input: string; readonly key: string; readonly padIds: PadId[] }
  | { readonly does: 'pedal'; readonly input: string; readonly isDown: boolean }
  | { readonly does: 'letGo'; readonly input?: string }

const input = fc.constantFrom(...inputs)
const acts: fc.Arbitrary<Act> = fc.oneof(
  fc.record({ does: fc.constantFrom('strike' as const, 'release' as const), input, key: fc.constantFrom(...keys), padIds: fc.subarray(pads) }),
  fc.record({ does: fc.constant('pedal' as const), input, isDown: fc.boolean() }),
  fc.record({ does: fc.constant('letGo' as const), input: fc.option(input, { nil: undefined }) }),
) // prettier-ignore

/** A target that counts what sounds, and refuses what no hand can do: letting go what was not struck. */
function aTarget() {
  const sounding = new Map<string, number>()
  return {
    sounding,
    strike: (padId: PadId, _velocity: number, key: number) => {
      const id = `${padId} ${key}`
      expect(sounding.has(id)).toBe(false) // a key is up before it comes down again
      sounding.set(id, 1)
    },
    release: (padId: PadId, key: number) => {
      expect(sounding.delete(`${padId} ${key}`)).toBe(true)
    },
  }
}

/** The rules told slowly: which keys are down, which are held by a pedal. */
function model(list: readonly Act[]): string[] {
  let down: { input: string; key: string; padIds: PadId[]; isUp: boolean }[] = []
  const pedals = new Set<string>()
  for (const act of list) {
    if (act.does === 'strike') {
      down = down.filter(({ input, key }) => input !== act.input || key !== act.key)
      if (act.padIds.length > 0) down.push({ ...act, isUp: false })
    } else if (act.does === 'release') down = down.map((one) => (one.input === act.input && one.key === act.key ? { ...one, isUp: true } : one))
    else if (act.does === 'pedal') {
      if (act.isDown) pedals.add(act.input)
      else pedals.delete(act.input)
    }
    else {
      down = down.filter(({ input }) => act.input !== undefined && input !== act.input)
      if (act.input === undefined) pedals.clear()
      else pedals.delete(act.input)
    }
    down = down.filter(({ input, isUp }) => !isUp || pedals.has(input))
  }
  return down.flatMap(({ input, key, padIds }) => padIds.map((padId) => `${input} ${key} ${padId}`)).sort()
} // prettier-ignore

test('whatever hands, pedals and plugs do, exactly that sounds which is held; and letting go leaves nothing', () => {
  fc.assert(
    fc.property(fc.array(acts, { maxLength: 60 }), (list) => {
      const target = aTarget()
      const held = createHeld(target)
      for (const act of list) {
        if (act.does === 'strike') held.strike({ ...act, velocity: 90 })
        else if (act.does === 'release') held.release(act.input, act.key)
        else if (act.does === 'pedal') held.pedal(act.input, act.isDown)
        else held.letGo(act.input)
      }
      const now = inputs.flatMap((one) => keys.flatMap((key) => held.padsOf(one, key).map((padId) => `${one} ${key} ${padId}`)))
      expect(now.sort()).toEqual(model(list))
      expect(target.sounding.size).toBe(now.length)
      held.letGo()
      expect([target.sounding.size, held.count()]).toEqual([0, 0])
    }),
    { numRuns: 300 },
  )
})

test('letting go reaches the pads that were struck, with the number, velocity, note and moment of the strike', () => {
  const done: unknown[][] = []
  const held = createHeld({ strike: (...said) => done.push(['strike', ...said]), release: (...said) => done.push(['release', ...said]) }, 7)
  held.strike({ input: 'keys', key: 'KeyZ', padIds: pads.slice(0, 2), velocity: 101, note: 36, atMs: 12 })
  held.strike({ input: 'fingers', key: 'KeyZ', padIds: pads.slice(0, 1), velocity: 1 })
  held.release('keys', 'KeyZ')
  expect(done).toEqual([
    ['strike', 'pad-a', 101, 7, 36, 12],
    ['strike', 'pad-b', 101, 7, 36, 12],
    ['strike', 'pad-a', 1, 8, undefined, undefined],
    ['release', 'pad-a', 7],
    ['release', 'pad-b', 7],
  ])
})
