/**
 * The flat program of a pad: one run of doubles that the audio thread reads without a single object. All offsets are
 * relative to the program's first double. Levels are linear, times are frames at the engine's rate, pitch is cents.
 */

/** Fields of the head. */
export const Head = {
  size: 0, padHash: 1, mode: 2, maxStrikes: 3, pick: 4, counter: 5, gain: 6, pan: 7, tuneCents: 8, rootNote: 9,
  chokeCount: 10, chokes: 11, bandCount: 12, bands: 13, rayCount: 14, rays: 15, responseCount: 16, responses: 17,
  group: 18, groupMaxStrikes: 19, againFrames: 20, againAtGroove: 21, limit: 22, limitMaxStrikes: 23,
  openings: 24, takeTurns: 25, alsoCount: 26, also: 27, length: 28,
} as const // prettier-ignore

/** A pad that a strike of this one silences. */
export const ChokeField = { padSlot: 0, fadeFrames: 1, length: 2 } as const

/** Head of the openings a pad is among; rows of OpeningField follow, from the lowest threshold up. `chokeAt` is -1 where none is said. */
export const OpeningsField = { controller: 0, chokeAt: 1, count: 2, length: 3 } as const
export const OpeningField = { from: 0, padSlot: 1, length: 2 } as const
/** Head of the pads that a pad takes turns with; their slots follow. `counter` is where their strikes are counted. */
export const TakeTurnsField = { counter: 0, tieHash: 1, pick: 2, count: 3, length: 4 } as const
/** A pad that is struck along. */
export const AlsoField = { padSlot: 0, chance: 1, gain: 2, delayFrames: 3, passOn: 4, tieHash: 5, length: 6 } as const

export const BandField = {
  fromVelocity: 0, blendVelocities: 1, blendLaw: 2, gain: 3, turnCount: 4, turns: 5, length: 6,
} as const // prettier-ignore

/** `clips` points at one ClipField run for each ray. */
export const TurnField = { weight: 0, clips: 1, length: 2 } as const

/** `chunk` is -1 where this ray has no clip; `right` is -1 for one channel; `rate` is clip rate over engine rate. */
export const ClipField = {
  chunk: 0, left: 1, right: 2, frames: 3, rate: 4, gain: 5, length: 6,
} as const // prettier-ignore

export const RayField = {
  gain: 0, pan: 1, tuneCents: 2, keyTrack: 3, delayFrames: 4, mute: 5, bandCount: 6, bands: 7, pick: 8,
  amp: 9, pitch: 10, filterType: 11, cutoffHz: 12, damping: 13, filterEnv: 14, filterEnvCents: 15, startSeconds: 16, length: 17,
} as const // prettier-ignore

/** Head of an envelope; `points` runs of PointField follow. `sustain` is -1 where there is none. */
export const EnvelopeField = { count: 0, sustain: 1, length: 2 } as const
export const PointField = { frame: 0, value: 1, k: 2, length: 3 } as const

export const ResponseField = { from: 0, to: 1, amount: 2, k: 3, ray: 4, draw: 5, length: 6 } as const

export const modeCodes = { oneShot: 0, hold: 1, silencer: 2, loopUntilLetGo: 3, loopUntilStruckAgain: 4 } as const
export const pickCodes = { cycle: 0, random: 1, shuffle: 2 } as const
export const filterCodes = { off: 0, lowPass: 1, bandPass: 2, highPass: 3 } as const
export const responseFromCodes = { velocity: 0, chance: 1, note: 2 } as const
/** Parameters that responses move; cutoff in cents, decay in octaves. */
export const responseToCodes = {
  gainDb: 0, pan: 1, tuneCents: 2, startSeconds: 3, filter1CutoffHz: 4, decayScale: 5,
} as const // prettier-ignore

/** How many parameters responses can move: one offset each. */
export const OFFSETS = Object.keys(responseToCodes).length

/** One event of a score or of a ring of live strikes. `frame` -1 means: as soon as possible. */
export const EventField = {
  frame: 0, type: 1, padSlot: 2, velocity: 3, note: 4, inputFrame: 5, key: 6, gain: 7, struckSlot: 8, passOn: 9, path: 10, length: 16,
} as const // prettier-ignore
/** Doubles of 32 bits each in which an event says through which pads it came. */
export const PATH_WORDS = 5
/**
 * `groove` says that a groove begins: turns that begin anew with it do so. `along` is a strike that another one made.
 * `controller` has its number in `note` and its value in `velocity`.
 */
export const EventType = { strike: 1, release: 2, stopAll: 3, stopPad: 4, groove: 5, along: 6, controller: 7 } as const

/**
 * What the engine decided for one strike. `band` and `turn` are -1 where nothing sounded, `aboveBand` and `aboveTurn`
 * where no louder band blends in; `rayMask` has a bit for each ray that sounds.
 */
export const LogField = {
  frame: 0, inputFrame: 1, padSlot: 2, velocity: 3, band: 4, turn: 5, strikeNumber: 6, rays: 7, choked: 8, rayMask: 13, aboveBand: 14, aboveTurn: 15,
  length: 16,
} as const // prettier-ignore

export const KitField = { gain: 0, maxStrikes: 1, seed: 2, length: 4 } as const
export const StatusField = { frame: 0, peak: 1, strikes: 2, lostEvents: 3, logCount: 4, hostFrame: 5, lateBlocks: 6, length: 8 } as const

/** Slots for pads: a kit's 128, and room for those that are only being heard or are about to go. */
export const MAX_PADS = 160
export const MAX_RAYS = 32
/** Frames of silence kept on each side of a region in a sample chunk, so that interpolation may read past its edges. */
export const GUARD_FRAMES = 4
