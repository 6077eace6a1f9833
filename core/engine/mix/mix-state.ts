import type { Room } from '../memory/room'
import { MAX_BUSES, MOST_SENDS } from '../program/layout'

const FADER_STEP_48K = 0.002

/** Master and buses while they run. Faders near their targets by a share each frame and land on them exactly. */
export interface Mix {
  /** What is summed in the run that is being rendered, for each bus; `fed` says that anything was. */
  readonly left: readonly Float64Array[]
  readonly right: readonly Float64Array[]
  readonly fed: Int32Array
  readonly gain: Float64Array
  readonly gainTarget: Float64Array
  /** The place of each bus, and the sum of places on its way to the master. */
  readonly pan: Float64Array
  readonly wayPan: Float64Array
  /** By how much controls, oscillators and lanes move the place of each bus. */
  readonly movedPan: Float64Array
  /** Where what is sent to a bus is moved to: its `wayPan`, smoothed; frame by frame in `places` while it moves. */
  readonly balance: Float64Array
  readonly places: readonly Float64Array[]
  readonly isMoving: Int32Array
  readonly sendGain: Float64Array
  readonly sendTarget: Float64Array
  readonly isKnown: Int32Array
  /** Levels that controls and oscillators move: dB from one point of the grid to the next, and gains frame by frame of a run. */
  readonly isLive: Int32Array
  readonly liveFrom: Float64Array
  readonly liveTo: Float64Array
  readonly liveGain: readonly Float64Array[]
  readonly step: number
}

export function createMix(sampleRateHz: number, frames: number, { doubles, ints }: Room): Mix {
  const blocks = () => {
    const all = doubles(MAX_BUSES * frames)
    return Array.from({ length: MAX_BUSES }, (_, bus) => all.subarray(bus * frames, (bus + 1) * frames))
  }
  return {
    left: blocks(),
    right: blocks(),
    fed: ints(MAX_BUSES),
    gain: doubles(MAX_BUSES).fill(1),
    gainTarget: doubles(MAX_BUSES).fill(1),
    pan: doubles(MAX_BUSES),
    wayPan: doubles(MAX_BUSES),
    movedPan: doubles(MAX_BUSES),
    balance: doubles(MAX_BUSES),
    places: blocks(),
    isMoving: ints(MAX_BUSES),
    sendGain: doubles(MAX_BUSES * MOST_SENDS),
    sendTarget: doubles(MAX_BUSES * MOST_SENDS),
    isKnown: ints(MAX_BUSES),
    isLive: ints(MAX_BUSES),
    liveFrom: doubles(MAX_BUSES),
    liveTo: doubles(MAX_BUSES),
    liveGain: blocks(),
    step: Math.min(1, (FADER_STEP_48K * 48000) / sampleRateHz),
  }
}

/** A fader one frame nearer to its target; it lands on it. */
export function nearer(value: number, target: number, step: number): number {
  const next = value + (target - value) * step
  return Math.abs(target - next) < 1e-7 ? target : next
}

/** Moves the places of buses on for a run. */
export function movePlaces({ balance, wayPan, places, isMoving, step }: Mix, count: number): void {
  for (let bus = 0; bus < MAX_BUSES; bus++) {
    isMoving[bus] = balance[bus] === wayPan[bus] ? 0 : 1
    if (isMoving[bus] === 0) continue
    for (let i = 0; i < count; i++) places[bus][i] = balance[bus] = nearer(balance[bus], wayPan[bus], step)
  }
}

/** Where what is sent to a bus stands, `i` frames into the run; -1 is left, 1 right. */
export function placeAt({ balance, places, isMoving }: Mix, bus: number, i: number): number {
  const place = isMoving[bus] === 0 ? balance[bus] : places[bus][i]
  return place < -1 ? -1 : place > 1 ? 1 : place
}
