import type { BusId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { valueOf } from '../../kit/parameters'
import { dbToGain } from '../math'
import { controlNumbers, faderCodes, TILLERS } from '../program/codes'
import { busGain } from '../program/compile-kit'
import { MASTER } from '../program/layout'

/** Faders that stand elsewhere in a kit than they did before: of which slot, which of its faders, and where to. */
export function movedFaders(
  before: Kit,
  kit: Kit,
  busSlotOf: (id: BusId) => number,
): (readonly [slot: number, fader: number, value: number])[] {
  const moved: (readonly [slot: number, fader: number, value: number])[] = []
  if (before.values !== kit.values) moved.push([MASTER, faderCodes.gain, dbToGain(valueOf(kit, 'gainDb'))])
  kit.buses.forEach((bus, i) => {
    const old = before.buses[i]
    const slot = busSlotOf(bus.id)
    if (bus === old || !old) return
    if (busGain(bus) !== busGain(old)) moved.push([slot, faderCodes.gain, busGain(bus)])
    if (valueOf(bus, 'pan') !== valueOf(old, 'pan')) moved.push([slot, faderCodes.pan, valueOf(bus, 'pan')])
    bus.sends.forEach((one, place) => {
      const gain = dbToGain(valueOf(one, 'gainDb'))
      if (gain !== dbToGain(valueOf(old.sends[place]!, 'gainDb'))) moved.push([slot, faderCodes.send + place, gain])
    })
  })
  return moved
}

/** The same of tillers: the number of each as a control, and where to. */
export function movedTillers(before: Kit, kit: Kit): (readonly [control: number, value: number])[] {
  return kit.tillers
    .slice(0, TILLERS)
    .flatMap(({ value }, i) => (value === before.tillers[i]?.value ? [] : [[controlNumbers.tiller + i, value] as const]))
}
