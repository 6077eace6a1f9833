import type { Audio } from '../../audio/audio'
import { seeded, testIds } from '../../kit/builders'
import type { AudioHash, BusId, PadId, TieId } from '../../kit/ids'
import type { Band, Clip, Kit, OwnSettings, Pad, Ray } from '../../kit/kit'
import { createBand, createBus, createKit, createPad, createRay, createTurn, wholeClip } from '../../kit/make'
import { responseTo } from '../../kit/responses'
import { usualEnvelopes } from '../../kit/shape'
import type { Envelope } from '../../kit/shape'
import { EventType } from '../program/codes'
import { busyPerformance } from './busy-performance'

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

interface Played {
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
class Rig {
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

const point = (seconds: number, value: number, bend = 0) => ({ seconds, value, bend })
const envelope = (points: Envelope['points'], sustain?: number): Envelope => (sustain === undefined ? { points } : { points, sustain })
const every = (count: number, frames: number, make: (i: number) => Partial<Played> = () => ({})): Played[] =>
  Array.from({ length: count }, (_, i) => ({ frame: 7 + i * frames, ...make(i) }))

function plain(): GoldenScore {
  const rig = new Rig('plain')
  const clip = rig.clip(9000)
  rig.pad({}, [[[clip]]])
  rig.pad({}, [[[{ ...clip, startFrame: 500, endFrame: 6000, fadeInSeconds: 0.01, fadeOutSeconds: 0.03, gainDb: -4 }]]])
  rig.pad({}, [[[{ ...clip, reverse: true, invert: true }]]])
  rig.pad({}, [[[{ ...clip, repairs: { lowCutHz: 300, shelfDb: -9, shelfHz: 4000, removeDc: true } }]]])
  return rig.score(every(8, 5003, (i) => ({ pad: i % 4 })), 1) // prettier-ignore
}

function pitched(): GoldenScore {
  const rig = new Rig('pitched')
  const clips = [rig.clip(9000), rig.clip(8000, 1, 44100), rig.clip(16000, 1, 96000)]
  clips.forEach((clip, i) =>
    rig.pad(
      { rootNote: 60, values: { tuneCents: [0, -731, 1200][i] } },
      [[[clip]]],
      [rig.ray({ values: { keyTrack: 1, tuneCents: 13 * i } })],
    ),
  )
  return rig.score(every(18, 4001, (i) => ({ pad: i % 3, note: 36 + 3 * i })), 2) // prettier-ignore
}

function envelopes(): GoldenScore {
  const rig = new Rig('envelopes')
  const clip = rig.clip(24000)
  rig.pad({ envelopes: { level: envelope([point(0, 0), point(0.004, 1, 0.5), point(0.1, 0.4, -0.7), point(0.2, 0)]) } }, [[[clip]]])
  const waiting = envelope([point(0, 1), point(0.05, 0.6, 0.2), point(0.09, 0, -1)], 1)
  rig.pad({ mode: 'hold', envelopes: { level: waiting }, values: { decayScale: 1.5 } }, [[[clip]]])
  const falling = envelope([point(0, 3600), point(0.03, 0, -0.8), point(0.2, -900, 1)])
  rig.pad({ envelopes: { pitch: falling }, values: { startSeconds: 0.003 } }, [[[clip]]])
  const long = responseTo('velocity', 'decayScale', 1.5, { bend: 0.2 })
  const late = responseTo('velocity', 'startSeconds', -0.01)
  rig.pad({ envelopes: { level: envelope([point(0, 1), point(0.3, 0, -0.4)]) }, responses: [long, late] }, [[[clip]]])
  return rig.score(every(16, 5501, (i) => ({ pad: i % 4, velocity: 127 - 6 * i, held: 2000 + 311 * i })), 2.2) // prettier-ignore
}

function filters(): GoldenScore {
  const rig = new Rig('filters')
  const moving = envelope([point(0, 1), point(0.06, 0, -0.5), point(0.2, 0.3)])
  const still = envelope([])
  const kinds = [
    ['lowPass', 800, 0, still, 0],
    ['lowPass', 300, 0.9, moving, 4800],
    ['bandPass', 1800, 0.5, moving, -1200],
    ['highPass', 4000, 0.3, still, 0],
    ['lowPass', 24000, 1, still, 0],
  ] as const
  const filter = (filter1Kind: (typeof kinds)[number][0], filter1CutoffHz: number, filter1Damping: number, filter1EnvelopeCents = 0) => ({
    choices: { filter1Kind },
    values: { filter1CutoffHz, filter1Damping, filter1EnvelopeCents },
  })
  for (const [kind, cutoffHz, resonance, filter1, envelopeCents] of kinds) {
    const own = { ...filter(kind, cutoffHz, 2 - 1.95 * resonance, envelopeCents), envelopes: { filter1 } }
    rig.pad(own, [[[rig.clip(9000, 1 + (cutoffHz % 3 === 0 ? 1 : 0))]]])
  }
  const opening = responseTo('velocity', 'filter1CutoffHz', 3600, { bend: -0.3 })
  rig.pad({ ...filter('lowPass', 6000, 2 - 1.95 * 0.4), responses: [opening] }, [[[rig.clip(9000)]]])
  return rig.score(every(18, 4801, (i) => ({ pad: i % 6, velocity: 20 + 6 * i })), 2) // prettier-ignore
}

function filterKinds(): GoldenScore {
  const rig = new Rig('filter kinds')
  const moving = envelope([point(0, 1), point(0.002, 0.2, 0.4), point(0.15, 0, -0.6)])
  const kinds = ['lowPass', 'bandPass', 'highPass', 'notch', 'lowShelf', 'highShelf', 'peak'] as const
  kinds.forEach((filter1Kind, i) => {
    const choices = {
      filter1Kind,
      filter1Slope: i % 2 ? '12' : '24',
      filter2Kind: kinds[(i + 3) % 7],
      filter2Slope: i % 3 ? '24' : '12',
    } as const
    const first = {
      filter1CutoffHz: 300 * (1 + i * i),
      filter1Damping: 0.3 + 0.2 * i,
      filter1GainDb: 18 - 6 * i,
      filter1EnvelopeCents: 600 * i,
    }
    const second = {
      filter2CutoffHz: 9000 / (1 + i),
      filter2Damping: 1.9 - 0.2 * i,
      filter2GainDb: 5 * i - 15,
      filter2EnvelopeCents: 900 * (i % 3),
    }
    const order = i % 2 ? ({ order: ['filter2', 'filter1', 'transient', 'drive', 'crush'] } as const) : {}
    rig.pad(
      { choices, values: { ...first, ...second, gainDb: -12 }, envelopes: { filter1: moving, filter2: moving }, ...(order as object) },
      [[[rig.clip(7000, 1 + (i % 2))]]],
    )
  })
  return rig.score(every(21, 3001, (i) => ({ pad: i % 7, velocity: 30 + 4 * i })), 2) // prettier-ignore
}

function stageScore(): GoldenScore {
  const rig = new Rig('stages')
  const round = (kind: 'forward' | 'backAndForth', until: 'end' | 'letGo') => ({
    ...rig.clip(9000, kind === 'forward' ? 1 : 2),
    loop: { startFrame: 2500, endFrame: 6100, kind, until, crossfadeSeconds: 0.01 },
  })
  const waiting = { points: [point(0, 0), point(0.013, 1, 0.3), point(0.07, 0.4, -0.4), point(0.2, 0, 0.2)], loop: { from: 1, to: 2 } }
  const siren = { points: [point(0, 0), point(0.05, 700, 0.2), point(0.1, -300), point(0.3, -1200)], sustain: 2 }
  const dirt = { crush: 0.8, crushBits: 7.5, crushRateHz: 9000 }
  rig.pad({ values: { ...dirt, width: 0.4, lowCutHz: 120 }, choices: { crushFilter: 'on' } }, [[[rig.clip(8000, 2)]]])
  rig.pad({ values: { ...dirt, attackDb: 9, tailDb: -12, tuneCents: -250 } }, [[[rig.clip(8000)]]])
  rig.pad({ values: { startSeconds: 0.01, endSeconds: 0.04, fadeInSeconds: 0.005, fadeOutSeconds: 0.05, tuneCents: 430 } }, [
    [[rig.clip(9000)]],
  ])
  rig.pad({ mode: 'hold', envelopes: { level: waiting, pitch: siren } }, [[[round('forward', 'letGo')]]])
  rig.pad({ mode: 'hold', values: { glideSeconds: 0.08, levelEnvelope: 0.7 }, rootNote: 60, envelopes: { level: waiting } }, [
    [[round('backAndForth', 'letGo')]],
  ])
  rig.pad({ envelopes: { level: { points: [point(0, 1), point(0.4, 0)] } } }, [[[round('backAndForth', 'end')]]])
  return rig.score(every(24, 2711, (i) => ({ pad: i % 6, velocity: 40 + 3 * i, note: 57 + (i % 7), held: 900 + 700 * (i % 9) })), 2) // prettier-ignore
}

function driveScore(): GoldenScore {
  const rig = new Rig('drive')
  const falls = { pitch: { points: [point(0, 900), point(0.06, 0, -0.4)] } }
  for (const [i, driveKind] of (['soft', 'hard', 'folded', 'uneven'] as const).entries())
    rig.pad(
      {
        values: { driveDb: 8 + 6 * i, driveLevelDb: -9, ...(i % 2 === 1 ? { driveAfterDb: 9, filter1CutoffHz: 900 } : {}) },
        choices: { driveKind, filter1Kind: i % 2 === 1 ? 'bandPass' : 'off' },
        responses: i === 2 ? [responseTo('wheel', 'driveDb', 20), responseTo('bend', 'tuneCents', 200)] : [],
        envelopes: i === 0 ? {} : falls,
      },
      [[[rig.clip(6000, i === 3 ? 2 : 1)]]],
    )
  return rig.score(every(20, 3011, (i) => ({ pad: i % 4, velocity: 30 + 4 * i })), 2) // prettier-ignore
}

function blends(): GoldenScore {
  const rig = new Rig('blends')
  for (const blendLaw of ['power', 'linear'] as const) {
    const pad = rig.pad({}, [[[rig.clip(5000)]], [[rig.clip(5000)]], [[rig.clip(5000)]]])
    rig.changeBands(pad, (band, i) => ({ ...band, blendLaw, values: { gainDb: -2 * i }, blendVelocities: [0, 25, 40][i] }))
  }
  rig.pad({ responses: [responseTo('velocity', 'gainDb', 18, { bend: 0.4 })] }, [[[rig.clip(5000)]]])
  return rig.score(every(63, 1501, (i) => ({ pad: i % 3, velocity: 1 + 2 * i })), 2.1) // prettier-ignore
}

function pickScore(): GoldenScore {
  const rig = new Rig('picks')
  const turns = (count: number) => Array.from({ length: count }, () => [rig.clip(900)])
  for (const pick of ['cycle', 'random', 'shuffle'] as const) {
    const pad = rig.pad({ pick }, [turns(4), turns(3)])
    rig.changeBands(pad, (band) => ({ ...band, turns: band.turns.map((turn, i) => ({ ...turn, weight: 1 / (1 + i) })) }))
  }
  rig.pad({ pick: 'cycle', counter: 'pad', startAgain: 0.1 }, [turns(3), turns(3)])
  rig.pad({ responses: [responseTo('chance', 'tuneCents', 200), responseTo('chance', 'pan', 0.5)] }, [turns(1)])
  return rig.score(every(100, 901, (i) => ({ pad: i % 5, velocity: 1 + ((i * 37) % 127) })), 2) // prettier-ignore
}

function chokes(): GoldenScore {
  const rig = new Rig('chokes')
  const pads = Array.from({ length: 4 }, () => rig.pad({}, [[[rig.clip(20000)]]]))
  rig.pad({ mode: 'silencer' }, [])
  const ties: Kit['ties'] = [
    { kind: 'chokeGroup', id: rig.tieId(), name: 'pair', pads: [pads[0].id, pads[1].id], fadeSeconds: 0.006 },
    { kind: 'choke', id: rig.tieId(), from: pads[2].id, to: [pads[3].id, pads[0].id], fadeSeconds: 0.08 },
  ]
  const scored = rig.score(every(20, 4003, (i) => ({ pad: (i * 3) % 5 })), 2) // prettier-ignore
  const silencer = { kind: 'choke' as const, id: rig.tieId(), from: scored.kit.pads[4].id, to: [pads[1].id, pads[3].id], fadeSeconds: 0 }
  return { ...scored, kit: { ...scored.kit, ties: [...ties, silencer] } }
}

function limits(): GoldenScore {
  const rig = new Rig('limits')
  const pads = [1, 2, 8].map((maxStrikes) => rig.pad({ maxStrikes, values: { gainDb: -12 } }, [[[rig.clip(40000)]]]))
  rig.pad({ mode: 'hold', maxStrikes: 3, values: { gainDb: -12 } }, [[[rig.clip(40000)]]])
  const group = {
    kind: 'chokeGroup' as const,
    id: rig.tieId(),
    name: 'five',
    pads: [pads[2].id],
    fadeSeconds: 0.005,
    maxStrikes: 5,
  }
  const played = every(40, 1601, (i) => ({ pad: i % 4, velocity: 127 - ((i * 29) % 90), held: 900 + 200 * (i % 7) }))
  return rig.score([...played, { pad: 2, frame: 7 }, { pad: 3, frame: 7, velocity: 30 }], 2, { maxStrikes: 9, ties: [group] })
}

function modes(): GoldenScore {
  const rig = new Rig('modes')
  const clip = rig.clip(14000)
  const looped = {
    ...clip,
    loop: { startFrame: 3000, endFrame: 7000, kind: 'forward' as const, until: 'end' as const, crossfadeSeconds: 0 },
  }
  rig.pad({ mode: 'oneShot' }, [[[clip]]])
  rig.pad({ mode: 'hold' }, [[[clip]]])
  rig.pad({ mode: 'loopUntilLetGo', values: { tuneCents: 300 } }, [[[looped]]])
  rig.pad({ mode: 'loopUntilStruckAgain' }, [[[looped]]])
  return rig.score(every(16, 5003, (i) => ({ pad: i % 4, held: 3000 + 700 * i })), 2.5) // prettier-ignore
}

function rays(): GoldenScore {
  const rig = new Rig('rays')
  const own = (clips: Clip[]) => [
    createBand(
      testIds(91),
      1,
      clips.map((clip, i) => createTurn(testIds(100 + i), { own: clip })),
    ),
  ]
  const near = rig.ray({ microphone: true })
  const far = rig.ray({ microphone: true, values: { delaySeconds: 0.0131, gainDb: -5 }, invert: true })
  const room = rig.ray({ microphone: true, onMissing: 'nearest', values: { delaySeconds: 0.03, pan: 0.6 } })
  const apart = rig.ray({ values: { gainDb: -9, tuneCents: 500 } })
  const ownBands = own([rig.clip(3000), rig.clip(2500)]).map((band) => ({
    ...band,
    turns: band.turns.map((turn) => ({ ...turn, clips: { [apart.id]: turn.clips.own } })),
  }))
  const bands = [2, 3].map((turns, band) =>
    Array.from({ length: turns }, (_, turn) => [
      rig.clip(5000),
      turn === 1 ? undefined : rig.clip(5000),
      band === 0 ? rig.clip(7000) : undefined,
    ]),
  )
  rig.pad({}, bands, [near, far, room, { ...apart, source: { kind: 'clips', bands: ownBands, pick: 'random' } }])
  rig.pad({ responses: [responseTo('velocity', 'gainDb', 12, { ray: room.id })] }, bands, [near, { ...far, mute: true }, room])
  return rig.score(every(20, 4003, (i) => ({ pad: i % 2, velocity: 1 + ((i * 41) % 127) })), 2) // prettier-ignore
}

function channels(): GoldenScore {
  const rig = new Rig('channels')
  const clip = rig.clip(8000, 2)
  for (const channel of ['left', 'right', 'both', 'mid'] as const)
    rig.pad({ values: { pan: channel === 'both' ? -0.4 : 0.3 } }, [[[{ ...clip, channel }]]])
  rig.pad({ values: { pan: -0.9, tuneCents: -311 } }, [[[{ ...clip, channel: 'both' }]]])
  return rig.score(every(10, 6007, (i) => ({ pad: i % 5 })), 1.5) // prettier-ignore
}

function mix(): GoldenScore {
  const rig = new Rig('mix')
  const [low, high] = [rig.busId(), rig.busId()]
  const loud = () => [[[rig.clip(12000, 2, SCORE_RATE_HZ, 30000)]]]
  rig.pad({ values: { gainDb: 0, pan: 0.2 }, bus: low }, loud())
  rig.pad({ values: { gainDb: 3 }, bus: high }, loud())
  rig.pad({ values: { gainDb: 6 }, bus: low }, loud(), [rig.ray({ bus: high, values: { gainDb: 3 } })])
  rig.pad({ values: { gainDb: 0 }, mute: true }, loud())
  const buses = [
    { ...createBus(low, 'Bus'), values: { gainDb: -3, pan: -0.5 } },
    { ...createBus(high, 'Bus'), values: { gainDb: 2, pan: 0.4 } },
  ]
  return rig.score(every(24, 2503, (i) => ({ pad: i % 4 })), 1.5, { buses, values: { gainDb: 4 } }) // prettier-ignore
}

function busyMinute(): GoldenScore {
  const seconds = 60
  const { kit, audio, events } = busyPerformance(seconds, SCORE_RATE_HZ)
  return { name: 'busy minute', kit, audio, events, frames: seconds * SCORE_RATE_HZ }
}

/** Twelve short scores, each a part of the engine alone, and a minute in which everything happens at once. */
export const goldenScores: readonly (() => GoldenScore)[] = [
  plain,
  pitched,
  envelopes,
  filters,
  filterKinds,
  stageScore,
  driveScore,
  blends,
  pickScore,
  chokes,
  limits,
  modes,
  rays,
  channels,
  mix,
  busyMinute,
]
