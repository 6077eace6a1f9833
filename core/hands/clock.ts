/** What a MIDI clock says: a pulse, 24 of them a beat; begin, go on, stop; and at which beat it stands. */
export type ClockMessage = { readonly type: 'pulse' | 'start' | 'continue' | 'stop' } | { readonly type: 'position'; readonly beat: number }

export const PULSES_PER_BEAT = 24
/** A position counts sixteenths of four beats: six pulses each. */
const POSITIONS_PER_BEAT = 4

const TYPES: Readonly<Record<number, 'pulse' | 'start' | 'continue' | 'stop'>> = { 0xf8: 'pulse', 0xfa: 'start', 0xfb: 'continue', 0xfc: 'stop' } // prettier-ignore

/** Reads a message of a clock, as the MIDI 1.0 standard says it; nothing for all others. */
export function readClock([status = 0, low, high]: Uint8Array): ClockMessage | undefined {
  const type = TYPES[status]
  if (type) return { type }
  if (status !== 0xf2 || low === undefined || high === undefined || low > 127 || high > 127) return undefined
  return { type: 'position', beat: ((high << 7) | low) / POSITIONS_PER_BEAT }
}

export function writeClock(message: ClockMessage): number[] {
  if (message.type !== 'position') return [Number(Object.keys(TYPES).find((status) => TYPES[Number(status)] === message.type))]
  const count = Math.min(16383, Math.max(0, Math.round(message.beat * POSITIONS_PER_BEAT)))
  return [0xf2, count & 127, count >> 7]
}

/** What a groove is to do by a clock that it follows; moments are those of the page, in ms. */
export type ClockAct =
  | { readonly type: 'begin'; readonly atMs: number; readonly beat: number; readonly tempoBpm: number }
  | { readonly type: 'lead'; readonly atMs: number; readonly beat: number; readonly tempoBpm: number }
  | { readonly type: 'stop' }

/** The tempo is that of so many pulses at most, and is known from so many on. */
const MOST_PULSES = 96
const LEAST_PULSES = 6
/** A pulse that comes so much off where it is expected is of another tempo: what came before counts no more. */
const JUMP = 0.5
/** So often it is said where the clock is. */
const LEAD_EVERY = 6

/**
 * Follows a clock. Pulses tremble, as they come by wires and through other programs: the beat and the tempo are those of the line
 * through the last of them (least squares), which is less off than any single one. `usualBpm` is taken until the tempo is known.
 */
export function createClockFollower(usualBpm: () => number) {
  let times: number[] = []
  /** Pulses since the beginning, of the last one that came; before the first after a start it is one less. */
  let pulse = 0
  let isRunning = false
  let waits = false
  const line = () => lineThrough(times)
  const tempo = () => (times.length < LEAST_PULSES ? usualBpm() : 60_000 / (line().step * PULSES_PER_BEAT))
  const take = (atMs: number) => {
    if (times.length >= 2) {
      const { first, step } = line()
      if (Math.abs(atMs - (first + times.length * step)) > JUMP * step) times = times.slice(-1)
      // One of two is no line yet: a tempo that has jumped is that of the pulses after it.
      if (times.length === 1 && atMs - times[0]! > 4 * step) times = []
    }
    times.push(atMs)
    if (times.length > MOST_PULSES) times.shift()
  }
  /** Where the last pulse would have come without its tremble. */
  const onLine = () => {
    if (times.length < LEAST_PULSES) return times[times.length - 1]!
    const { first, step } = line()
    return first + (times.length - 1) * step
  }
  return {
    tempoBpm: (): number | undefined => (times.length < LEAST_PULSES ? undefined : tempo()),
    isRunning: () => isRunning,
    take(message: ClockMessage, atMs: number): ClockAct | undefined {
      switch (message.type) {
        case 'start':
        case 'continue':
          if (message.type === 'start') pulse = 0
          isRunning = waits = true
          return undefined
        case 'stop':
          if (!isRunning) return undefined
          isRunning = waits = false
          return { type: 'stop' }
        case 'position':
          pulse = Math.round(message.beat * PULSES_PER_BEAT)
          return undefined
        case 'pulse': {
          take(atMs)
          if (!isRunning) return undefined
          const beat = pulse / PULSES_PER_BEAT
          const isFirst = waits
          waits = false
          pulse++
          if (isFirst) return { type: 'begin', atMs: onLine(), beat, tempoBpm: tempo() }
          return (pulse - 1) % LEAD_EVERY === 0 ? { type: 'lead', atMs: onLine(), beat, tempoBpm: tempo() } : undefined
        }
      }
    },
  }
}

/** The straight line through moments that follow each other: when the first one would be, and how long one step is. */
function lineThrough(times: readonly number[]): { readonly first: number; readonly step: number } {
  const n = times.length
  const [from, middle] = [times[0]!, (n - 1) / 2]
  let [sum, slope, spread] = [0, 0, 0]
  for (let i = 0; i < n; i++) {
    sum += times[i]! - from
    slope += (i - middle) * (times[i]! - from)
    spread += (i - middle) ** 2
  }
  const step = spread === 0 ? 0 : slope / spread
  return { first: from + sum / n - middle * step, step }
}

/**
 * The pulses that a groove sends in a stretch of beats: those after `fromBeat`, up to and with `toBeat`. Whatever stretches are
 * asked for one after another, each pulse comes once.
 */
export function pulsesBetween(fromBeat: number, toBeat: number): number[] {
  const beats: number[] = []
  for (let pulse = Math.floor(fromBeat * PULSES_PER_BEAT + 1e-9) + 1; pulse / PULSES_PER_BEAT <= toBeat + 1e-9; pulse++) beats.push(pulse / PULSES_PER_BEAT) // prettier-ignore
  return beats
}
