import type { AudioHash, EventId, KitId, MakeId, PadId, PerformanceId } from '../kit'
import { PERFORMANCE_VERSION } from '../kit'
import type { Kit } from '../kit'
import type { Performance, PlayedEvent } from '../kit'
import type { Act } from './acts'
import type { Stood } from './standing'

/** So long is remembered what was played, without being asked. */
export const REMEMBERED_MS = 600_000
/** Where nobody strikes for so long, one passage ends and the next begins. */
const PAUSE_SECONDS = 4
/** What was moved lands within so long: faders, the limiter. */
const LANDED_SECONDS = 0.5
/** What is remembered at most, however much was moved. */
const MOST_ACTS = 100_000

/** A stretch that was played without a pause, by frames of the engine: its first strike, and the frame after its last event. */
export interface Passage {
  readonly fromFrame: number
  readonly toFrame: number
  /** When it began, in ms since 1970. */
  readonly fromMs: number
  readonly strikes: number
  /** The pads that were struck, in the order in which they came first. */
  readonly padIds: readonly PadId[]
}

interface Told {
  readonly act: Act
  readonly ms: number
}

/** What was played in the last ten minutes, and how the engine stood now and then. */
export class Remembered {
  private told: Told[] = []
  private stood: { readonly at: Stood; readonly ms: number }[] = []

  constructor(readonly sampleRateHz: number) {}

  /** Adds what acted, in its order. `ms` is now, since 1970. */
  add(acts: readonly Act[], ms: number): void {
    for (const act of acts) this.told.push({ act, ms })
    this.told = inOrder(this.told)
    this.forget(ms)
  }

  /** Notes how the engine stood, between two things that acted. */
  stand(at: Stood, ms: number): void {
    if (at.frame % 16 === 0) this.stood.push({ at, ms })
  }

  /** Whether anything acted since it was last noted how the engine stood. */
  hasMoved(): boolean {
    const last = this.told[this.told.length - 1]
    return last !== undefined && last.act.frame >= (this.stood[this.stood.length - 1]?.at.frame ?? -1)
  }

  /** The frame at which it was noted last how the engine stood; -1 before the first. */
  lastStood(): number {
    return this.stood[this.stood.length - 1]?.at.frame ?? -1
  }

  /** Those of the last ten minutes, oldest first. What began before it was known how the engine stood is not among them. */
  passages(nowMs: number): Passage[] {
    const passages: { fromFrame: number; toFrame: number; fromMs: number; strikes: number; padIds: PadId[] }[] = []
    /** What the passage that is open still holds: it lasts until that is let go, however long nobody strikes. */
    const held = new Set<string>()
    const known = this.stood[0]?.at.frame ?? Infinity
    for (const { act, ms } of this.told) {
      if (act.type === 'kit' || act.frame < known || nowMs - ms > REMEMBERED_MS) continue
      const open = passages[passages.length - 1]
      const isNear = open && act.frame - open.toFrame < PAUSE_SECONDS * this.sampleRateHz
      if (act.type !== 'strike') {
        const isLetGo = act.type === 'letGo' && held.delete(`${act.padId} ${act.key}`)
        if (open && (isNear || isLetGo)) open.toFrame = act.frame + 1
        continue
      }
      if (!isNear) held.clear()
      if (act.key) held.add(`${act.padId} ${act.key}`)
      if (isNear) {
        open.toFrame = act.frame + 1
        open.strikes++
        if (!open.padIds.includes(act.padId)) open.padIds.push(act.padId)
      } else passages.push({ fromFrame: act.frame, toFrame: act.frame + 1, fromMs: ms, strikes: 1, padIds: [act.padId] })
    }
    return passages
  }

