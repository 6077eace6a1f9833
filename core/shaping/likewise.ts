import type { Pad } from '../kit/kit'
import type { RayId } from '../kit/ids'
import type { Response } from '../kit/shape'

/** What answers on a pad, and what its rays are called. */
export interface Answering {
  readonly responses: readonly Response[]
  readonly rays: readonly Pick<Pad['rays'][number], 'id' | 'name'>[]
}

/** The most responses that a pad has. */
const MOST = 64
const changeable = ['amount', 'bypass', 'curve'] as const

/** What a response is from and what it moves, in words that mean the same on another pad; rays by their names. */
function kindOf({ from, to }: Response, rays: Answering['rays']): string {
  const targets = to.map(({ param, ray }) => [param, ray === undefined ? null : (rays.find(({ id }) => id === ray)?.name ?? ray)])
  return JSON.stringify([from.kind, from.number ?? null, from.id ?? null, targets])
}

/** The one of another pad that is of the same kind: the first to the first, the second to the second. */
function kinOf(response: Response, of: Answering, other: Answering): Response | undefined {
  const kind = kindOf(response, of.rays)
  const place = of.responses.filter((one) => kindOf(one, of.rays) === kind).indexOf(response)
  return other.responses.filter((one) => kindOf(one, other.rays) === kind)[place]
}

/** A response for another pad's rays; nothing where that has no ray of such a name. */
function carried(response: Response, of: Answering, other: Answering): Response | undefined {
  const to = response.to.map((target) => {
    if (target.ray === undefined) return target
    const name = of.rays.find(({ id }) => id === target.ray)?.name
    const ray = other.rays.find((one) => one.name === name)?.id as RayId | undefined
    return ray && { ...target, ray }
  })
  if (to.some((target) => target === undefined)) return undefined
  let id = response.id
  for (let count = 2; other.responses.some((one) => one.id === id); count++) id = `${response.id}-${count}`
  return { ...response, id, to: to as Response['to'] }
}

/**
 * Changes what answers on another pad as it was changed on this one, and nothing else of it: what went here goes there, what came
 * comes there, an amount, a curve or a bypass that was set is set there too, and is added where there was none of its kind.
 */
export function likewise(before: Answering, after: readonly Response[], other: Answering): Response[] {
  const kin = (response: Response) => kinOf(response, before, other)
  const gone = before.responses.filter(({ id }) => !after.some((one) => one.id === id)).map(kin)
  let made = other.responses.filter((one) => !gone.includes(one))
  const add = (response: Response) => {
    const one = made.length < MOST ? carried(response, before, { ...other, responses: made }) : undefined
    if (one) made = [...made, one]
  }
  for (const response of after) {
    const was = before.responses.find(({ id }) => id === response.id)
    const names = was ? changeable.filter((name) => was[name] !== response[name]) : changeable
    if (names.length === 0) continue
    const now = { ...before, responses: after }
    const there = was ? kin(was) : kinOf(response, now, { ...other, responses: made })
    if (there) made = made.map((one) => (one === there ? withFields(one, response, names) : one))
    else add(response)
  }
  return made
}

function withFields(one: Response, from: Response, names: readonly (typeof changeable)[number][]): Response {
  const fields = Object.fromEntries(names.map((name) => [name, from[name]]))
  const { curve, ...made } = { ...one, ...fields } as Response
  return curve ? { ...made, curve } : made
}
