import { mixPlace } from '../../kit/mix-places'
import type { Bus, Kit } from '../../kit/kit'
import { USUAL_KIT_STRIKES } from '../../kit/make'
import { valueOf } from '../../kit/parameters'
import type { Address, Response } from '../../kit/shape'
import { dbToGain } from '../math'
import { hashId } from '../strike/chance'
import { controlNumbers, latestNumbers, sourceCodes, TILLERS, waveCodes } from './codes'
import { table } from './context'
import type { CompileContext } from './context'
import { impliedInserts, writeInserts } from './effects/write-inserts'
import { BusField, KitHead, OscillatorField, SendField } from './layout'
import { movedBesideLevels, movedPlaceValue, targetOf, writeMoved } from './write-moved'
import type { Move } from './write-moved'
import { sourceOf, writeMovers } from './write-responses'
import type { Mover } from './write-responses'

/** Compiles what a kit has beside its pads: master, buses in the order of their sums, oscillators, where tillers stand. */
export function compileKit(kit: Kit, context: CompileContext): Float64Array {
  const out: number[] = new Array<number>(KitHead.length).fill(0)
  out[KitHead.gain] = dbToGain(valueOf(kit, 'gainDb'))
  out[KitHead.maxStrikes] = kit.maxStrikes ?? USUAL_KIT_STRIKES
  out[KitHead.seed] = kit.seed
  const buses = inOrder(kit.buses)
  const at = table(out, buses.length, BusField.length)
  out[KitHead.busCount] = buses.length
  out[KitHead.buses] = at
  const moves: Move[] = []
  const mix: MixContext = { ...context, moved: movedBesideLevels(kit), moves }
  buses.forEach((bus, i) => writeBus(out, at + i * BusField.length, kit, bus, mix))
  writeOscillators(out, kit, context)
  out[KitHead.tillers] = out.length
  for (let i = 0; i < TILLERS; i++) out.push(kit.tillers[i]?.value ?? 0)
  const inserts = writeInserts(out, kit, kit.inserts, undefined, mix)
  out[KitHead.insertCount] = inserts.count
  out[KitHead.inserts] = inserts.at
  const live = [...busResponses(kit, mix), ...busTillers(kit, mix)]
  out[KitHead.liveCount] = live.length
  out[KitHead.live] = writeMovers(out, live)
  writeMoved(out, mix.moved, moves, context)
  out[KitHead.size] = out.length
  return Float64Array.from(out)
}

/** What compiling a kit's mix goes by: all that is moved of it beside levels, and how that leads effects, as it is found. */
export interface MixContext extends CompileContext {
  readonly moved: readonly Address[]
  readonly moves: Move[]
}

/** Responses of the kit that move its mix; by what a strike has they go as the latest one had it. */
function busResponses(kit: Kit, context: MixContext): Mover[] {
  return kit.responses.flatMap(({ from, to, amount, curve, draw, min = -Infinity, max = Infinity, bypass }) => {
    const source = bypass ? undefined : mixSource(kit, from, amount)
    if (!source) return []
    return to.flatMap((address): Mover[] => {
      const only = targetOf(kit, address, context.moved, context)
      return only === undefined ? [] : [{ param: 'gainDb', amount, bias: 0, curve, only, draw, least: min, most: max, ...source }]
    })
  })
}

/** What of a mover follows from its source. Velocity lowers, as it does in pads; a note counts by its octaves alone. */
function mixSource(kit: Kit, from: Response['from'], amount: number): (Pick<Mover, 'from' | 'number'> & Partial<Mover>) | undefined {
  const control = (number: number) => ({ from: sourceCodes.control, number })
  switch (from.kind) {
    case 'velocity':
      return { ...control(latestNumbers.velocity), bias: -amount }
    case 'note':
      return { ...control(latestNumbers.note), curve: undefined }
    case 'turn':
    case 'strikeRate':
      return control(latestNumbers[from.kind])
    default:
      return sourceOf(kit, from)
  }
}

/** Tillers lead what is of the mix away from where it is set. */
function busTillers(kit: Kit, context: MixContext): Mover[] {
  return kit.tillers.slice(0, TILLERS).flatMap((tiller, number) =>
    tiller.to.flatMap(({ address, from, to, curve }): Mover[] => {
      const only = targetOf(kit, address, context.moved, context)
      const place = only === undefined ? undefined : mixPlace(kit, address)
      if (only === undefined || !place) return []
      const [begin, end, now] = [from, to, place.now].map((value) => movedPlaceValue(place, value)) as [number, number, number]
      const source = { from: sourceCodes.control, number: controlNumbers.tiller + number }
      return [
        { ...source, param: 'gainDb', amount: end - begin, bias: begin - now, curve, only, draw: 0, least: -Infinity, most: Infinity },
      ]
    }),
  )
}

/** What a muted bus lets through is nothing. */
export function busGain(bus: Bus): number {
  return bus.mute ? 0 : dbToGain(valueOf(bus, 'gainDb'))
}

function writeBus(out: number[], row: number, kit: Kit, bus: Bus, context: MixContext): void {
  out[row + BusField.slot] = context.busSlotOf(bus.id)
  out[row + BusField.out] = context.busSlotOf(bus.out)
  out[row + BusField.gain] = busGain(bus)
  out[row + BusField.pan] = valueOf(bus, 'pan')
  const at = table(out, bus.sends.length, SendField.length)
  out[row + BusField.sendCount] = bus.sends.length
  out[row + BusField.sends] = at
  const inserts = writeInserts(out, kit, [...impliedInserts(bus, context.moved), ...bus.inserts], bus.id, context)
  out[row + BusField.insertCount] = inserts.count
  out[row + BusField.inserts] = inserts.at
  bus.sends.forEach((send, i) => {
    out[at + i * SendField.length + SendField.to] = context.busSlotOf(send.busId)
    out[at + i * SendField.length + SendField.gain] = dbToGain(valueOf(send, 'gainDb'))
    out[at + i * SendField.length + SendField.isPre] = send.tap === 'pre' ? 1 : 0
  })
}

function writeOscillators(out: number[], kit: Kit, context: CompileContext): void {
  const at = table(out, kit.oscillators.length, OscillatorField.length)
  out[KitHead.oscillatorCount] = kit.oscillators.length
  out[KitHead.oscillators] = at
  kit.oscillators.forEach(({ id, wave, rate, runs, phase }, i) => {
    const row = at + i * OscillatorField.length
    const seconds = rate.unit === 'Hz' ? 1 / rate.value : (rate.value * 60) / kit.tempoBpm
    out[row + OscillatorField.hash] = hashId(id)
    out[row + OscillatorField.wave] = waveCodes[wave]
    out[row + OscillatorField.periodFrames] = seconds * context.sampleRateHz
    out[row + OscillatorField.phase] = phase
    out[row + OscillatorField.runsAlways] = runs === 'always' ? 1 : 0
  })
}

/** Buses, each before those that it goes into or that listen to it; there are no circles (`brokenRule`). */
export function inOrder(buses: readonly Bus[]): Bus[] {
  const done = new Set<Bus>()
  const byId = new Map(buses.map((bus) => [bus.id, bus]))
  const visit = (bus: Bus | undefined): void => {
    if (!bus || done.has(bus)) return
    done.add(bus)
    visit(bus.out && byId.get(bus.out))
    for (const { busId } of bus.sends) visit(byId.get(busId))
    for (const listener of buses) if (listener.inserts.some(({ key }) => key === bus.id)) visit(listener)
    order.unshift(bus)
  }
  const order: Bus[] = []
  for (const bus of buses) visit(bus)
  return order
}
