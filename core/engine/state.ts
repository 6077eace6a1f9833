import { createQueue, QUEUE_EVENTS } from './events'
import type { Queue } from './events'
import { createGroovePlay } from './groove/play-state'
import type { GroovePlay } from './groove/play-state'
import { createKernel } from './kernel/kernel'
import type { Kernel } from './kernel/kernel'
import { engineRoom } from './memory/memory'
import type { EngineMemory } from './memory/memory'
import { createInserts } from './mix/inserts'
import type { Inserts } from './mix/inserts'
import { createMix } from './mix/mix-state'
import type { Mix } from './mix/mix-state'
import type { WholeLevels } from './mix/whole-levels'
import { CONTROLS } from './program/codes'
import { EventField, MAX_PADS, PARAMS, PATH_WORDS, PROGRAM_ENTRIES, SetUp, StatusField } from './program/layout'
import { createLatest } from './strike/latest'
import type { WeighedDeck } from './strike/seldom'
import { CHUNK_FRAMES, GRID_FRAMES, NEVER } from './time'
import { DRIVE_TABLE, driveTable } from './voice/drive-table'
import { createVoices } from './voice/voices'
import type { Voices } from './voice/voices'

/** Strikes that may sound at once, and room for those that are fading out. */
export const MAX_STRIKES = 128
const STRIKE_POOL = MAX_STRIKES + 64

function createStrikes() {
  const ints = () => new Int32Array(STRIKE_POOL)
  const doubles = () => new Float64Array(STRIKE_POOL)
  return {
    active: ints(), padSlot: ints(), struckSlot: ints(), voices: ints(), velocity: ints(), released: ints(), stopping: ints(),
    group: doubles(), limit: doubles(), startFrame: doubles(), key: doubles(), order: doubles(),
  } // prettier-ignore
}
export type Strikes = ReturnType<typeof createStrikes>

/** The strike that is being decided: set by its event, and by what is decided first, so that rules need not hand it on. */
export interface StrikeNow {
  padSlot: number
  velocity: number
  /** -1 where no note struck it; and the note of its pad's strike before. */
  note: number
  lastNote: number
  /** The note whose pitch is in the clip that sounds; -1 where that is the pad's root. */
  formRoot: number
  inputFrame: number
  key: number
  /** The pad that the finger struck: what it lets go is let go of. */
  struckSlot: number
  /** Level against a strike of its own, a gain; and whether it strikes others along. */
  gain: number
  passOn: number
  /** One of `cameCodes`. */
  cameBy: number
  /** The row of the bead that struck, in the arena, and the slot of its program; 0 where none did. */
  bead: number
  beadProgram: number
  /** The hash of the band and of the turn that it asks for; -1 for none. */
  wantsBand: number
  wantsTurn: number
  /** Which strike of its pad it is, counted from 0, and how many frames after the one before; -1 for the first. */
  padStrike: number
  /** The same among the strikes that its turns go by, and the slot of the pad that counts them. */
  turnStrike: number
  turnsSlot: number
  sinceLast: number
  /** The program of its pad: its slot, and where it begins in the arena. */
  programSlot: number
  program: number
  /** Its place among the strikes that sound, and its record in the log. */
  slot: number
  record: number
  /** The list of bands that is being sounded, the only ray it is for (-1 for all that share it), and how its turns are picked. */
  bands: number
  onlyRay: number
  pick: number
  /** The cell that is being sounded: at which gain, the hash of its band, its turn and out of how many. */
  share: number
  bandHash: number
  turn: number
  turns: number
}

function createNow(): StrikeNow {
  return {
    padSlot: 0, velocity: 0, note: -1, lastNote: -1, formRoot: -1, inputFrame: 0, key: 0, struckSlot: 0, gain: 1, passOn: 1, cameBy: 0, bead: 0, beadProgram: 0, wantsBand: -1, wantsTurn: -1,
    padStrike: 0, turnStrike: 0, turnsSlot: 0, sinceLast: -1, programSlot: 0, program: 0, slot: 0, record: 0, bands: 0, onlyRay: -1, pick: 0, share: 1, bandHash: 0, turn: 0, turns: 0,
  } // prettier-ignore
}

