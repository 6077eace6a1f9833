import { parameterNames, parameterRow } from '../../kit/parameters'
import type { Parameter } from '../../kit/parameters'

/**
 * The flat programs of pads, kit and groove: runs of doubles that the audio thread reads without a single object. All
 * offsets are relative to the program's first double. Levels are linear, times are frames at the engine's rate, pitch is
 * cents.
 */

type Layout<Name extends string> = Readonly<Record<Name | 'length', number>>

/** Numbers fields in the order of their names; `length` is how many doubles they take. */
function layout<Name extends string>(...names: Name[]): Layout<Name> {
  return Object.freeze({ ...Object.fromEntries(names.map((name, place) => [name, place])), length: names.length }) as Layout<Name>
}

/** Fields of a pad's head. */
export const Head = layout(
  'size', 'padHash', 'mode', 'maxStrikes', 'pick', 'counter', 'gain', 'pan', 'tuneCents', 'rootNote',
  'chokeCount', 'chokes', 'bandCount', 'bands', 'rayCount', 'rays', 'settledCount', 'settled',
  'group', 'groupMaxStrikes', 'againFrames', 'againAtGroove', 'limit', 'limitMaxStrikes',
  'openings', 'takeTurns', 'alsoCount', 'also',
) // prettier-ignore

/** Strikes that this pad silences: of a pad, and where `rays` or `bands` point at a list (0: at none) only those in it. */
export const ChokeField = layout('padSlot', 'fadeFrames', 'on', 'rays', 'bands')

/** Head of the openings a pad is among; rows of OpeningField follow, from the lowest threshold up. `chokeAt` is -1 where none is said. */
export const OpeningsField = layout('controller', 'chokeAt', 'count')
export const OpeningField = layout('from', 'padSlot')
/** Head of the pads that a pad takes turns with; their slots follow. `counter` is where their strikes are counted. */
export const TakeTurnsField = layout('counter', 'tieHash', 'pick', 'count')
/** A pad that is struck along; `curve` turns its velocity, -1 where it is that of the strike. */
export const AlsoField = layout('padSlot', 'chance', 'gain', 'delayFrames', 'passOn', 'tieHash', 'curve')

export const BandField = layout('hash', 'fromVelocity', 'blendVelocities', 'blendLaw', 'gain', 'turnCount', 'turns')

/** `clips` points at one ClipField run for each ray. */
export const TurnField = layout('hash', 'weight', 'clips')

/** `chunk` is -1 where this ray has no clip; `right` is -1 for one channel; `rate` is clip rate over engine rate; `levels` of lower rates lie behind it. */
export const ClipField = layout('chunk', 'left', 'right', 'frames', 'rate', 'gain', 'levels')

/**
 * `bus` is the slot of the bus it goes to, 0 for the master. `values` is a run of what it stands at, by ParamCode, pad and
 * ray together, in what responses move it by. `stages` are codes of what its voices pass, in order.
 */
export const RayField = layout(
  'hash', 'gain', 'pan', 'tuneCents', 'keyTrack', 'delayFrames', 'mute', 'bandCount', 'bands', 'pick',
  'amp', 'pitch', 'filterType', 'cutoffHz', 'damping', 'filterEnv', 'filterEnvCents', 'startSeconds',
  'bus', 'sendCount', 'sends', 'values', 'stageCount', 'stages', 'liveCount', 'live', 'settled',
) // prettier-ignore

/** How much goes to another bus, from before the fader or after it. */
export const SendField = layout('to', 'gain', 'isPre')
/** The most sends of a ray or a bus. */
export const MOST_SENDS = 16

/** Head of an envelope; `points` runs of PointField follow. `sustain` is -1 where there is none. */
export const EnvelopeField = layout('count', 'sustain')
export const PointField = layout('frame', 'value', 'k')

/** Head of a drawn curve; its points follow. */
export const CurveField = layout('count')
export const CurvePointField = layout('x', 'y', 'k')

/**
 * What moves a parameter: `number` is a control or an oscillator, `curve` how far from this row a drawn one begins (0: the
 * one of `k`), `bias` what it adds where the control is at rest, `least` and `most` between which its part is held. `only`
 * is a ray, -1 for all.
 */
export const ResponseField = layout('from', 'number', 'to', 'amount', 'bias', 'k', 'curve', 'only', 'draw', 'least', 'most')

/**
 * Fields of a kit's head, and of its buses in the order in which they are summed: a bus before the one it goes into. `live`
 * are rows of ResponseField that move the levels of buses; `only` is the slot of the bus, 0 for the master.
 */
