import { seeded } from '../../kit/builders'
import type { BeadId, GrooveId, PadId } from '../../kit/ids'
import type { Bead, Groove } from '../../kit/grooves'

/** A groove with a bit of everything, for tests: strings of their own lengths and divisions, chance, laps, others, repeats. */
export function randomGroove(seed: number, padIds: readonly PadId[], name = `groove-${seed}`): Groove {
  const random = seeded(seed)
  for (let i = 0; i < 5; i++) random()
  const pick = (most: number) => Math.floor(random() * most)
  const some = <T>(share: number, value: () => T): T | undefined => (random() < share ? value() : undefined)
  const ids: BeadId[] = []
  const strings = padIds.map((padId) => {
    const own = random() < 0.4 ? { lengthSteps: 1 + pick(12), stepsPerBeat: 1 + pick(6) } : {}
    const beads = Array.from({ length: 16 }, (_, step): Bead | undefined => {
      if (random() < 0.5) return undefined
      const id = `${name}.${padId}.${step}` as BeadId
      const other = () => ids[pick(ids.length)]
      const when = {
        laps: some(0.2, () => ({ of: 3, in: [1, 3] })),
        after: ids.length > 0 ? some(0.2, other) : undefined,
        unless: ids.length > 0 ? some(0.2, other) : undefined,
      }
      ids.push(id)
      return clean({
        id,
        step,
        velocity: 1 + pick(127),
        offset: some(0.3, () => Math.round((random() - 0.5) * 100) / 100),
        chance: some(0.3, random),
        when: clean(when),
        repeats: some(0.2, () => ({ count: 1 + pick(5), steps: 1 + pick(3), rise: random() * 2 - 1, draw: random() * 2 - 1 })),
      })
    }).filter((one) => one !== undefined)
    return clean({ padId, swing: random() < 0.3 ? 0.5 + random() / 4 : undefined, ...own, beads })
  })
  return { id: name as GrooveId, name, lengthSteps: 1 + pick(16), stepsPerBeat: 1 + pick(4), swing: 0.5 + random() / 4, strings }
}

function clean<T extends object>(of: T): T {
  const kept = Object.entries(of).filter(([, value]) => value !== undefined && !(typeof value === 'object' && Object.keys(value as object).length === 0 && !Array.isArray(value))) // prettier-ignore
  return Object.fromEntries(kept) as T
}
