import { controlNumbers } from '../engine'
import type { Standing } from '../engine'
import { latestNumbers, NO_PAD } from '../engine/program/codes'
import { MAX_PADS } from '../engine/program/layout'
import { NEVER } from '../engine/time'
import type { PadId } from '../kit/ids'
import type { PadStanding, Performance } from '../kit/performance'

const BANDS = 128
const { keyPressure } = controlNumbers
/** How an engine stood, by names, at one of its frames. */
export interface Stood {
  readonly frame: number
  readonly isSteady: boolean
  /** Of a pad the frame of its last strike is one of the engine's. */
  readonly pads: readonly PadStanding[]
  readonly controls: readonly (readonly [control: number, value: number])[]
  /** The pad that was struck last; nothing before the first strike. */
  readonly latestPad?: PadId
}

const isOfLatest = (control: number) => control >= latestNumbers.velocity
/** What goes by slots of pads is said by their names. */
const isOfPads = (control: number) => control === latestNumbers.padSlot || (control >= keyPressure && control < keyPressure + MAX_PADS)

/** Of pads that were never struck and controls that rest nothing is said. */
export function stoodOf(standing: Standing, padIdOf: (slot: number) => PadId | undefined): Stood {
  const pads = Array.from({ length: MAX_PADS }, (_, slot) => slot).flatMap((slot): PadStanding[] => {
    const padId = padIdOf(slot)
    const pressed = standing.controls[keyPressure + slot]
    const taken = standing.takenTurns[slot]
    if (!padId || (standing.padCount[slot] === 0 && pressed === 0 && taken === 0)) return []
    const bands = [...standing.bandCount.subarray(slot * BANDS, (slot + 1) * BANDS)]
    while (bands.length > 0 && bands[bands.length - 1] === 0) bands.pop()
    const [lastFrame, lastNote] = [standing.lastFrame[slot], standing.lastNote[slot]]
    return [
      {
        padId,
        strikes: standing.padCount[slot],
        countFrom: standing.countFrom[slot],
        ...(lastFrame === NEVER ? {} : { lastFrame }),
        ...(lastNote < 0 ? {} : { lastNote }),
        ...(taken === 0 ? {} : { takenTurns: taken }),
        ...(pressed === 0 ? {} : { pressed }),
        bands,
      },
    ]
  })
  const isStruck = standing.controls[latestNumbers.count] > 0
  const latestPad = isStruck ? padIdOf(standing.controls[latestNumbers.padSlot]) : undefined
  const controls = [...standing.controls].flatMap((value, control) => (value === 0 || isOfPads(control) || (isOfLatest(control) && !isStruck) ? [] : [[control, value] as const])) // prettier-ignore
  return { frame: standing.frame, isSteady: standing.isSteady, pads, controls, ...(latestPad ? { latestPad } : {}) }
}

/** The same on an engine that is silent: what is written over is how it stands now. */
export function standAs(standing: Standing, performance: Performance, slotOf: (padId: PadId) => number | undefined): Standing {
  const { originFrame } = performance
  const { pads, controls, latestPad } = performance.standing
  for (const pad of pads) {
    const slot = slotOf(pad.padId)
    if (slot === undefined) continue
    standing.padCount[slot] = pad.strikes
    standing.countFrom[slot] = pad.countFrom
    if (pad.lastFrame !== undefined) standing.lastFrame[slot] = originFrame + pad.lastFrame
    if (pad.lastNote !== undefined) standing.lastNote[slot] = pad.lastNote
    standing.takenTurns[slot] = pad.takenTurns ?? 0
    standing.controls[keyPressure + slot] = pad.pressed ?? 0
    standing.bandCount.set(pad.bands, slot * BANDS)
  }
  for (const [control, value] of controls) standing.controls[control] = value
  standing.controls[latestNumbers.padSlot] = (latestPad && slotOf(latestPad)) ?? NO_PAD
  return { ...standing, frame: originFrame }
}
