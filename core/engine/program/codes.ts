import { movedParameters, parameters } from '../../kit/parameters'
import type { Parameter } from '../../kit/parameters'
import { MAX_PADS } from './layout'

/** By so many cents the bend moves what follows it all the way, each way. */
export const BEND_CENTS = 200
/** Octaves from the note in the middle to the highest one: by so much what goes by the note is multiplied at most. */
export const NOTE_OCTAVES = 67 / 12

/** Codes of what is one of several. They are only of the moment; nothing stores them. */
export const modeCodes = { oneShot: 0, hold: 1, silencer: 2, loopUntilLetGo: 3, loopUntilStruckAgain: 4 } as const
export const pickCodes = { cycle: 0, random: 1, shuffle: 2 } as const
export const filterCodes = { off: 0, lowPass: 1, bandPass: 2, highPass: 3, notch: 4, lowShelf: 5, highShelf: 6, peak: 7 } as const
export const driveCodes = { soft: 0, hard: 1, folded: 2, uneven: 3 } as const
export const lawCodes = { power: 0, linear: 1 } as const
/** What of a pad silences others. */
/** What a strike came by. */
export const cameCodes = { hand: 0, bead: 1, along: 2 } as const
/** Whose limit was full, as bits of one number. */
export const limitCodes = { own: 1, group: 2, shared: 4, kit: 8 } as const
export const onCodes = { strike: 0, letGo: 1, pressure: 2 } as const
/** What a voice passes. */
export const stageCodes = {
  filter1: 1,
  level: 2,
  filter2: 3,
  lowCut: 4,
  crush: 5,
  width: 6,
  edges: 7,
  transient: 8,
  drive: 9,
  driveAfter: 10,
  wait: 11,
} as const
/** Kinds of effects, and what those that have characters are. */
export const effectCodes = {
  width: 1, equaliser: 2, compressor: 3, gate: 4, limiter: 5, drive: 6, crush: 7, transient: 8, echo: 9, reverb: 10, room: 11, resonator: 12,
} as const // prettier-ignore
export const reverbCodes = { room: 0, hall: 1, plate: 2 } as const
export const resonatorCodes = { strings: 0, combs: 1 } as const
export const waveCodes = { sine: 0, triangle: 1, falling: 2, steps: 3 } as const

/** What moves parameters: a control is any input that stands somewhere, from wheel to tiller. */
export const sourceCodes = { velocity: 0, chance: 1, note: 2, turn: 3, strikeRate: 4, control: 5, keyPressure: 6, oscillator: 7 } as const
/** Controls by number: controllers 0 to 127, then these; key pressure is that of a pad, by its slot. Bend is -1 to 1, all others are 0 to 1. */
export const controlNumbers = { wheel: 1, pedal: 64, bend: 128, pressure: 129, keyPressure: 130, tiller: 130 + MAX_PADS } as const
export const TILLERS = 16
/** What the kit's mix is moved by of the strike that came last stands behind them, as shares: 0 to 1, and octaves from middle C; the slot of its pad, and how many strikes there were. */
const latest = controlNumbers.tiller + TILLERS
export const latestNumbers = {
  velocity: latest,
  note: latest + 1,
  turn: latest + 2,
  strikeRate: latest + 3,
  padSlot: latest + 4,
  count: latest + 5,
} as const
/** As the slot of the latest strike's pad before the first strike. */
export const NO_PAD = -1
export const CONTROLS = latest + 6

/** Parameters that follow while a strike sounds. */
export const liveParameters: readonly Parameter[] = movedParameters.filter((name) => parameters[name].moves === 'live')

/**
 * What an event does. `along` is a strike that another one made, `bead` one of a groove. `controller` has the number of its
 * control in `note` and where it is moved to in `velocity`. `kit` says that what lies in memory is played from this frame
 * on; `note` is the number of that state. `fader` has a bus in `padSlot`, which of its faders in `note`, and the value in
 * `velocity`. `roll` is the next strike of what goes on while it is held. `groove` begins the groove, at the beat in `velocity`; `stopGroove` ends it; `leadGroove` says that
 * its beat, counted from its beginning, is that in `velocity`, and that a beat lasts `key` frames from here on.
 */
export const EventType = {
  strike: 1, release: 2, stopAll: 3, stopPad: 4, groove: 5, along: 6, controller: 7, kit: 8, fader: 9, stopGroove: 10, bead: 11, leadGroove: 12, roll: 13,
} as const // prettier-ignore
/** Faders of a bus: gains, and a place from -1 to 1. */
export const faderCodes = { gain: 0, pan: 1, send: 2 } as const
