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

/** Fields of a pad's head. `turnsOf` is the slot of the pad whose counts and whose hash its turns go by: its own, or that of the pad it borrows from. */
export const Head = layout(
  'size', 'padHash', 'mode', 'maxStrikes', 'pick', 'counter', 'gain', 'pan', 'tuneCents', 'rootNote',
  'chokeCount', 'chokes', 'bandCount', 'bands', 'rayCount', 'rays', 'settledCount', 'settled',
  'group', 'groupMaxStrikes', 'againFrames', 'againAtGroove', 'limit', 'limitMaxStrikes',
  'openings', 'takeTurns', 'alsoCount', 'also', 'glideFrames', 'rollSeconds', 'aheadFrames', 'turnsOf', 'turnsHash',
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

/** `chunk` is -1 where this ray has no clip; `right` is -1 for one channel; `rate` is clip rate over engine rate; `levels` of lower rates lie behind it. `roundFrom` is where what goes round begins, -1 where nothing does, `loopStart`, `loopPeriod` and `loopPlain` as in LaidLoop; the `tail...` fields are the clip without its loop, by which it goes on once let go. `ray` is a row of RayField of its turn's own, 0 for none. `forms` are runs of FormField of the clip worked ahead, among which a strike chooses; `slices` begin so far behind the row. `turnsBackAfter` is the length of a loop that goes there and back, 0 for any other. */
export const ClipField = layout('chunk', 'left', 'right', 'frames', 'rate', 'gain', 'levels', 'ray',
  'roundFrom', 'loopStart', 'loopPeriod', 'loopPlain', 'tailChunk', 'tailLeft', 'tailRight', 'tailFrames', 'tailLevels', 'formCount', 'forms', 'byVelocity', 'byChance', 'sliceCount', 'slices', 'turnsBackAfter') // prettier-ignore

/** What is set for a part of a clip from a frame of what it plays on; `sends` begin so far behind the row. */
export const SliceField = layout('frame', 'gainDb', 'pan', 'tuneCents', 'sendCount', 'sends')
/** What of a send a slice lets through. */
export const SliceSendField = layout('to', 'gain')

/** A clip as it was worked for a note, -1 for any, with its resonances moved by so many octaves. `root` is the note whose pitch is in it, -1 where that is the pad's; `clip` is its row of ClipField. */
export const FormField = layout('note', 'root', 'octaves', 'clip')

/**
 * `bus` is the slot of the bus it goes to, 0 for the master. `values` is a run of what it stands at, by ParamCode, pad and
 * ray together, in what responses move it by. `stages` are codes of what its voices pass, in order.
 */
export const RayField = layout(
  'hash', 'gain', 'pan', 'tuneCents', 'keyTrack', 'delayFrames', 'mute', 'bandCount', 'bands', 'pick',
  'amp', 'pitch', 'filter1', 'filter1Sections', 'filter1CutoffHz', 'filter1Damping', 'filter1GainDb', 'filter1Env', 'filter1EnvCents',
  'filter2', 'filter2Sections', 'filter2CutoffHz', 'filter2Damping', 'filter2GainDb', 'filter2Env', 'filter2EnvCents',
  'lowCut', 'lowCutSections', 'lowCutCutoffHz', 'lowCutDamping', 'lowCutGainDb', 'lowCutEnv', 'lowCutEnvCents',
  'crush', 'crushBits', 'crushRateHz', 'crushFilter', 'width', 'levelShare', 'levelShareMoves', 'pitchShare', 'attackDb', 'tailDb',
  'driveKind', 'driveDb', 'driveAfterDb', 'driveLevelDb', 'levelIsAfter', 'waitFrames', 'startSeconds', 'endSeconds', 'fadeInSeconds', 'fadeOutSeconds',
  'bus', 'sendCount', 'sends', 'values', 'stageCount', 'stages', 'liveCount', 'live', 'settled',
) // prettier-ignore

/** How much goes to another bus, from before the fader or after it; `isOfSlices` where only slices of clips send there. */
export const SendField = layout('to', 'gain', 'isPre', 'isOfSlices')
/** The most sends of a ray or a bus. */
export const MOST_SENDS = 16

/**
 * Head of an envelope; `points` runs of PointField follow. `sustain` is the point at which it waits while its strike is held,
 * `loopFrom` the one from which it goes round to that instead; -1 where there is none.
 */
export const EnvelopeField = layout('count', 'sustain', 'loopFrom')
export const PointField = layout('frame', 'value', 'k')

/** A section of a filter: its states, what it does to a sample now, by how much that changes a frame, and where it will stand; see voice/both. */
export const FilterSection = layout(
  'one', 'two', 'rightOne', 'rightTwo', 'a1', 'a2', 'a3', 'mix0', 'mix1', 'mix2',
  'a1Step', 'a2Step', 'a3Step', 'mix0Step', 'mix1Step', 'mix2Step',
  'a1Next', 'a2Next', 'a3Next', 'mix0Next', 'mix1Next', 'mix2Next',
) // prettier-ignore
const filterHead = layout(
  'kind', 'sections', 'cutoffHz', 'damping', 'gainDb', 'envelope', 'envelopeCents', 'timeScale', 'leftAt',
  'spanStart', 'spanEnd', 'longAgain', 'shorterAgain', 'stride', 'cellStart', 'cellEnd',
  'cents', 'dampingNow', 'gainNow', 'spanCents', 'centsNext', 'hasNext', 'which', 'holds',
) // prettier-ignore
/** A filter of a voice, with room for two sections; `envelope` is where its envelope lies in memory, 0 for none; `which` its number. */
export const FilterField = { ...filterHead, section0: filterHead.length, length: filterHead.length + 2 * FilterSection.length } as const
/** Filters of a voice, one after the other; the last one is its low cut. */
export const FILTERS = 3

/** Fades of a voice: in by frames of the engine, out by frames of its clip, and where that ends; the same of its clip without its loop, by which it goes on once let go, and from which frame of a stretch on it does. */
export const EdgeField = layout('inFrames', 'outFrames', 'endFrame', 'tailOutFrames', 'tailEndFrame', 'tailAt')
/** What tells attack and tail of a voice apart: see voice/both/transient.ts. */
export const TransientField = layout('attackDb', 'tailDb', 'isBegun', 'quick', 'slow', 'gain', 'step')
const crushHead = layout('mix', 'bits', 'rateHz', 'isFiltered', 'isBegun', 'phase', 'held', 'heldRight')
/** What holds and rounds the samples of a voice, and the two sections of its own filter. */
export const CrushField = { ...crushHead, section0: crushHead.length, length: crushHead.length + 2 * FilterSection.length } as const

/** `code` is the parameter that is its amount, `keep` how much of a steady part stays from frame to frame. */
const driveHead = layout('kind', 'amountDb', 'levelDb', 'hasLevel', 'code', 'keep', 'isBegun', 'gain', 'gainStep', 'mix', 'mixStep', 'level', 'levelStep') // prettier-ignore
const driveSide = layout('before', 'wasIn', 'wasOut')
/** One channel of a drive: 16 samples that it was fed with and 63 of four times as many that it made, each with room for 16 frames more. */
export const DriveSide = {
  ...driveSide,
  past: driveSide.length,
  driven: driveSide.length + 32,
  length: driveSide.length + 32 + 127,
} as const
export const DriveField = { ...driveHead, side0: driveHead.length, length: driveHead.length + 2 * DriveSide.length } as const
/** Drives of a voice: before the filters, and after them. */
export const DRIVES = 2
/** What a voice holds back of each channel, and as much again. */
export const WaitField = { left0: 0, right0: 64, length: 128 } as const

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
  'insertCount', 'inserts', 'movedCount', 'moved', 'moveCount', 'moves',
) // prettier-ignore
/**
 * What of the mix is moved beside levels: places of buses (`slot`, 0 to none where it is not one) and numbers of effects,
 * known by the `hash` of their address. Rows of responses mean them by MAX_BUSES and their place in this list.
 */
