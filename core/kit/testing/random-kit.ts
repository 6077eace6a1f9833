import type { z } from 'zod'

import { parameterNames, parameterRow } from '../parameters'
import { effectChoices, effects } from '../effects'
import { matterValues } from '../matter-values'
import type { MatterKind } from '../matter-values'
import type { Effect } from '../effects'
import { randomOf } from './random-value'

type Json = any // eslint-disable-line @typescript-eslint/no-explicit-any -- kits of either version, mended by the names of their fields

const PADS = 4

/**
 * A kit of everything that a version's schema can say, by seeded chance. What its rules ask between fields is mended: ids
 * are their own, references name what is there, lists run in their order.
 */
export function randomKitOf(schema: z.ZodType, random: () => number): Json {
  const part = (name: string) => (schema as unknown as { shape: Record<string, z.ZodType> }).shape[name]!
  const kit = randomOf(schema, random) as Json
  kit.id = `kit-${Math.floor(random() * 1e9)}`
  const padSchema = (part('pads') as unknown as { element: z.ZodType }).element
  kit.pads = Array.from({ length: 2 + Math.floor(random() * (PADS - 1)) }, () => randomOf(padSchema, random))
  return new Mending(kit, random).all()
}

class Mending {
  private next = 0
  private readonly busIds: string[] = []
  private readonly padIds: string[]

  constructor(
    private readonly kit: Json,
    private readonly random: () => number,
  ) {
    this.padIds = kit.pads.map((pad: Json) => (pad.id = this.id('pad')))
    for (const bus of kit.buses) this.busIds.push((bus.id = this.id('bus')))
  }

  all(): Json {
    const { kit } = this
    for (const list of [kit.oscillators ?? [], kit.tillers ?? [], kit.quickControls ?? []]) for (const one of list) one.id = this.id('x')
    for (const [i, pad] of kit.pads.entries()) this.pad(pad, i)
    for (const [i, bus] of kit.buses.entries()) this.bus(bus, i)
    for (const insert of kit.inserts ?? []) this.insert(insert)
    for (const tie of kit.ties) this.tie(tie)
    for (const groove of kit.grooves) this.groove(groove)
    for (const step of kit.song ?? []) step.groove = this.any(kit.grooves.map((groove: Json) => groove.id)) ?? ''
    if (kit.grooves.length === 0 && kit.song) kit.song = []
    for (const one of kit.song ?? []) one.id = this.id('song')
    kit.responses = (kit.responses ?? []).map((one: Json) => this.kitResponse(one))
    for (const tiller of kit.tillers ?? [])
      tiller.to = tiller.to.map((to: Json) => ({ ...to, id: this.id('to'), address: this.address(), ...this.curved(to) }))
    if (!('version' in kit) || kit.version === 1) delete kit.responses
    return kit
  }

  private id(prefix: string): string {
    return `${prefix}-${this.next++}`
  }

  private any<T>(list: readonly T[]): T | undefined {
    return list[Math.floor(this.random() * list.length)]
  }

  private pad(pad: Json, place: number): void {
    if (place > 0 && this.random() < 0.5) pad.leansOn = this.padIds[Math.floor(this.random() * place)]
    else delete pad.leansOn
    if (pad.rays.length === 0) delete pad.own.responses
    const rayIds = pad.rays.map((ray: Json) => (ray.id = this.id('ray')))
    this.reroute(pad.own)
    this.shaped(pad.own)
    if (pad.own.responses) pad.own.responses = this.responses(pad.own.responses, rayIds)
    this.bands(pad.bands, rayIds)
    for (const ray of pad.rays) {
      this.reroute(ray)
      this.shaped(ray)
      ray.sends = this.sends(ray.sends)
      if (ray.source.bands) this.bands(ray.source.bands, rayIds)
    }
  }

  private reroute(of: Json): void {
    const bus = this.any(this.busIds)
    if (of.bus !== undefined && bus) of.bus = bus
    else delete of.bus
  }

  private sends(sends: Json[]): Json[] {
    return this.busIds.slice(0, sends.length).map((busId, i) => ({ ...sends[i], busId }))
  }

