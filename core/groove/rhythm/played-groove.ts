import type { MakeId, PadId, TurnId } from '../../kit/ids'
import type { Groove } from '../../kit/grooves'
import { grooveOfStrikes } from '../of-strikes'
import type { Pace } from './pace'

export interface PlayedStrike {
  readonly padId: PadId
  readonly seconds: number
  /** 1..127. */
  readonly velocity: number
  /** The turn that is to answer; any of its pad where none is said. */
  readonly turn?: TurnId
}

/**
 * What was played as a groove of whole bars, with its velocities and its own timing, drawn to its steps by a share, 0..1. Strikes that
 * lead into the first bar wait at its end.
 */
export function playedGroove(makeId: MakeId, name: string, strikes: readonly PlayedStrike[], pace: Pace, share: number): Groove {
  const { tempoBpm, firstSeconds, stepsPerBeat, swing, beatsPerBar } = pace
  const beatOf = (seconds: number) => ((seconds - firstSeconds) * tempoBpm) / 60
  const step = 1 / stepsPerBeat
  const last = Math.max(0, ...strikes.map(({ seconds }) => beatOf(seconds)))
  // A strike that is meant for the one of a bar does not make a bar of its own.
  const bars = Math.max(1, Math.ceil((last + step / 2) / beatsPerBar - 1e-9))
  const beats = Math.min(bars * beatsPerBar, Math.floor(1024 / stepsPerBeat))
  const within = strikes
    .map(({ seconds, ...strike }) => ({ ...strike, beat: beatOf(seconds) }))
    .filter(({ beat }) => beat < beats - step / 2)
  const led = within.map((strike) => (strike.beat < -step / 2 ? { ...strike, beat: strike.beat + beats } : strike)).filter(({ beat }) => beat > -step) // prettier-ignore
  return grooveOfStrikes(makeId, led, { name, beats, stepsPerBeat, swing, share })
}