export const MovedField = layout('hash', 'slot')
export const MOST_MOVED = 256
/**
 * How what is moved leads one number of an effect that it goes by, in the order of units and numbers: `table` has for
 * MOVE_POINTS even steps from `down` below to `up` above where it stands what is added to `base`, or, where `isRatio`, by how
 * many dB it is multiplied.
 */
export const MoveField = layout('unit', 'hash', 'value', 'base', 'isRatio', 'moved', 'down', 'up', 'table')
/** Steps on each side of where it stands. */
export const MOVE_STEPS = 24
export const MOVE_POINTS = 2 * MOVE_STEPS + 1
export const BusField = layout('slot', 'out', 'gain', 'pan', 'sendCount', 'sends', 'insertCount', 'inserts')
const insertHead = layout('hash', 'kind', 'unit', 'chunk', 'lines', 'floats', 'key', 'tailFrames', 'jumps', 'count')
/** The most numbers that an effect goes by. */
export const EFFECT_VALUES = 40
/**
 * What is put into a bus, in order. `unit` is where it keeps what it has from frame to frame, `chunk` (-1 for none) and
 * `lines` where its delay lines begin, which take `floats` samples; `key` is the slot of the bus that it listens to, -1
 * for its own. Then `count` numbers of its kind, the first `jumps` of which are never gone to by degrees.
 */