  /** Envelopes run forward; the order of stages names each once. */
  private shaped(of: Json): void {
    const shape = of.shape ?? {}
    for (const envelope of [...Object.values(of.envelopes ?? {}), shape.amp, shape.pitch, shape.filter?.env] as Json[])
      envelope?.points.sort((a: Json, b: Json) => a.seconds - b.seconds)
    if (of.order) of.order = ['filter2', 'drive', 'transient', 'filter1', 'crush'].sort(() => this.random() - 0.5)
  }

  private curved({ curve }: Json): Json {
    curve?.points.sort((a: Json, b: Json) => a.x - b.x)
    return curve ? { curve } : {}
  }

  private responses(responses: Json[], rayIds: readonly string[]): Json[] {
    return responses.map((response) => {
      if (!Array.isArray(response.to)) {
        const ray = this.any(rayIds)
        const { rayId: _any, ...to } = response.to
        return { ...response, to: this.random() < 0.3 && ray ? { ...to, rayId: ray } : to }
      }
      const params = [...new Set(response.to.map(({ param }: Json) => param))]
      const to = params.map((param) => ({ param, ...(this.random() < 0.3 && rayIds.length > 0 ? { ray: this.any(rayIds) } : {}) }))
      return { ...response, id: this.id('response'), from: this.source(response.from), to, ...this.curved(response) }
    })
  }

  private source({ id: _id, ...from }: Json): Json {
    const list = { oscillator: this.kit.oscillators, tiller: this.kit.tillers }[from.kind as 'tiller'] as Json[] | undefined
    const named = list && this.any(list)
    return named ? { ...from, id: named.id } : from
  }

  private kitResponse(response: Json): Json {
    return { ...response, id: this.id('response'), from: this.source(response.from), to: [this.address()], ...this.curved(response) }
  }

  /** A parameter of something that is there. */
  private address(): Json {
    const ray = this.any(this.kit.pads.flatMap((pad: Json) => pad.rays) as Json[])
    const turn = this.any(this.kit.pads.flatMap((pad: Json) => pad.bands.flatMap((band: Json) => band.turns)) as Json[])
    const insert = this.any([...this.kit.inserts, ...this.kit.buses.flatMap((bus: Json) => bus.inserts)] as Json[])
    const places: [string, string | undefined][] = [['kit', undefined], ['pad', this.any(this.padIds)], ['bus', this.any(this.busIds)], ['ray', ray?.id], ['turn', turn?.id], ['insert', insert?.id]] // prettier-ignore
    const [scope, id] = this.any(places.filter(([kind, name]) => kind === 'kit' || name !== undefined))!
    const names = scope === 'insert' ? Object.keys(effects[insert.kind as Effect]) : parameterNames.filter((name) => (parameterRow(name).scopes as readonly string[]).includes(scope)) // prettier-ignore
    const param = this.any(names)
    return { scope, ...(id === undefined ? {} : { id }), param }
  }

  private bands(bands: Json[], rayIds: readonly string[]): void {
    bands.forEach((band, i) => {
      band.id = this.id('band')
      band.fromVelocity = 1 + Math.floor((i * 126) / bands.length)
      for (const turn of band.turns) {
        turn.id = this.id('turn')
        this.shaped(turn)
        const clips = Object.values(turn.clips) as Json[]
        turn.clips = Object.fromEntries(rayIds.slice(0, clips.length).map((id, at) => [id, this.clip(clips[at])]))
      }
    })
  }

  private clip(clip: Json): Json {
    if (clip === 'intendedSilence') return clip
    const slices = (clip.slices ?? []) as Json[]
    for (const slice of slices)
      if (typeof slice === 'object') Object.assign(slice, { id: this.id('slice'), sends: Object.fromEntries(this.busIds.map((id) => [id, { gainDb: -3 }])) }) // prettier-ignore
    for (const step of Array.isArray(clip.process) ? clip.process : [])
      Object.assign(step, { id: this.id('process'), values: this.matter(step.kind as MatterKind) })
    return { ...clip, endFrame: Math.max(clip.endFrame, clip.startFrame + 1) }
  }

  private matter(kind: MatterKind): Json {
    return Object.fromEntries(Object.entries(matterValues[kind]).map(([name, { least, most }]) => [name, least + (most - least) * this.random()])) // prettier-ignore
  }

