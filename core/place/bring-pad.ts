import { createBus, filledPad, freeNote, MOST, padById, startTillersOf, withoutPad, withStartTillers } from '../kit'
import type { Bus, BusId, Kit, KitEdit, MakeId, Pad, PadId, Tie, TieId, Tiller } from '../kit'
import { copiedFilling, ontoRays } from './copy-pad'

export interface BroughtPad {
  readonly edits: KitEdit[]
  readonly padId: PadId
  /** What came along beside its sounds, in words. */
  readonly along: readonly string[]
}

/**
 * A pad of another kit with all it needs: what it takes from the pad it leans on becomes its own, its files, buses (by their
 * names), what sways it, the tillers that move it, its choke group and how it silences itself. Nothing of this kit is changed
 * that is there already. Undefined where the kit is full.
 */
export function bringPad(makeId: MakeId, to: Kit, from: Kit, padId: PadId): BroughtPad | undefined {
  const given = padById(from, padId)
  if (!given || to.pads.length >= MOST.pads) return undefined
  const buses = new BroughtBuses(makeId, to, from)
  const sways = new BroughtSways(makeId, to, from)
  const pad = copyOf(makeId, to, from, given, buses, sways)
  const edits: KitEdit[] = [
    ...audioOf(from, to, pad),
    ...buses.made.map((bus): KitEdit => ({ type: 'putBus', bus })),
    ...sways.edits(),
    { type: 'addPad', pad, index: to.pads.length },
    ...tiesOf(makeId, to, from, padId, pad),
  ]
  const tillers = tillersFor(makeId, { ...to, tillers: sways.tillers }, from, padId, pad.id)
  if (tillers !== to.tillers) edits.push({ type: 'setKit', fields: { tillers } })
  const names = (list: readonly { readonly name: string }[], one: string) => list.map(({ name }) => `${one} ${name}`)
  const newTillers = tillers.filter(({ id }) => !to.tillers.some((tiller) => tiller.id === id))
  return { edits, padId: pad.id, along: [...names(buses.made, 'the bus'), ...names(newTillers, 'the tiller')] }
}

/** The buses that a pad goes to: those of the same name are taken, others are made with what stands on them. */
class BroughtBuses {
  readonly made: Bus[] = []

  constructor(
    private readonly makeId: MakeId,
    private readonly to: Kit,
    private readonly from: Kit,
  ) {}

  idOf = (id: BusId | undefined): BusId | undefined => {
    const bus = this.from.buses.find((one) => one.id === id)
    if (!bus) return undefined
    const there = [...this.to.buses, ...this.made].find(({ name }) => name === bus.name)
    if (there) return there.id
    if (this.to.buses.length + this.made.length >= MOST.buses) return undefined // the mix takes it
    const { values, inserts, mute, isReturn } = bus
    const copy: Bus = { ...createBus(this.makeId<BusId>('bus'), bus.name), values, inserts, mute, isReturn }
    this.made.push(copy)
    return copy.id
  }
}

type Sway = Kit['oscillators'][number]

/** What sways a pad and what leads it beside its own settings: oscillators and tillers of the kit, by their names. */
class BroughtSways {
  private readonly made: Sway[] = []
  tillers: Tiller[]

  constructor(
    private readonly makeId: MakeId,
    private readonly to: Kit,
    private readonly from: Kit,
  ) {
    this.tillers = to.tillers
  }

  idOf(kind: string, id: string | undefined): string | undefined {
    if (id === undefined) return undefined
    return kind === 'tiller' ? this.tillerId(id) : kind === 'oscillator' ? this.oscillatorId(id) : id
  }

  private oscillatorId(id: string): string {
    const one = this.from.oscillators.find((other) => other.id === id)
    const isLike = (other: Sway) => one && other.name === one.name && other.wave === one.wave && other.rate.value === one.rate.value
    const there = [...this.to.oscillators, ...this.made].find(isLike)
    if (there || !one) return there?.id ?? id
    const copy = { ...one, id: this.makeId<string>('oscillator') }
    this.made.push(copy)
    return copy.id
  }

  private tillerId(id: string): string {
    const one = this.from.tillers.find((other) => other.id === id)
    if (!one) return id
    this.tillers = withStartTillers(this.makeId, { ...this.to, tillers: this.tillers }, [{ name: one.name, to: [] }], [])
    return this.tillers.find(({ name }) => name === one.name)?.id ?? id
  }

