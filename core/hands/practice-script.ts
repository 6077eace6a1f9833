import type { HandMessage } from './messages'

/** A message of a script, and when it is sent, ms from its beginning. */
export interface ScriptStep {
  readonly atMs: number
  readonly message: HandMessage
}

/** How long a note of a script is held where it does not say. */
const USUAL_LENGTH_MS = 100
const MOST_LINES = 10_000
const MOST_MS = 3_600_000

/** What a line of a script can be, for people who write one. */
export const SCRIPT_WORDS =
  'One thing a line. note 36 100 strikes note 36 with velocity 100; a third number says how many ms it is held. wait 250 waits 250 ms. wheel, pedal and pressure go from 0 to 127, bend from -1 to 1; channel 10 holds from there on.'

type Numbers = readonly number[]
const isWhole = (value: number | undefined, min: number, max: number): value is number =>
  value !== undefined && Number.isInteger(value) && value >= min && value <= max

interface Reading {
  atMs: number
  channel: number
  readonly steps: ScriptStep[]
}

/** What each word does; false where its numbers do not fit. */
const WORDS: Readonly<Record<string, (reading: Reading, numbers: Numbers) => boolean>> = {
  note({ atMs, channel, steps }, [note, velocity = 100, lengthMs = USUAL_LENGTH_MS]) {
    if (!isWhole(note, 0, 127) || !isWhole(velocity, 1, 127) || !(lengthMs >= 0 && lengthMs <= MOST_MS)) return false
    steps.push({ atMs, message: { type: 'noteOn', channel, note, velocity } })
    steps.push({ atMs: atMs + lengthMs, message: { type: 'noteOff', channel, note, velocity: 64 } })
    return true
  },
  wait(reading, [ms]) {
    if (ms === undefined || !(ms >= 0 && reading.atMs + ms <= MOST_MS)) return false
    reading.atMs += ms
    return true
  },
  channel(reading, [channel]) {
    if (!isWhole(channel, 1, 16)) return false
    reading.channel = channel
    return true
  },
  bend({ atMs, channel, steps }, [bend]) {
    if (bend === undefined || !(Math.abs(bend) <= 1)) return false
    steps.push({ atMs, message: { type: 'bend', channel, bend } })
    return true
  },
  wheel: controller(1),
  pedal: controller(64),
  pressure({ atMs, channel, steps }, [pressure]) {
    if (!isWhole(pressure, 0, 127)) return false
    steps.push({ atMs, message: { type: 'pressure', channel, pressure } })
    return true
  },
}

function controller(number: number) {
  return ({ atMs, channel, steps }: Reading, [value]: Numbers) => {
    if (!isWhole(value, 0, 127)) return false
    steps.push({ atMs, message: { type: 'controller', channel, number, value } })
    return true
  }
}

/** Reads what a practice controller plays by itself, in the order of time; or a sentence about the first line that is none. */
export function readScript(text: string): readonly ScriptStep[] | string {
  const lines = text.split('\n')
  if (lines.length > MOST_LINES) return `A script has at most ${MOST_LINES} lines; this one has ${lines.length}.`
  const reading: Reading = { atMs: 0, channel: 1, steps: [] }
  for (const [i, line] of lines.entries()) {
    const [word, ...rest] = line
      .trim()
      .toLowerCase()
      .split(/[\s,]+/)
    if (!word) continue
    const does = Object.hasOwn(WORDS, word) ? WORDS[word] : undefined
    if (!does?.(reading, rest.map(Number))) return `Line ${i + 1}, “${line.trim().slice(0, 40)}”, is nothing it can play. ${SCRIPT_WORDS}`
  }
  return reading.steps.map((step, i) => ({ step, i })).sort((a, b) => a.step.atMs - b.step.atMs || a.i - b.i).map(({ step }) => step) // prettier-ignore
}
