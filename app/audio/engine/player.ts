import {
  controlNumbers,
  createLoader,
  createMemory,
  createSampleStore,
  doneOf,
  DoneField,
  EventType,
  MAX_CHUNKS,
  MOST_PAIRS,
  readActs,
  readingTable,
  StatusField,
} from '@heliaster/core/engine'
import type { Audio } from '@heliaster/core/audio'
import type { EngineMemory, GrooveChoice, KitLoader, StrikeRecord } from '@heliaster/core/engine'
import { createSteadyClock } from '@heliaster/core/hands'
import type { SteadyClock } from '@heliaster/core/hands'
import type { AudioHash, BusId, InsertId, Kit, PadId } from '@heliaster/core/kit'
import { audioForNote, workedClip, workedKit, workedPad } from '@heliaster/core/matter'
import { actsOf, stoodOf } from '@heliaster/core/performance'
import type { Act, Stood } from '@heliaster/core/performance'

import type { EngineOptions } from '../../../core/engine/hosts/messages'
import { readyAudio } from '../files/audio-files'
import type { Passing } from '../files/audio-files'
import { fetchFirst, loadWhenReady, whenQuiet } from './arriving'
import { engineUrl, NoSound } from './engine-url'
import { createKitActs } from './kit-acts'
import { metersOf, soundedOf } from './meters'
import { pairsOfBuses } from './pairs-of-buses'
import { createSleep } from './sleep'
import type { Sleep } from './sleep'
import { eventOf, toEngine } from './to-engine'
import type { EventNumbers, Link, ToEngine } from './to-engine'
import { chunkBacking } from './two-copies'

/** How kits, pads and clips are played whose matter is worked. */
export const matter = { audioForNote, workedClip, workedKit, workedPad }

/** Whatever strikes a pad, finger, key or groove, says it in these words. */
export interface Strike {
  readonly padId: PadId
  readonly velocity: number
  /** The note that strikes it, where one does. */
  readonly note?: number
  /** Names the finger or key, so that letting go reaches the right strike. */
  readonly key?: number
  /** Engine frame to sound on; as soon as possible without one. */
  readonly frame?: number
  /** When a hand struck, in ms of the page's clock, where it is to sound as long after it as any other strike. */
  readonly steadyAtMs?: number
}

/** A strike as it sounded. */
export interface Sounded extends StrikeRecord {
  readonly padId: PadId | undefined
  /** The pad that was struck; another one where it came along, in its turn or by an opening. */
  readonly struckId: PadId | undefined
  /** Pads that it silenced, and pads of which a strike stopped to make room for it. */
  readonly chokedIds: readonly PadId[]
  readonly roomIds: readonly PadId[]
}

/** What was lost since the engine began, each kind counted. */
export interface Losses {
  /** Strikes and moves that found no room on their way. */
  readonly events: number
  /** Strikes that were ended before their time to make room for others. */
  readonly strikes: number
  /** Blocks that took the engine longer than they last: each may have been heard as a crackle. */
  readonly lateBlocks: number
}

