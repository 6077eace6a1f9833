import fc from 'fast-check'

import { responseSchema } from '../kit'
import type { RayId, Response } from '../kit'
import { likewise, withWander } from '.'
import type { Answering } from '.'

const kinds = ['velocity', 'wheel', 'chance'] as const
const params = ['gainDb', 'tuneCents'] as const
type Plan = { kind: number; param: number; ray: number; amount: number; bypass: boolean }
const plan: fc.Arbitrary<Plan> = fc.record({
  kind: fc.nat(2),
  param: fc.nat(1),
  ray: fc.nat(2),
  amount: fc.integer({ min: -20, max: 20 }),
  bypass: fc.boolean(),
})
const plans = fc.array(plan, { maxLength: 6 })

const raysOf = (prefix: string) => ['Near', 'Far'].map((name) => ({ id: `${prefix}${name}` as RayId, name }))
const made = (prefix: string, list: readonly Plan[]): Answering => {
  const rays = raysOf(prefix)
  const responses = list.map(({ kind, param, ray, amount, bypass }, i): Response => ({
    id: `${prefix}${i}`,
    draw: 0,
    from: { kind: kinds[kind]! },
    to: [{ param: params[param]!, ...(ray > 0 ? { ray: rays[ray - 1]!.id } : {}) }],
    amount,
    bypass,
  }))
  return { responses, rays }
}
/** What is said of a response but its id, with rays by name. */
const said = ({ rays }: Answering, responses: readonly Response[]) =>
  responses.map(({ id: _, to, ...rest }) => ({ ...rest, to: to.map(({ param, ray }) => [param, rays.find(({ id }) => id === ray)?.name]) }))

/** Any change: some taken away, some set otherwise, some new. */
const changed = (before: Answering, fates: readonly number[], more: readonly Plan[]): Response[] => [
  ...before.responses.flatMap((one, i) => {
    const fate = fates[i % Math.max(1, fates.length)] ?? 0
    return fate === 1 ? [] : [fate === 2 ? { ...one, amount: one.amount + 1 } : fate === 3 ? { ...one, bypass: !one.bypass } : one]
  }),
  ...made('new', more).responses.map((one) => ({
    ...one,
    to: one.to.map((target) => (target.ray ? { ...target, ray: target.ray.replace('new', 'a') as RayId } : target)),
  })),
]
const fates = fc.array(fc.nat(3), { minLength: 1, maxLength: 6 })

test('a pad that answers alike answers alike after any change, through its own rays', () => {
  fc.assert(
    fc.property(plans, fates, plans, (list, fate, more) => {
      const [one, other] = [made('a', list), made('b', list)]
      const after = changed(one, fate, more)
      const there = likewise(one, after, other)
      expect(said(other, there)).toEqual(said(one, after))
      expect(new Set(there.map(({ id }) => id)).size).toBe(there.length)
      for (const response of there) expect(responseSchema.safeParse(response).success).toBe(true)
    }),
  )
})

test('what did not change here stays there, whatever it is', () => {
  fc.assert(
    fc.property(plans, plans, (list, others) => {
      const [one, other] = [made('a', list), made('b', others)]
      expect(likewise(one, one.responses, other)).toEqual(other.responses)
    }),
  )
})

test('an amount that is set here is set there, added where there was none, and what is of another kind stays', () => {
  const velocity = { kind: 0, param: 0, ray: 0, amount: 3, bypass: false }
  const wheel = { kind: 1, param: 1, ray: 0, amount: 5, bypass: true }
  const one = made('a', [velocity])
  const after = one.responses.map((response) => ({ ...response, amount: 9, curve: { points: [], bend: 0.5 } as never }))
  const there = likewise(one, after, made('b', [wheel, { ...velocity, amount: -4, bypass: true }]))
  expect(there.map(({ amount, bypass }) => [amount, bypass])).toEqual([[5, true], [9, true]]) // prettier-ignore
  expect(there[1]).toHaveProperty('curve')
  expect(likewise(one, after, made('b', [wheel])).map(({ amount }) => amount)).toEqual([5, 9])
})

test('a ray that the other pad has not got is moved by nothing there; wander comes as it is', () => {
  const one = made('a', [])
  const after = changed(one, [0], [{ kind: 0, param: 0, ray: 1, amount: 3, bypass: false }])
  expect(likewise(one, after, { responses: [], rays: [] })).toEqual([])
  const other = made('b', [])
  const wandering = withWander([], 0.5)
  expect(likewise(one, wandering, other)).toEqual(wandering)
  expect(likewise({ ...one, responses: wandering }, [], { ...other, responses: wandering })).toEqual([])
})
