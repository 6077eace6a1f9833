import type { Audio } from '../audio/audio'
import { joined } from '../audio/join'
import { controlNumbers, createOffline, EventField, EventType, hashId, renderOffline, stand, standingOf } from '../engine'
import type { Offline, StrikeRecord } from '../engine'
import type { AudioHash, Kit, PadId, Performance, PlayedEvent } from '../kit'
import { standAs } from './standing'

export interface Resounding {
  /** The kits that its segments name, by their hashes. */
  kitOf(hash: AudioHash): Kit | undefined
  audioOf(hash: AudioHash): Audio | undefined
  /** Sounds on this kit instead of those that it was played on. */
  readonly kit?: Kit
  /** Which pad of that kit answers for one that was played; nothing leaves it out. The same pad where it is not said. */
  readonly padFor?: (padId: PadId) => PadId | undefined
  /** Only what is played on these pads is heard. */
  readonly only?: ReadonlySet<PadId>
  /** Another seed of chance: the same strikes, drawn anew. */
  readonly seed?: number
  /** Is told each strike as it is decided: how many frames after what is heard first, and the pad that sounds. */
  readonly onRecord?: (record: StrikeRecord, frame: number, padId: PadId | undefined) => void
}

/** Rendered at a time, in seconds; and how long what rings is waited for. */
const SLICE_SECONDS = 5
const TAIL_SECONDS = 60

/**
 * A performance as samples of both channels at its own rate, from what is heard of it first until all has died away. Played on
 * its own kits and with nothing changed it is bit for bit what was heard, from the first moment at which nothing from before
 * still sounded. Throws an Error where a kit it was played on is not at hand.
 */
export function renderPerformance(performance: Performance, given: Resounding): Audio {
  const { sampleRateHz, fromFrame, toFrame } = performance
  const segments = given.kit
    ? [{ frame: 0, kit: given.kit }]
    : performance.segments.map(({ frame, kit }) => ({ frame, kit: kitFor(given, kit) }))
  const offline = createOffline(segments[0].kit, sampleRateHz, given.audioOf, given.seed)
  stand(offline.engine, standAs(standingOf(offline.engine), performance, slotFor(offline, given)))
  const parts: [Float32Array, Float32Array][] = []
  const borders = [...new Set([...segments.map(({ frame }) => frame), fromFrame, toFrame])]
    .filter((frame) => frame <= toFrame)
    .sort((a, b) => a - b)
  borders.forEach((from, i) => {
    const segment = segments.find(({ frame }) => frame === from)
    if (segment && from > 0) offline.loader.load(given.seed === undefined ? segment.kit : { ...segment.kit, seed: given.seed })
    if (i + 1 === borders.length) return
    const to = borders[i + 1]
    const events = performance.events.filter(({ frame }) => frame >= from && frame < to && frame < toFrame)
    renderTo(offline, performance, given, events, to, from >= fromFrame ? parts : undefined)
  })
  ringOut(offline, sampleRateHz, parts)
  return { sampleRateHz, channels: [0, 1].map((side) => joined(parts.map((part) => part[side]))) }
}

function kitFor({ kitOf }: Resounding, hash: AudioHash): Kit {
  const kit = kitOf(hash)
  if (!kit)
    throw new Error('A kit that this was played on is not at hand. Wait until everything has come, or hear it on the kit as it is now.')
  return kit
}

/** The slot of the pad that answers for one that was played; nothing where none does. */
function slotFor({ loader }: Offline, { kit, padFor, only }: Resounding): (padId: PadId) => number | undefined {
  return (played) => {
    if (only && !only.has(played)) return undefined
    const padId = padFor ? padFor(played) : played
    if (!padId || (kit && !kit.pads.some(({ id }) => id === padId))) return undefined
    return loader.slotOf(padId)
  }
}

/** Renders up to a frame of the performance; what is heard is added to `parts`. */
function renderTo(
  offline: Offline,
  performance: Performance,
  given: Resounding,
  events: readonly PlayedEvent[],
  to: number,
  parts: [Float32Array, Float32Array][] | undefined,
): void {
  const { originFrame, fromFrame, sampleRateHz } = performance
  const { engine } = offline
  let score = scoreOf(events, originFrame, slotFor(offline, given))
  const onRecord =
    given.onRecord &&
    ((record: StrikeRecord) => given.onRecord!(record, record.frame - originFrame - fromFrame, offline.loader.padIdOf(record.padSlot)))
  while (engine.frame < originFrame + to) {
    const frames = Math.min(SLICE_SECONDS * sampleRateHz, originFrame + to - engine.frame)
    const rendered = renderOffline(engine, score, frames, 4096, parts ? { onRecord } : {})
    score = score.subarray(engine.scoreCursor)
    parts?.push(rendered)
  }
}

function ringOut({ engine }: Offline, sampleRateHz: number, parts: [Float32Array, Float32Array][]): void {
  const nothing = new Float64Array(0)
  for (let second = 0; second < TAIL_SECONDS && (engine.strikes.active.includes(1) || engine.queue.length > 0); second++)
    parts.push(renderOffline(engine, nothing, sampleRateHz))
}

/** Events as the engine reads them; those of pads that do not answer are left out. */
export function scoreOf(events: readonly PlayedEvent[], originFrame: number, slotOf: (padId: PadId) => number | undefined): Float64Array {
  const width = EventField.length
  const score = new Float64Array(events.length * width)
  let rows = 0
  for (const event of events) {
    const slot = 'padId' in event && event.padId ? slotOf(event.padId) : 0
    if (slot === undefined) continue
    const at = rows++ * width
    score[at + EventField.frame] = score[at + EventField.inputFrame] = originFrame + event.frame
    score[at + EventField.padSlot] = slot
    score[at + EventField.note] = -1
    writeEvent(score, at, event, slot)
  }
  return score.subarray(0, rows * width)
}

function writeEvent(score: Float64Array, at: number, event: PlayedEvent, slot: number): void {
  switch (event.type) {
    case 'strike':
      score[at + EventField.type] = EventType.strike
      score[at + EventField.velocity] = event.velocity
      score[at + EventField.note] = event.note ?? -1
      score[at + EventField.key] = event.key
      score[at + EventField.wantsBand] = event.band === undefined ? 0 : hashId(event.band) + 1
      score[at + EventField.wantsTurn] = event.turn === undefined ? 0 : hashId(event.turn) + 1
      break
    case 'letGo':
      score[at + EventField.type] = EventType.release
      score[at + EventField.key] = event.key
      break
    case 'stop':
      score[at + EventField.type] = event.padId ? EventType.stopPad : EventType.stopAll
      break
    case 'control':
    case 'press':
      score[at + EventField.type] = EventType.controller
      score[at + EventField.note] = event.type === 'control' ? event.control : controlNumbers.keyPressure + slot
      score[at + EventField.velocity] = event.value
      score[at + EventField.padSlot] = 0
  }
}