export interface Player {
  readonly context: AudioContext
  /** The engine: its first output is what is heard, its second the mix before the limiter, its third what leaves by other pairs. */
  readonly node: AudioWorkletNode
  /** Lets buses leave by pairs of outputs of their own, counted from 1 behind the pair of the mix. */
  setPairs(pairs: ReadonlyMap<BusId, number>): void
  readonly sampleRateHz: number
  /** `choice` is the groove that plays when it is begun; `own` the kit without what is only heard beside it. */
  load(kit: Kit, choice?: GrooveChoice, own?: Kit): void
  /** Returns whether the strike waits for its sound to arrive. */
  strike(strike: Strike): boolean
  /** At a frame, or now. */
  release(padId: PadId, key: number, frame?: number): void
  stopAll(): void
  /** Frames the engine has rendered so far. */
  frameNow(): number
  /** How the page's clock and the engine's frames go together; looked at with each picture and each strike. */
  readonly clock: SteadyClock
  seeClock(): void
  /** What to add to a frame of the engine to have the frame of its context. */
  hostFrame(): number
  peak(): number
  losses(): Losses
  /** Highest sample of each ray of a pad since the last call, 0..1 and above. */
  takePeaks(padId: PadId): Float64Array
  /** The same of a bus, or of the master. */
  takeBusPeak(busId?: BusId): number
  /** By how many dB an effect lowered at most since the last call; 0 for one that is not played. */
  takeReduction(insertId: InsertId, busId?: BusId): number
  /** Moves a control: its number among `controlNumbers`, and where to, 0..127 for controllers, 0..1 or -1..1 for others. */
  moveControl(control: number, value: number): void
  /** How hard a pad is pressed, 0..1. */
  press(padId: PadId, pressure: number): void
  /** The groove begins, from its first beat or from another one, now or at a frame; or it ends. */
  beginGroove(beat?: number, frame?: number): void
  /** Another clock leads: at a frame it is on this beat, counted from its beginning, and a beat lasts so many frames. */
  leadGroove(beat: number, framesPerBeat: number, frame: number): void
  stopGroove(): void
  /** The beat of the groove that sounds now, -1 while none does; and which of the song's it is, from 0. */
  grooveBeat(): number
  grooveSection(): number
  /** The beat counted from where the groove began, through all its sections; -1 while none plays. */
  songBeat(): number
  /** Strikes sounded since the last call. */
  takeSounded(): Sounded[]
  /** What acted since the last call, by names: what was played by hand, and from when on which kit stood. */
  takeActs(): Act[]
  /** Whether nothing sounds and nothing is under way. */
  isSilent(): boolean
  /** How the engine stands, between two blocks. */
  stands(): Promise<Stood>
  resume(): Promise<void>
  /** Whether the context sleeps, since it has long been silent. All that sounds wakes it. */
  readonly sleep: Sleep
}

/** Starts the engine in an audio worklet. It stays silent until the browser lets the page sound: call `resume`. */
export async function createPlayer(): Promise<Player> {
  if (typeof AudioContext === 'undefined' || typeof AudioWorkletNode === 'undefined')
    throw new NoSound(
      'This browser has no AudioWorklet, so pads cannot sound. Everything else works; a current Chrome, Edge, Firefox or Safari plays, opened at https or localhost.',
    )
  const context = new AudioContext({ latencyHint: 'interactive' })
  if (!context.audioWorklet) throw new NoSound('Pads sound only on https or localhost: open Heliaster at one of these addresses.')
  await context.audioWorklet.addModule(await engineUrl())
  const shared = globalThis.crossOriginIsolated && typeof SharedArrayBuffer !== 'undefined'
  const memory = createMemory(shared)
  const options: EngineOptions = shared ? { memory } : {}
  const node = new AudioWorkletNode(context, 'heliaster-engine', {
    numberOfInputs: 0,
    numberOfOutputs: 3,
    outputChannelCount: [2, 2, 2 * MOST_PAIRS],
    processorOptions: options,
  })
  node.connect(context.destination)
  whenQuiet(() => readingTable(0)) // nearly every clip is read by it: the first strike does not wait until it is made
  return playerOver(context, { memory, node, shared })
}

function playerOver(context: AudioContext, link: Link): Player {
  const { memory, node } = link
  const sleep = createSleep(context, () => isSilent(memory))
  const engine = toEngine(link, () => sleep.wake())
  const fresh = new Map<AudioHash, Passing>()
  const kitActs = createKitActs()
  const loader = loaderOver(
    context,
    link,
    engine,
    (hash) => fresh.get(hash)?.audio,
    (event) => kitActs.sent(event),
  )
  const pairs = pairsOfBuses(
    (busId) => loader.busSlotOf(busId),
    (ofSlot) => engine.tell({ type: 'pairs', ofSlot }),
  )
  /** Pads of the kit alone: what is only heard beside it is not played. */
  const ownPad = (slot: number) => {
    const padId = loader.padIdOf(slot)
    return padId && kitActs.stands?.pads.some(({ id }) => id === padId) ? padId : undefined
  }
  let acted = 0
  return {
    context,
    node,
    sampleRateHz: context.sampleRate,
    load(kit, choice, own = kit) {
      kitActs.stands = own
      loadWhenReady(workedKit(kit), choice, loader, fresh)
      pairs.tellAgain()
    },
    setPairs: pairs.set,
    ...handsOn(context, memory, loader, engine),
    ...standingOf(memory, engine),
    ...metersOf(memory, loader),
    takeSounded: soundedOf(memory, loader),
    takeActs() {
      const last = doneOf(memory, DoneField.acts)
      const rows = readActs(memory, acted, last)
      acted = last
      return actsOf(rows, ownPad, kitActs.actOf)
    },
    stands: async () => stoodOf(await engine.askStanding(), ownPad),
    resume: () => (context.state === 'running' || sleep.isAsleep() ? Promise.resolve() : context.resume()),
    sleep,
  }
}

