import type { AudioHash, BusId } from '../../kit/ids'
import type { Clip, Kit, Pad } from '../../kit/kit'
import { clipsBesidePads, clipsOfPad, lenderOf, padSettings } from '../../kit/resolve'
import { addressKey, mixPlace, movedAddresses } from '../../kit/mix-places'
import type { Address } from '../../kit/shape'
import { lockedCents } from '../program/greatest-rate'

/**
 * What programs depend on, as lists whose items are compared one by one: documents share what did not change, so an item
 * that is the same object has not changed.
 */
export type Inputs = readonly unknown[]

export function sameItems(a: Inputs, b: Inputs): boolean {
  return a.length === b.length && a.every((item, i) => item === b[i])
}

/** What the programs of all pads depend on beside the pad: while it is the same, only pads that changed are looked at. */
export function sharedInputs(kit: Kit): Inputs {
  return [kit.ties, kit.tillers.length, ...kit.tillers.map(({ to }) => to), kit.oscillators.map(({ id }) => id).join(), kit.buses.map(({ id }) => id).join()] // prettier-ignore
}

/** What the program of one pad depends on. */
export function padInputs(
  kit: Kit,
  pad: Pad,
  audioOf: (audio: AudioHash) => unknown,
  busSlotOf: (id: BusId | undefined) => number,
): Inputs {
  const leaders: unknown[] = []
  for (let at = pad.leansOn; at && leaders.length < 128;) {
    const leader = kit.pads.find((other) => other.id === at)
    leaders.push(leader)
    at = leader?.leansOn
  }
  const own = padSettings(kit, pad).bus
  const buses = [own, ...pad.rays.flatMap((ray) => [ray.bus, ...ray.sends.map(({ busId }) => busId)])].map(busSlotOf)
  const ties = kit.ties.filter((tie) => concerns(tie, pad))
  const present = clipsOfPad(pad).map((clip) => audioOf(clip.audio) !== undefined)
  const parts = ties.flatMap((tie) => (tie.kind === 'parts' ? [audioOf(tie.clip.audio) !== undefined] : []))
  const [, ...shared] = sharedInputs(kit)
  const lender = lenderOf(kit, pad)
  const lent = lender ? [lender, ...clipsOfPad(lender).map((clip) => audioOf(clip.audio) !== undefined)] : []
  return [pad, lockedCents(kit, pad), ...buses, ...leaders, ...ties, ...shared, ...present, ...parts, ...lent]
}

/** Whether a tie has to do with what a strike of a pad does. */
function concerns(tie: Kit['ties'][number], { id }: Pad): boolean {
  switch (tie.kind) {
    case 'choke':
    case 'alsoStrike':
      return tie.from === id
    case 'openings':
      return tie.steps.some((step) => step.pad === id)
    case 'parts':
      return tie.parts.some(({ pad }) => pad === id)
    case 'spots':
      return tie.spots.some(({ pad }) => pad === id)
    default:
      return tie.pads.includes(id)
  }
}

/** What something of the mix is set to: what leads it reckons from there. */
const nowOf = (kit: Kit, address: Address): unknown => mixPlace(kit, address)?.now

/** What the kit's own program depends on, beside its faders: those are moved without compiling anything. */
export function kitInputs(kit: Kit): Inputs {
  const ways = kit.buses.flatMap((bus) => [bus.id, bus.out, ...bus.sends.flatMap(({ busId, tap }) => [busId, tap])])
  const moved = movedAddresses(kit)
  const led = [...kit.tillers.flatMap(({ to }) => to.map(({ address }) => address)), ...moved.filter(({ param }) => param !== 'gainDb')].map((address) => nowOf(kit, address)) // prettier-ignore
  return [kit.seed, kit.maxStrikes, kit.tempoBpm, kit.oscillators, kit.responses, kit.inserts, ...kit.buses.flatMap(({ inserts, values: { width, lowCutHz } }) => [inserts, width, lowCutHz]), moved.map(addressKey).join(), ...kit.grooves.flatMap(({ lanes = [] }) => lanes.map(({ points }) => points)), ...kit.tillers.map(({ to }) => to), ...ways, ...led] // prettier-ignore
}

const idsOf = new WeakMap<readonly Pad[], string>()

/** The ids of pads in their order; of a list that was seen before they are known. */
function padIds(pads: readonly Pad[]): string {
  const known = idsOf.get(pads)
  if (known !== undefined) return known
  const ids = pads.map(({ id }) => id).join()
  idsOf.set(pads, ids)
  return ids
}

const clipsIn = new WeakMap<object, readonly Clip[]>()

/** Clips of single beads, likewise. */
function beadClips(kit: Kit): readonly Clip[] {
  const known = clipsIn.get(kit.grooves)
  if (known) return known
  const clips = clipsBesidePads({ ...kit, ties: [] })
  clipsIn.set(kit.grooves, clips)
  return clips
}

/** Pads that read clips of single beads: how fast they do decides what is laid out of these. */
function readBy(kit: Kit): unknown[] {
  if (beadClips(kit).length === 0) return []
  const strings = kit.grooves.flatMap((groove) => groove.strings.filter(({ beads }) => beads.some(({ clip }) => clip)))
  return [...strings.map(({ padId }) => kit.pads.find(({ id }) => id === padId)), kit.tillers]
}

/** What the groove's program depends on. */
export function grooveInputs(kit: Kit, choice: unknown, audioOf: (audio: AudioHash) => unknown): Inputs {
  const present = beadClips(kit).map((clip) => audioOf(clip.audio) !== undefined)
  const led = kit.grooves.flatMap(({ lanes = [] }) => lanes.map(({ address }) => nowOf(kit, address)))
  return [kit.grooves, kit.song, kit.tempoBpm, choice, padIds(kit.pads), ...readBy(kit), ...present, ...led]
}