export const InsertField = { ...insertHead, value0: insertHead.length, length: insertHead.length + EFFECT_VALUES } as const
/** Those of the document, and before them the width and low cut of a bus. */
export const MOST_INSERTS = 8

const unitHead = layout(
  'hash', 'kind', 'isAwake', 'silentFrames', 'tailFrames', 'jumps', 'count', 'lines', 'floats', 'isBegun', 'isDirty', 'isMoving', 'reductionDb',
) // prettier-ignore
/**
 * What an effect has while it runs: the numbers it goes by, where they stand now, by how much they move a frame, where they
 * stand where the next cell of the grid begins and where they are to be; then what it keeps, as its kind lays it out.
 * `lines` is the place of its delay lines, counted in samples of 32 bits from the start of memory.
 */
export const UnitField = {
  ...unitHead,
  now0: unitHead.length,
  step0: unitHead.length + EFFECT_VALUES,
  next0: unitHead.length + 2 * EFFECT_VALUES,
  target0: unitHead.length + 3 * EFFECT_VALUES,
  state0: unitHead.length + 4 * EFFECT_VALUES,
  length: 640,
} as const
/** What effects work on: places of a block and of what they listen to (0: of their own), and of what all of them go by; `still` is where nothing moves. */
export const WorkField = layout('left', 'right', 'keyLeft', 'keyRight', 'rateHz', 'driveTable', 'peakTable', 'still')
/** Effects that there is room for at once: all of a kit, and those that are going. */
export const MAX_UNITS = 320

/** Numbers by which the kinds of effects go; those that come in rows of several stand last. */
export const EqualiserValue = layout('g', 'k', 'mix0', 'mix1', 'mix2')
const compressorHead = layout('ranges', 'kneeDb', 'mix', 'split1', 'split2')
/** `kneeDb` and all after it are gone to by degrees; `slope` is how much of what is above the threshold is taken away. */
export const CompressorValue = { ...compressorHead, range0: compressorHead.length } as const
export const RangeValue = layout('thresholdDb', 'slope', 'attack', 'release', 'makeUpDb')
export const GateValue = layout('holdFrames', 'opensAt', 'shut', 'rise', 'fall')
export const LimiterValue = layout('ranges', 'aheadFrames', 'split1', 'split2', 'release', 'ceiling1', 'ceiling2', 'ceiling3')
export const DriveValue = layout('kind', 'driveDb', 'levelDb', 'mix')
export const CrushValue = layout('bits', 'rateHz', 'mix')
export const TransientValue = layout('attackDb', 'tailDb')
export const WidthValue = layout('width', 'monoBelow')
export const EchoValue = layout('frames', 'capacity', 'feedback', 'lowPass', 'highPass', 'toAndFro', 'mix')
export const ReverbValue = layout(
  'kind',
  'size',
  'beforeFrames',
  'capacity',
  'beforeCapacity',
  'decaySeconds',
  'decayLow',
  'decayHigh',
  'early',
  'density',
  'mix',
)
export const RoomValue = layout('smallParts', 'bigParts', 'isStereo', 'mix')
export const ResonatorValue = layout(
  'kind',
  'strings',
  'capacity',
  'ratio2',
  'ratio3',
  'ratio4',
  'hz',
  'decaySeconds',
  'position',
  'damping',
  'mix',
)
export const OscillatorField = layout('hash', 'wave', 'periodFrames', 'phase', 'runsAlways')