  edits(): KitEdit[] {
    const last = this.to.oscillators[this.to.oscillators.length - 1]?.id ?? null
    return this.made.map((item): KitEdit => ({ type: 'put', at: ['oscillators'], item, after: last }))
  }
}

function copyOf(makeId: MakeId, to: Kit, from: Kit, given: Pad, buses: BroughtBuses, sways: BroughtSways): Pad {
  const pad = filledPad(from, given)
  const { rays, bands, rayIds } = copiedFilling(makeId, pad)
  const there = rays.map(({ bus, ...ray }) => {
    const busId = buses.idOf(bus)
    const sends = ray.sends.flatMap((send) => (buses.idOf(send.busId) ? [{ ...send, busId: buses.idOf(send.busId)! }] : []))
    return { ...ray, sends, ...(busId ? { bus: busId } : {}) }
  })
  const { bus, responses, ...settings } = ownWithLeaders(from, given)
  const padBus = buses.idOf(bus)
  const own: Pad['own'] = {
    ...settings,
    ...(responses ? { responses: ontoRays(responses, rayIds).map((response) => led(response, sways)) } : {}),
    ...(padBus ? { bus: padBus } : {}),
  }
  const note = freeNote(to)
  return { id: makeId<PadId>('pad'), notes: note === undefined ? [] : [note], own, rays: there, bands, spread: pad.spread }
}

/** What a pad has of its own and takes from those it leans on: all that it keeps where these are taken away. */
function ownWithLeaders(kit: Kit, pad: Pad): Pad['own'] {
  const leader = pad.leansOn && padById(kit, pad.leansOn)
  if (!leader) return pad.own
  const alone = withoutPad(kit, leader)
  return ownWithLeaders(alone, padById(alone, pad.id)!)
}

type Response = NonNullable<Pad['own']['responses']>[number]

/** A response that goes by an oscillator or a tiller goes by the one of this kit. */
function led(response: Response, sways: BroughtSways): Response {
  const { from } = response
  return from.id === undefined ? response : { ...response, from: { ...from, id: sways.idOf(from.kind, from.id) } }
}

/** Infos of the files that its clips name and that this kit does not know. */
function audioOf(from: Kit, to: Kit, { bands, rays }: Pad): KitEdit[] {
  const all = [...bands, ...rays.flatMap(({ source }) => (source.kind === 'clips' ? (source.bands ?? []) : []))]
  const clips = all.flatMap(({ turns }) => turns.flatMap((turn) => Object.values(turn.clips)))
  const hashes = new Set(clips.flatMap((clip) => (clip === 'intendedSilence' ? [] : [clip.audio])))
  return [...hashes].flatMap((audio): KitEdit[] =>
    to.audio[audio] || !from.audio[audio] ? [] : [{ type: 'putAudio', audio, info: from.audio[audio] }],
  )
}

/** Its choke group, by its name, and how it silences itself. */
function tiesOf(makeId: MakeId, to: Kit, from: Kit, was: PadId, pad: Pad): KitEdit[] {
  const rays = pad.rays.map(({ id }) => id)
  const edits: KitEdit[] = []
  for (const tie of from.ties) {
    if (tie.kind === 'chokeGroup' && tie.pads.includes(was)) {
      const { reach: _reach, ...group } = tie
      const there = to.ties.find((one): one is Extract<Tie, { kind: 'chokeGroup' }> => one.kind === 'chokeGroup' && one.name === tie.name)
      edits.push({ type: 'putTie', tie: there ? { ...there, pads: [...there.pads, pad.id] } : { ...group, id: makeId<TieId>('tie'), pads: [pad.id] } }) // prettier-ignore
    } else if (tie.kind === 'choke' && tie.from === was && tie.to.includes(was) && !tie.reach && rays.length > 0)
      edits.push({ type: 'putTie', tie: { ...tie, id: makeId<TieId>('tie'), from: pad.id, to: [pad.id] } })
  }
  return edits
}

function tillersFor(makeId: MakeId, to: Kit, from: Kit, was: PadId, padId: PadId): Tiller[] {
  const brought = startTillersOf(from, was)
  return brought.length === 0 ? to.tillers : withStartTillers(makeId, to, brought, [padId])
}