  /** What is needed to sound a stretch again: how the engine stood last before it, and all that acted from there on. */
  private needed({ fromFrame, toFrame }: Pick<Passage, 'fromFrame' | 'toFrame'>) {
    const landed = fromFrame - LANDED_SECONDS * this.sampleRateHz
    const since = (isGood: (at: Stood) => boolean) => this.stood.findLast(({ at }) => isGood(at))?.at
    const origin =
      since(({ frame, isSteady }) => frame <= landed && isSteady) ??
      since(({ frame }) => frame <= landed) ??
      since(({ frame }) => frame <= fromFrame)
    if (!origin) return undefined
    const acts = this.told.map(({ act }) => act)
    const before = acts.findLast((act) => act.type === 'kit' && act.frame < origin.frame)
    const within = acts.filter(({ frame }) => frame >= origin.frame && frame < toFrame)
    const states = within.filter((act) => act.type === 'kit')
    const first = before?.type === 'kit' ? before.kit : states[0]?.kit
    if (!first) return undefined
    const kits = [{ frame: 0, kit: first }, ...states.map(({ frame, kit }) => ({ frame: frame - origin.frame, kit }))]
    return { origin, within, kits: kits.filter(({ kit }, i) => i === 0 || kit !== kits[i - 1].kit) }
  }

  /** The kits that a stretch was played on, whose texts are to be kept with it. */
  kitsOf(stretch: Pick<Passage, 'fromFrame' | 'toFrame'>): Kit[] {
    return [...new Set(this.needed(stretch)?.kits.map(({ kit }) => kit))]
  }

  /** A stretch as a performance; nothing where it is no longer known how the engine stood before it. */
  performanceOf(
    stretch: Pick<Passage, 'fromFrame' | 'toFrame' | 'fromMs'>,
    given: { readonly name: string; readonly kitId: KitId; readonly hashOf: (kit: Kit) => AudioHash; readonly makeId: MakeId },
  ): Performance | undefined {
    const needed = this.needed(stretch)
    if (!needed) return undefined
    const { origin, within, kits } = needed
    const from = origin.frame
    const events = within.flatMap((act): PlayedEvent[] =>
      act.type === 'kit' ? [] : [{ ...act, frame: act.frame - from, id: given.makeId<EventId>('event') }],
    )
    return {
      format: 'heliaster-performance',
      version: PERFORMANCE_VERSION,
      id: given.makeId<PerformanceId>('performance'),
      name: given.name,
      kitId: given.kitId,
      playedAt: stretch.fromMs,
      sampleRateHz: this.sampleRateHz,
      originFrame: from,
      fromFrame: stretch.fromFrame - from,
      toFrame: stretch.toFrame - from,
      tempoBpm: kits[kits.length - 1].kit.tempoBpm,
      standing: {
        pads: origin.pads.map((pad) => (pad.lastFrame === undefined ? pad : { ...pad, lastFrame: pad.lastFrame - from })),
        controls: origin.controls.map(([control, value]) => [control, value]),
        ...(origin.latestPad ? { latestPad: origin.latestPad } : {}),
      },
      ...(origin.isSteady ? {} : { isUnsteady: true as const }),
      segments: kits.map(({ frame, kit }) => ({ frame, kit: given.hashOf(kit) })),
      events,
    }
  }

  /** Lets go of what is older, but for how the engine and the kit stood where what is left begins. */
  private forget(ms: number): void {
    const { length } = this.told
    const kept = this.told.findIndex((told, i) => ms - told.ms <= REMEMBERED_MS && length - i <= MOST_ACTS)
    const from = kept < 0 ? length : kept
    if (from === 0) return
    const firstFrame = this.told[from]?.act.frame ?? Infinity
    const origin = this.stood.findLastIndex(({ at }) => at.frame <= firstFrame)
    if (origin > 0) this.stood = this.stood.slice(origin)
    const originFrame = this.stood[0]?.at.frame ?? firstFrame
    const kit = this.told.findLastIndex(({ act }) => act.type === 'kit' && act.frame < originFrame)
    this.told = this.told.filter(({ act }, i) => i === kit || i >= from || act.frame >= originFrame)
  }
}

/** By frames, in the order in which they came where frames are one: strikes of a groove are told beside the rest. */
function inOrder(told: Told[]): Told[] {
  for (let i = Math.max(1, told.length - 2048); i < told.length; i++)
    if (told[i - 1].act.frame > told[i].act.frame) return [...told].sort((a, b) => a.act.frame - b.act.frame)
  return told
}