export const KitHead = layout(
  'size', 'gain', 'maxStrikes', 'seed', 'busCount', 'buses', 'oscillatorCount', 'oscillators', 'tillers', 'liveCount', 'live',
  'insertCount', 'inserts',
) // prettier-ignore
export const BusField = layout('slot', 'out', 'gain', 'pan', 'sendCount', 'sends', 'insertCount', 'inserts')
/** What is put into a bus, in order; then the numbers of its kind, in the order of the table of effects. */
export const InsertField = layout('hash', 'kind', 'value0', 'value1', 'value2', 'value3')
export const MOST_INSERTS = 6
export const OscillatorField = layout('hash', 'wave', 'periodFrames', 'phase', 'runsAlways')

/** A groove: sections that follow each other, each of strings of beads. `laps` is 0 for one that goes round for ever. */
export const GrooveHead = layout('size', 'framesPerBeat', 'sectionCount', 'sections')
export const SectionField = layout('grooveHash', 'lengthBeats', 'laps', 'stringCount', 'strings', 'laneCount', 'lanes')
/** A lane leads the level of a bus, in dB, while its groove plays; `base` is where the fader stands. */
export const LaneField = layout('slot', 'base', 'pointCount', 'points')
export const LanePointField = layout('beat', 'value', 'k')
export const StringField = layout('padSlot', 'lengthBeats', 'beadCount', 'beads')
/** `beat` is from the start of the string's lap, and `lapShift` 1 where it lies before the lap that it belongs to. */
export const BeadField = layout(
  'beat', 'lapShift', 'slot', 'hash', 'velocity', 'chance', 'lapsOf', 'lapsLow', 'lapsHigh', 'after', 'unless',
  'repeatCount', 'repeatBeats', 'rise', 'draw', 'bandHash', 'turnHash', 'clip', 'lockCount', 'locks',
) // prettier-ignore
export const LockField = layout('to', 'ray', 'value', 'isSet')

/** Parameters by number: that of their draw, which never changes. */
export const ParamCode = Object.fromEntries(parameterNames.map((name) => [name, parameterRow(name).draw])) as Readonly<
  Record<Parameter, number>
>
/** Room for every parameter. */
export const PARAMS = 32

/** One event of a score or of a ring of live ones. `frame` -1 means: as soon as possible. */
export const EventField = layout(
  'frame', 'type', 'padSlot', 'velocity', 'note', 'inputFrame', 'key', 'gain', 'struckSlot', 'passOn', 'bead', 'path0', 'path1', 'path2', 'path3', 'path4',
) // prettier-ignore
/** Doubles of 32 bits each in which an event says through which pads it came. */
export const PATH_WORDS = 5

/**
 * What the engine decided for one strike. `band` and `turn` are -1 where nothing sounded, `aboveBand` and `aboveTurn`
 * where no louder band blends in; `rayMask` has a bit for each ray that sounds.
 */
export const LogField = layout(
  'frame', 'inputFrame', 'padSlot', 'velocity', 'band', 'turn', 'strikeNumber', 'rays',
  'choked', 'choked1', 'choked2', 'choked3', 'choked4', 'rayMask', 'aboveBand', 'aboveTurn',
) // prettier-ignore

/**
 * What the engine says of itself. `kitState` is the number of the kit that it plays; `lost...` are counted since it was
 * made: events that found no room, strikes that were ended before their time to make room for voices, blocks that came late. `hasKernel` is 1 where the kernel renders, 0 where its plain form does.
 */
export const StatusField = layout(
  'frame', 'peak', 'strikes', 'lostEvents', 'logCount', 'hostFrame', 'lateBlocks', 'kitState', 'actCount', 'lostStrikes', 'grooveBeat', 'grooveSection',
  'hasKernel',
) // prettier-ignore

/** What the kernel is told when an engine is made: bytes at which arrays begin, and what follows from its rate. */
export const SetUp = layout(
  'arena',
  'directory',
  'meters',
  'chunkAt',
  'readingAt',
  'readingTaps',
  'sampleRateHz',
  'stopFadeFrames',
  'mixStep',
)

/** Slots for pads: a kit's 128, and room for those that are only being heard or are about to go. */
export const MAX_PADS = 160
export const MAX_RAYS = 32
/** The master, which is slot 0, and a kit's buses. */
export const MAX_BUSES = 33
export const MASTER = 0
/** Where the programs of kit and groove stand behind those of the pads. */
export const KIT_ENTRY = MAX_PADS
export const GROOVE_ENTRY = MAX_PADS + 1
export const PROGRAM_ENTRIES = MAX_PADS + 2
/** Frames kept on each side of a region, and of each of its levels, since the reader looks to both: silence, or what goes round. */
export const GUARD_FRAMES = 48
/** Tables by which clips are read, for an octave of rates; clips have levels for at most so many octaves. */
export const READING_TABLES = 32
export const MOST_LEVELS = 6
