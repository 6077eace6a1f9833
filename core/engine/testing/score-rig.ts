import type { Audio } from '../../audio/audio'
import { seeded, testIds } from '../../kit/builders'
import type { AudioHash, BusId, PadId, TieId } from '../../kit/ids'
import type { Band, Clip, Kit, OwnSettings, Pad, Ray } from '../../kit/kit'
import { createBand, createKit, createPad, createRay, createTurn, wholeClip } from '../../kit/make'
import { usualEnvelopes } from '../../kit/shape'
import type { Envelope } from '../../kit/shape'
import { EventType } from '../program/codes'

/** A kit, its audio and what is played on it. Events name their pads, so that slots are the host's own. */
export interface GoldenScore {
  readonly name: string
  readonly kit: Kit
  readonly audio: ReadonlyMap<AudioHash, Audio>
  readonly events: readonly {
    readonly padId: PadId
    readonly frame: number
    readonly type: number
    readonly velocity?: number
    readonly note?: number
    readonly key?: number
  }[]
  readonly frames: number
}

export const SCORE_RATE_HZ = 48000

export interface Played {
  readonly pad?: number
  readonly frame: number
  readonly velocity?: number
  readonly note?: number
  /** How long it is held; it is never let go where this is not said. */
  readonly held?: number
}

/** Everything that sounds is said here, so that what a new pad begins with may change without changing what is played. */
const silentDefaults: OwnSettings = {
  mode: 'oneShot',
  maxStrikes: 8,
  pick: 'cycle',
  counter: 'band',
  startAgain: 'never',
  values: {
    gainDb: -6,
    pan: 0,
    tuneCents: 0,
    startSeconds: 0,
    decayScale: 1,
    filter1CutoffHz: 2000,
    filter1Damping: 2,
    filter1EnvelopeCents: 0,
  },
  choices: { filter1Kind: 'off' },
  envelopes: usualEnvelopes,
  responses: [],
}

/** What is said of values, choices and envelopes, over the defaults. */
function over({ values, choices, envelopes }: OwnSettings): OwnSettings {
  return {
    values: { ...silentDefaults.values, ...values },
    choices: { ...silentDefaults.choices, ...choices },
    envelopes: { ...silentDefaults.envelopes, ...envelopes },
  }
}

/** Puts a score together; samples are whole 16-bit steps made with whole numbers, so that they are the same everywhere. */
export class Rig {
  private readonly random: () => number
  private readonly makeId: ReturnType<typeof testIds>
  private readonly audio = new Map<AudioHash, Audio>()
  private readonly pads: Pad[] = []

  constructor(private readonly name: string) {
    const seed = [...name].reduce((sum, letter) => (Math.imul(sum, 31) + letter.charCodeAt(0)) | 0, 7)
    this.random = seeded(seed)
    this.makeId = testIds(seed)
  }

  /** Noise that runs out, as a clip. */
  clip(frames: number, channels = 1, sampleRateHz = SCORE_RATE_HZ, level = 12000): Clip {
    const hash = (this.audio.size + 4096).toString(16).padStart(64, '0') as AudioHash
    const channel = () =>
      Float32Array.from({ length: frames }, (_, i) => Math.trunc((this.random() * 2 - 1) * level * (1 - i / frames)) / 32768)
    this.audio.set(hash, { sampleRateHz, channels: Array.from({ length: channels }, channel) })
    return wholeClip(hash, { frames, channels })
  }

  ray(changes: Partial<Ray> = {}): Ray {
    return { ...createRay(this.makeId, 'Ray'), ...changes }
  }

  /** A pad of bands of turns of clips, one for each ray. */
  pad(own: OwnSettings, bands: readonly (readonly (readonly (Clip | undefined)[])[])[], rays: Ray[] = [this.ray()]): Pad {
    const pad = createPad(this.makeId, { ...silentDefaults, ...own, ...over(own) }, 36 + this.pads.length)
    const filled = bands.map((turns, i) =>
      createBand(
        this.makeId,
        1 + Math.floor((i * 127) / bands.length),
        turns.map((clips) => createTurn(this.makeId, Object.fromEntries(rays.flatMap((ray, r) => (clips[r] ? [[ray.id, clips[r]]] : []))))),
      ),
    )
    const made = { ...pad, rays, bands: filled }
    this.pads.push(made)
    return made
  }

  changeBands(pad: Pad, change: (band: Band, index: number) => Band): void {
    this.pads[this.pads.indexOf(pad)] = { ...pad, bands: pad.bands.map(change) }
  }

  score(played: readonly Played[], seconds: number, more: Partial<Kit> = {}): GoldenScore {
    const kit: Kit = { ...createKit(this.makeId, this.name), values: {}, seed: 1, pads: this.pads, ...more }
    const events = played.flatMap(({ pad = 0, frame, velocity = 127, note, held }, i) => {
      const shared = { padId: kit.pads[pad].id, key: i + 1 }
      const strike = { ...shared, frame, type: EventType.strike as number, velocity, ...(note === undefined ? {} : { note }) }
      return held === undefined ? [strike] : [strike, { ...shared, frame: frame + held, type: EventType.release as number }]
    })
    return { name: this.name, kit, audio: this.audio, events, frames: Math.round(seconds * SCORE_RATE_HZ) }
  }

  tieId = (): TieId => this.makeId('tie')
  busId = (): BusId => this.makeId('bus')
}

export const point = (seconds: number, value: number, bend = 0) => ({ seconds, value, bend })
export const envelope = (points: Envelope['points'], sustain?: number): Envelope =>
  sustain === undefined ? { points } : { points, sustain }
export const every = (count: number, frames: number, make: (i: number) => Partial<Played> = () => ({})): Played[] =>
  Array.from({ length: count }, (_, i) => ({ frame: 7 + i * frames, ...make(i) }))