  private bus(bus: Json, place: number): void {
    if (!bus.inserts) return
    for (const insert of bus.inserts) this.insert(insert)
    const later = this.busIds.slice(place + 1)
    bus.sends = bus.sends.slice(0, later.length).map((send: Json, i: number) => ({ ...send, busId: later[i] }))
    if (later.length > 0 && this.random() < 0.5) bus.out = this.any(later)
    else delete bus.out
  }

  private insert(insert: Json): void {
    insert.id = this.id('insert')
    const kind = insert.kind as Effect
    const key = this.any(this.busIds)
    if (key && insert.key) insert.key = key
    else delete insert.key
    insert.values = Object.fromEntries(Object.entries(effects[kind]).map(([name, row]) => [name, row.min + (row.max - row.min) * this.random()])) // prettier-ignore
    insert.choices = Object.fromEntries(Object.entries(effectChoices[kind] ?? {}).map(([name, list]) => [name, this.any(list)]))
  }

  private tie(tie: Json): void {
    tie.id = this.id('tie')
    const pads = this.padIds.filter(() => this.random() < 0.6)
    const some = pads.length > 0 ? pads : [this.padIds[0]!]
    const pad = this.kit.pads[0]
    if (tie.from) tie.from = some[0]
    if (tie.pads) tie.pads = some
    if (tie.kind === 'choke') tie.to = some
    if (tie.kind === 'alsoStrike') tie.to = some.map((id) => ({ chance: 0.5, gainDb: -1, delaySeconds: 0.1, ...tie.to[0], pad: id, ...this.curved(tie.to[0] ?? {}) })) // prettier-ignore
    if (tie.velocity) this.curved({ curve: tie.velocity })
    for (const to of Array.isArray(tie.to) ? tie.to : []) if (to.velocity) this.curved({ curve: to.velocity })
    if (tie.steps) tie.steps = some.map((id, i) => ({ from: i * 20, pad: id }))
    if (tie.spots) tie.spots = some.map((id) => ({ pad: id, name: 'rim' }))
    if (tie.parts) tie.parts = some.map((id) => ({ ...tie.parts[0], id: this.id('part'), pad: id }))
    if (tie.clip) tie.clip = this.clip(tie.clip)
    if (tie.reach) tie.reach = { rays: pad.rays.map((ray: Json) => ray.id), bands: pad.bands.map((band: Json) => band.id) }
  }

  private groove(groove: Json): void {
    groove.id = this.id('groove')
    groove.strings = groove.strings.slice(0, this.padIds.length).map((string: Json, i: number) => ({ ...string, padId: this.padIds[i] }))
    for (const [i, string] of groove.strings.entries()) this.beads(string.beads, this.kit.pads[i])
    if (groove.feel) groove.feel.grooveId = groove.id
    for (const lane of groove.lanes ?? []) Object.assign(lane, { id: this.id('lane'), address: this.address() })
  }

  private beads(beads: Json[], pad: Json): void {
    const isFirst = this.kit.version === 1
    beads.forEach((bead, i) => (bead.step = (bead.step + i) % 1024))
    const steps = new Set<number>()
    for (const bead of beads) {
      while (steps.has(bead.step)) bead.step = (bead.step + 1) % 1024
      steps.add(bead.step)
    }
    if (isFirst) return
    for (const bead of beads) bead.id = this.id('bead')
    const bands = pad.bands as Json[]
    const turns = bands.flatMap((band) => band.turns) as Json[]
    for (const bead of beads) {
      for (const key of ['after', 'unless']) if (bead.when?.[key]) bead.when[key] = this.any(beads)!.id
      const [band, turn] = [this.any(bands), this.any(turns)]
      if (bead.band && band) bead.band = band.id
      else delete bead.band
      if (bead.turn && turn) bead.turn = turn.id
      else delete bead.turn
      if (bead.clip) bead.clip = this.clip(bead.clip)
      if (bead.locks) bead.locks = bead.locks.map(({ param, value, mode }: Json) => ({ param, value, mode }))
      if (bead.locks)
        bead.locks = bead.locks.filter((one: Json, i: number) => bead.locks.findIndex((other: Json) => other.param === one.param) === i)
    }
  }
}
