import type { Audio } from '../../../audio/audio'
import type { Clip, Kit, Pad, Ray } from '../../../kit/kit'
import type { Parameter } from '../../../kit/parameters'
import { shapeOf } from '../../../kit/resolve'
import type { PadSettings } from '../../../kit/resolve'
import type { Response, Shape } from '../../../kit/shape'
import { GRID, held, RATE } from './terms'

/** One strike, and what happens while it sounds. */
export interface ModelledStrike {
  readonly kit: Kit
  readonly pad: Pad
  readonly audioOf: (clip: Clip) => Audio
  readonly velocity: number
  readonly note: number
  /** Where the strike lies, since running oscillators count from the engine's first frame. */
  readonly frame: number
  readonly frames: number
  /** When it is let go, in frames since the strike. */
  readonly letGo?: number
  readonly controls: readonly { readonly frame: number; readonly number: number; readonly value: number }[]
}

/** The bend moves a ray by two semitones each way, by the share by which it follows. */
const BEND: Response = { id: 'own', draw: 0, from: { kind: 'bend' }, to: [{ param: 'tuneCents' }], amount: 200, bypass: false }

const LIVE_SOURCES: readonly string[] = ['wheel', 'controller', 'bend', 'pressure', 'oscillator']

/** One ray of the strike, and where each of its parameters stands at a frame of its own. */
export class Voice {
  readonly shape: Shape
  readonly sides: Audio['channels']
  readonly clipRate: number
  /** By how many frames it begins after its strike. */
  readonly delay: number
  private readonly smoothed = new Map<Response, Float64Array>()
  private readonly atStrike = new Map<Parameter, number>()
  private readonly reaching = new Map<Parameter, Response[]>()

  constructor(
    readonly strike: ModelledStrike,
    readonly settings: PadSettings,
    readonly ray: Ray,
    readonly clip: Clip,
    /** By how many frames it is read ahead of what is heard. */
    readonly ahead: number,
  ) {
    this.shape = shapeOf(settings, ray)
    const { channels, sampleRateHz } = strike.audioOf(clip)
    this.sides = channels.map((side) => side.subarray(clip.startFrame, clip.endFrame))
    this.clipRate = sampleRateHz / RATE
    const set = Math.floor(((settings.values.delaySeconds ?? 0) + (ray.values.delaySeconds ?? 0)) * RATE + 0.5)
    this.delay = Math.max(0, set + Math.floor(this.settled('delaySeconds') * RATE + 0.5))
  }

  /** What a parameter is when the strike begins, with what velocity and note do, in what it is moved by. */
  settled(param: Parameter): number {
    const known = this.atStrike.get(param) ?? this.settle(param)
    this.atStrike.set(param, known)
    return known
  }

  private settle(param: Parameter): number {
    const { velocity, note } = this.strike
    return this.movers(param).reduce((sum, { from, amount, min = -Infinity, max = Infinity }) => {
      if (from.kind === 'velocity') return sum + held(amount * (velocity / 127 - 1), min, max)
      if (from.kind === 'note') return sum + held((amount * (note - 60)) / 12, min, max)
      return sum
    }, 0)
  }

  /** By how much controls and waves move a parameter at a frame that is heard. */
  moved(param: Parameter, frame: number): number {
    return this.movers(param).reduce(
      (sum, response) => {
        if (!LIVE_SOURCES.includes(response.from.kind)) return sum
        return sum + (response.from.kind === 'oscillator' ? this.swayed(response, frame) : this.nearing(response, frame))
      },
      param === 'tuneCents' ? this.nearing(BEND, frame) : 0,
    )
  }

  /** By how much the decay stretches the level's envelope, and where there is none all others. */
  get decay(): number {
    return this.shape.values.decayScale * 2 ** this.settled('decayScale')
  }

  get otherScale(): number {
    return this.shape.envelopes.level.points.length > 0 ? 1 : this.decay
  }

  /** What moves a parameter of this ray, whether it is on the ray's own. */
  movers(param: Parameter): Response[] {
    const known = this.reaching.get(param) ?? this.findMovers(param)
    this.reaching.set(param, known)
    return known
  }

  private findMovers(param: Parameter): Response[] {
    const reaches = ({ to, bypass }: Response) => !bypass && to.some((one) => one.param === param && (!one.ray || one.ray === this.ray.id))
    return this.settings.responses.filter(reaches)
  }

  private swayed({ from, amount, min = -Infinity, max = Infinity }: Response, frame: number): number {
    const wave = this.strike.kit.oscillators.find(({ id }) => id === from.id)!
    const time = (wave.runs === 'always' ? this.strike.frame + this.delay : 0) + frame
    return held(amount * Math.sin(2 * Math.PI * ((time * wave.rate.value) / RATE + wave.phase)), min, max)
  }

  /** On each point of the grid what a control adds nears where it is to be by one share; between them it goes straight. */
  private nearing(response: Response, frame: number): number {
    const points = this.smoothed.get(response) ?? this.smooth(response)
    this.smoothed.set(response, points)
    if (frame <= 0) return points[0]
    const at = Math.floor(frame / GRID)
    return points[at] + (points[at + 1] - points[at]) * (frame / GRID - at)
  }

  private smooth(response: Response): Float64Array {
    const points = new Float64Array(Math.ceil(this.strike.frames / GRID) + 4)
    const share = Math.min(1, GRID / (0.005 * RATE))
    points[0] = this.aimOf(response, -this.delay)
    let value = points[0]
    for (let i = 0; i + 1 < points.length; i++) {
      const aim = i === 0 ? points[0] : this.aimOf(response, GRID * i)
      const next = value + (aim - value) * share
      value = Math.abs(aim - next) < 1e-6 ? aim : next
      points[i + 1] = value
    }
    return points
  }

  private aimOf(response: Response, frame: number): number {
    return response === BEND ? this.plainAim(BEND, frame) * this.bendShare(frame) : this.plainAim(response, frame)
  }

  /** By what share it follows the bend, as controls have moved it by a frame. */
  private bendShare(frame: number): number {
    const moved = this.movers('bendTrack').filter(({ from }) => LIVE_SOURCES.includes(from.kind))
    const set = (this.ray.values.bendTrack ?? 0) + this.settled('bendTrack')
    return held(
      moved.reduce((sum, one) => sum + this.plainAim(one, frame), set),
      0,
      1,
    )
  }

  private plainAim({ from, amount, min = -Infinity, max = Infinity }: Response, frame: number): number {
    const number = { wheel: 1, bend: 128, pressure: 129, controller: from.number }[from.kind as 'wheel']
    const last = this.strike.controls.filter((move) => move.number === number && move.frame <= frame + this.delay).at(-1)?.value ?? 0
    return held(amount * (number! < 128 ? last / 127 : last), min, max)
  }
}
