import { readTogether } from './by-names'
import type { NamedFile, NameRoles, NameSlot, ReadNames } from './by-names'
import { planByNames } from './name-plan'
import type { NamePlan } from './name-plan'

/** Fewer files than these are read as the whole set is. */
const FEWEST = 4
const LEAST_SHARE = 0.05
/** Slots that stand for a place in the name mean another thing in names that are made otherwise. */
const BY_PLACE = /^(words|number) (\d|of a word)/
const APART = ' of '

/**
 * Understands names by comparing them with each other. `given` are roles that someone has said, which go before what is
 * found; at most one question is left open at a time, with a first answer taken already.
 *
 * Names that are made of other parts, as those of drums with a number of their own, are also compared only with their
 * like; of both readings the one that leaves fewer files without a place and makes fewer pads is taken.
 */
export function readNames(files: readonly NamedFile[], given: NameRoles = {}): ReadNames {
  const whole = readTogether(files, given)
  const groups = groupsOf(whole)
  if (groups.length < 2 && (groups[0]?.length ?? 0) === files.length) return whole
  if (groups.length === 0) return whole
  const apart = readApart(files, whole, groups, given)
  return isBetter(planByNames(files, apart), planByNames(files, whole)) ? apart : whole
}

/** Files whose names have the same parts in the same order, the largest group first. */
function groupsOf({ parts }: ReadNames): number[][] {
  const groups = new Map<string, number[]>()
  parts.forEach((own, file) => {
    const made = own.map(({ slot }) => slot.replace(/ (before|after|first|last)$/, '')).join('|')
    groups.set(made, [...(groups.get(made) ?? []), file])
  })
  const fewest = Math.max(FEWEST, LEAST_SHARE * parts.length)
  return [...groups.values()].filter((group) => group.length >= fewest).sort((a, b) => b.length - a.length)
}

function readApart(files: readonly NamedFile[], whole: ReadNames, groups: readonly number[][], given: NameRoles): ReadNames {
  const parts = [...whole.parts]
  const facts = [...whole.facts]
  const slots = new Map<string, NameSlot>()
  let question: ReadNames['question']
  const fewest = Math.min(...groups.map(([file]) => whole.parts[file].length))
  groups.forEach((group, place) => {
    const named = (slot: string) => (place > 0 && BY_PLACE.test(slot) ? `${slot}${APART}${place}` : slot)
    const own = Object.fromEntries(Object.entries(given).flatMap(([slot, role]) => (belongs(slot, place) ? [[slot.split(APART + place)[0], role]] : []))) // prettier-ignore
    const read = readTogether(group.map((file) => files[file]), own, whole.parts[group[0]].length > fewest) // prettier-ignore
    group.forEach((file, i) => {
      parts[file] = read.parts[i].map((part) => ({ ...part, slot: named(part.slot) }))
      facts[file] = read.facts[i]
    })
    for (const one of read.slots) {
      const before = slots.get(named(one.slot))
      slots.set(named(one.slot), {
        ...one,
        ...before,
        slot: named(one.slot),
        texts: [...new Set([...(before?.texts ?? []), ...one.texts])],
      })
    }
    question ??= read.question && { ...read.question, slot: named(read.question.slot) }
  })
  return { slots: [...slots.values()], parts, facts, ...(question ? { question } : {}) }
}

/** What was said of a place in one group's names says nothing of the others'. */
function belongs(slot: string, place: number): boolean {
  if (!BY_PLACE.test(slot)) return true
  const apart = /^(?:words|number) .*? of (\d+)$/.exec(slot)?.[1]
  return place === 0 ? apart === undefined : apart === String(place)
}

function isBetter(one: NamePlan, other: NamePlan): boolean {
  const gaps = (plan: NamePlan) => plan.pads.reduce((sum, pad) => sum + pad.gaps.length, 0)
  if (one.unplaced.length !== other.unplaced.length)
    return one.unplaced.length < other.unplaced.length && one.pads.length <= other.pads.length
  if (one.pads.length !== other.pads.length) return one.pads.length < other.pads.length
  return gaps(one) < gaps(other)
}