/** Everything the engine changes while it runs: numbers and typed arrays, all made before the first frame. */
export interface EngineState {
  readonly memory: EngineMemory
  /** What renders voices; undefined where the plain form does, and once samples lie where the kernel cannot read. */
  kernel: Kernel | undefined
  /** What the kernel is told once (SetUp); the engine's own arrays lie behind it. */
  readonly setUp: Float64Array
  readonly sampleRateHz: number
  frame: number
  /** The program slots that are played now, of pads, kit and groove. */
  readonly playing: Int32Array
  /** Where the kit's own program begins in the arena; 0 where there is none. */
  kit: number
  seed: number
  readonly voices: Voices
  voiceTop: number
  readonly strikes: Strikes
  readonly now: StrikeNow
  strikeOrder: number
  /** Strikes so far of each pad, and of each band of each pad (row = pad, 128 a row). */
  readonly padCount: Float64Array
  readonly bandCount: Float64Array
  /** The strike of each pad from which its turns are counted, and the frame of its last one. */
  readonly countFrom: Float64Array
  readonly lastFrame: Float64Array
  /** When each pad was silenced last: what began before goes on no longer. */
  readonly rollEnd: Float64Array
  /** The note of each pad's last strike; -1 for none. */
  readonly lastNote: Float64Array
  /** Live and scheduled events. */
  readonly queue: Queue
  /** The event that is being run. */
  readonly event: Float64Array
  /** A score given whole before rendering, in order of frame. */
  score: Float64Array
  scoreCursor: number
  readonly mix: Mix
  readonly inserts: Inserts
  /** Of an engine that others follow, or that follows another: what the whole mix is heard as. */
  tells: WholeLevels | undefined
  follows: WholeLevels | undefined
  readonly groove: GroovePlay
  limiterGain: number
  readonly limiterRelease: number
  readonly stopFadeFrames: number
  /** By how much a live parameter nears where it is to be, in one cell of the grid; in a cell of its own (see math.ts). */
  readonly nearing: Float64Array
  /** Where in its clip a voice is read, frame by frame, in frames at the clip's own rate. */
  readonly positions: Float64Array
  readonly scratchLeft: Float64Array
  readonly scratchRight: Float64Array
  /** Level and place of a voice that moves, frame by frame; while it is read, what a second table gives. */
  readonly gainsLeft: Float64Array
  readonly gainsRight: Float64Array
  /** What is being shuffled. */
  readonly deck: WeighedDeck
  /** The filters of drive; see voice/drive-table.ts. */
  readonly driveTable: Float64Array
  readonly offsets: Float64Array
  /** Where controls stand: controllers 0 to 127, all others as `controlNumbers` says. */
  readonly controls: Float64Array
  /** Strikes so far of pads that take turns, counted at the first of them. */
  readonly takenTurns: Float64Array
  /** Through which pads the strike that is being decided came, and the event it makes of itself. */
  readonly path: Float64Array
  readonly made: Float64Array
}

/** What one engine renders with, beside what it shares. `isPlain` keeps the kernel out: its plain form computes. */
export function createEngine(memory: EngineMemory, sampleRateHz: number, isPlain = false): EngineState {
  const room = engineRoom(memory)
  const block = () => room.doubles(CHUNK_FRAMES)
  const setUp = room.doubles(SetUp.length)
  const engine: EngineState = {
    memory,
    kernel: isPlain ? undefined : createKernel(memory, setUp.byteOffset),
    setUp,
    sampleRateHz,
    frame: 0,
    playing: new Int32Array(PROGRAM_ENTRIES),
    kit: 0,
    seed: 1,
    voices: createVoices(room),
    voiceTop: 0,
    strikes: createStrikes(),
    now: createNow(),
    strikeOrder: 0,
    padCount: new Float64Array(MAX_PADS),
    bandCount: new Float64Array(MAX_PADS * 128),
    countFrom: new Float64Array(MAX_PADS),
    lastFrame: new Float64Array(MAX_PADS).fill(NEVER),
    rollEnd: new Float64Array(MAX_PADS).fill(-NEVER),
    lastNote: new Float64Array(MAX_PADS).fill(-1),
    queue: createQueue(QUEUE_EVENTS),
    event: new Float64Array(EventField.length),
    score: new Float64Array(0),
    scoreCursor: 0,
    mix: createMix(sampleRateHz, CHUNK_FRAMES, room),
    inserts: createInserts(sampleRateHz, CHUNK_FRAMES, room),
    tells: undefined,
    follows: undefined,
    groove: createGroovePlay(),
    limiterGain: 1,
    limiterRelease: 1 / (0.08 * sampleRateHz),
    stopFadeFrames: Math.floor(0.004 * sampleRateHz + 0.5),
    nearing: Float64Array.of(Math.min(1, GRID_FRAMES / (0.005 * sampleRateHz))),
    positions: block(),
    scratchLeft: block(),
    scratchRight: block(),
    gainsLeft: block(),
    gainsRight: block(),
    deck: { seed: 1, key: 0, list: 0, count: 0, scratch: new Int32Array(128), arena: memory.arena, turns: 0, heaviest: 0, last: -1 },
    driveTable: room.doubles(DRIVE_TABLE),
    offsets: new Float64Array(PARAMS),
    controls: new Float64Array(CONTROLS),
    takenTurns: new Float64Array(MAX_PADS),
    path: new Float64Array(PATH_WORDS),
    made: new Float64Array(EventField.length),
  }
  createLatest(engine.controls)
  setUp.set(setUpOf(engine))
  engine.driveTable.set(driveTable())
  memory.status[StatusField.hasKernel] = engine.kernel ? 1 : 0
  return engine
}

/** What the kernel is told once: where things lie, and what follows from the rate. */
function setUpOf({ memory, mix, sampleRateHz, stopFadeFrames }: EngineState): Float64Array {
  const rows = new Float64Array(SetUp.length)
  for (const name of ['arena', 'directory', 'meters', 'chunkAt', 'readingAt', 'readingTaps'] as const)
    rows[SetUp[name]] = memory[name].byteOffset
  rows[SetUp.sampleRateHz] = sampleRateHz
  rows[SetUp.stopFadeFrames] = stopFadeFrames
  rows[SetUp.mixStep] = mix.step
  return rows
}

/** The program of an entry, as it is played now; 0 where it has none. */
export function programOf({ playing, memory }: EngineState, entry: number): number {
  return playing[entry] === 0 ? 0 : memory.directory[playing[entry]]
}