/** What loads kits into the engine: samples and tables go where the engine sees them, and what it is told is remembered as an act. */
function loaderOver(context: AudioContext, { memory, shared }: Link, { tell, tellEvent }: ToEngine, freshAudio: (hash: AudioHash) => Audio | undefined, sent: (event: Float64Array) => void): KitLoader {
  const store = createSampleStore(chunkBacking(memory, shared, tell), MAX_CHUNKS)
  return createLoader(memory, store, context.sampleRate, (hash) => freshAudio(hash) ?? readyAudio(hash), {
    send(event) {
      const isTold = tellEvent(event)
      if (isTold) sent(event)
      return isTold
    },
    arenaWritten: (offset, length) => !shared && tell({ type: 'arena', offset, doubles: memory.arena.slice(offset, offset + length) }),
    tableMade: (table, numbers) => !shared && tell({ type: 'table', table, numbers }),
    tablesChanged: () => !shared && tell({ type: 'tables', directory: memory.directory.slice(), programTable: memory.programTable.slice() }),
  })
} // prettier-ignore

/** What hands, keys and clocks do. */
function handsOn(context: AudioContext, memory: EngineMemory, loader: KitLoader, { send }: ToEngine) {
  const clock = createSteadyClock(context.sampleRate)
  const seeClock = () => clock.see(performance.now(), memory.status[StatusField.frame])
  /** No later than a burst after the next one, whatever the clock believes. */
  const steadyFrame = (atMs: number) => {
    seeClock()
    const frame = clock.frameOf(atMs)
    return frame !== undefined && frame - memory.status[StatusField.frame] <= 2 * clock.burstFrames() ? frame : undefined
  }
  const sendEvent = (type: number, said?: EventNumbers) => send(eventOf(memory, type, said))
  return {
    clock,
    seeClock,
    strike(given: Strike) {
      const { padId, velocity, key, note, frame, steadyAtMs } = given
      const steady = steadyAtMs === undefined ? undefined : steadyFrame(steadyAtMs)
      const sendIt = (at = frame ?? steady) => sendEvent(EventType.strike, { padSlot: loader.slotOf(padId), velocity, key, frame: at, note })
      const waits = frame === undefined && fetchFirst(loader, given, () => sendIt())
      if (!waits) sendIt()
      return waits
    },
    release: (padId: PadId, key: number, frame?: number) => sendEvent(EventType.release, { padSlot: loader.slotOf(padId), key, frame }),
    stopAll: () => sendEvent(EventType.stopAll),
    moveControl: (control: number, value: number) => sendEvent(EventType.controller, { velocity: value, note: control }),
    press: (padId: PadId, pressure: number) => sendEvent(EventType.controller, { velocity: pressure, note: controlNumbers.keyPressure + loader.slotOf(padId) }),
    beginGroove: (beat = 0, frame?: number) => sendEvent(EventType.groove, { velocity: beat, frame }),
    leadGroove: (beat: number, framesPerBeat: number, frame: number) => sendEvent(EventType.leadGroove, { velocity: beat, key: framesPerBeat, frame }),
    stopGroove: () => sendEvent(EventType.stopGroove),
  }
} // prettier-ignore

/** What the engine says of itself as it runs. */
function standingOf(memory: EngineMemory, { lost }: ToEngine) {
  return {
    frameNow: () => memory.status[StatusField.frame],
    hostFrame: () => memory.status[StatusField.hostFrame],
    peak: () => memory.status[StatusField.peak],
    losses: () => ({
      events: memory.status[StatusField.lostEvents] + lost(),
      strikes: memory.status[StatusField.lostStrikes],
      lateBlocks: memory.status[StatusField.lateBlocks],
    }),
    grooveBeat: () => memory.status[StatusField.grooveBeat],
    grooveSection: () => memory.status[StatusField.grooveSection],
    songBeat: () => memory.status[StatusField.songBeat],
    isSilent: () => isSilent(memory),
  }
}

/** 1e-6 is -120 dB. */
const INAUDIBLE = 1e-6

/** Nothing sounds, and nothing is under way: no groove, no strike, no tail. */
function isSilent({ status, uses }: EngineMemory): boolean {
  return status[StatusField.grooveBeat] < 0 && status[StatusField.peak] < INAUDIBLE && uses.every((count) => count === 0)
}