/** A groove: sections that follow each other, each of strings of beads. `laps` is 0 for one that goes round for ever. */
export const GrooveHead = layout('size', 'framesPerBeat', 'sectionCount', 'sections')
export const SectionField = layout('grooveHash', 'lengthBeats', 'laps', 'stringCount', 'strings', 'laneCount', 'lanes')
/** A lane leads the level of a bus, in dB, while its groove plays; `base` is where the fader stands. */
export const LaneField = layout('slot', 'hash', 'base', 'pointCount', 'points')
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
/** Room for every parameter, and at its end for where the bend stands, in cents. */
export const PARAMS = 40
export const BEND_CODE = PARAMS - 1
/** Voices: one clip of one ray of one strike. */
export const VOICE_POOL = 512
/** What moves a voice while it sounds: an offset for each parameter, and so far behind it by how much that changes a frame. Behind the last voice is a row that nothing moves. */
export const MovesField = { steps: (VOICE_POOL + 1) * PARAMS } as const

/**
 * One event of a score or of a ring of live ones. `frame` -1 means: as soon as possible. `wantsBand` and `wantsTurn` are the
 * hash of a band or turn that a strike asks for and one more; 0 leaves it to the pad.
 */
export const EventField = layout(
  'frame', 'type', 'padSlot', 'velocity', 'note', 'inputFrame', 'key', 'gain', 'struckSlot', 'passOn', 'bead', 'path0', 'path1', 'path2', 'path3', 'path4',
  'wantsBand', 'wantsTurn',
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
  'struckSlot', 'cameBy', 'room', 'room1', 'room2', 'room3', 'room4', 'roomBy',
) // prettier-ignore

/**
 * What the engine says of itself. `lost...` are counted since it was
 * made: events that found no room, strikes that were ended before their time to make room for voices, blocks that came late. `hasKernel` is 1 where the kernel renders, 0 where its plain form does.
 */
export const StatusField = layout(
  'frame', 'peak', 'strikes', 'lostEvents', 'hostFrame', 'lateBlocks', 'lostStrikes', 'grooveBeat', 'grooveSection',
  'hasKernel', 'songBeat',
) // prettier-ignore

/**
 * What the engine has written to its end, for readers on another thread: strikes in the log and events that acted since it
 * was made, and the number of the kit that it plays.
 */
export const DoneField = layout('strikes', 'acts', 'kit')

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
/** The master, which is slot 0, a kit's buses, and one more, in which ends what is not to be heard now. */
export const MAX_BUSES = 34
export const MASTER = 0
/** The most pairs of outputs beside the one of the mix. */
export const MOST_PAIRS = 15
/** Where the programs of kit and groove stand behind those of the pads. */
export const KIT_ENTRY = MAX_PADS
export const GROOVE_ENTRY = MAX_PADS + 1
export const PROGRAM_ENTRIES = MAX_PADS + 2
/** Frames kept on each side of a region, and of each of its levels, since the reader looks to both: silence, or what goes round. */
export const GUARD_FRAMES = 48
/** Tables by which clips are read, for an octave of rates; clips have levels for at most so many octaves. */
export const READING_TABLES = 32
export const MOST_LEVELS = 6
