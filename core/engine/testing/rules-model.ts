import type { PadId } from '../../kit/ids'
import type { Band, Clip, Kit, Pad, Ray, Tie } from '../../kit/kit'
import { usualPadSettings } from '../../kit/make'
import type { OwnSettings } from '../../kit/kit'
import { dbToGain } from '../math'
import { chance, hashId, Purpose } from '../strike/chance'
import { borrowing, nearestClip, shuffled } from './rules-picks'

/**
 * A slow, plain model of what decides a strike, written from the sentences that the screens and docs/kit-format.md say,
 * as scans over all strikes so far. It shares with the engine the document, the named chance and what a dB is, and nothing else. Clips
 * are steady levels, so that what sounds at a frame is a sum that can be looked at.
 */

export interface RuleMove {
  readonly frame: number
  readonly kind: 'strike' | 'letGo' | 'controller' | 'stopAll'
  /** A pad by its place, or a controller. */
  readonly number: number
  readonly value: number
  readonly key: number
}

export interface ModelledStrike {
  readonly frame: number
  readonly pad: number
  readonly band: number
  readonly turn: number
  readonly above: number
  readonly choked: readonly number[]
  /** The pad that was struck, and those of which a strike stopped to make room. */
  readonly struck: number
  readonly room: readonly number[]
}

interface Voice {
  readonly level: number
  readonly from: number
  /** The frame on which its clip is over. */
  readonly end: number
  readonly ray: Ray
  readonly bandId: string
  readonly holds: boolean
  scale: number
  fadeFrom: number
  fadeFrames: number
}

interface Sounding {
  readonly pad: Pad
  readonly struck: PadId
  readonly key: number
  readonly frame: number
  readonly velocity: number
  readonly order: number
  readonly voices: Voice[]
  released: boolean
  stopping: boolean
}

/** The fade of all that is stopped without a fade of its own. */
const STOP_SECONDS = 0.004
const USUAL_STRIKES = 64

interface Waiting {
  readonly frame: number
  readonly order: number
  readonly move: RuleMove
  /** Of strikes that others made: through which pads they came, whose finger holds them, how loud, whether they strike on. */
  readonly along?: { readonly way: readonly PadId[]; readonly struck: PadId; readonly gain: number; readonly passOn: boolean }
}

export class RulesModel {
  readonly strikes: ModelledStrike[] = []
  private sounding: Sounding[] = []
  private waiting: Waiting[] = []
  private readonly controls = new Map<number, number>()
  private readonly counts = new Map<string, number>()
  private readonly countedFrom = new Map<PadId, number>()
  private readonly lastFrame = new Map<PadId, number>()
  /** Which strike of its pool the one under way is. */
  private turnNumber = 0
  private order = 0
  private room = new Set<number>()
  private frame = 0

  private readonly kit: Kit

  constructor(
    kit: Kit,
    private readonly rate: number,
    private readonly levelOf: (clip: Clip) => number,
    moves: readonly RuleMove[],
  ) {
    this.kit = { ...kit, pads: kit.pads.map((pad) => borrowing(kit, pad)) }
    this.waiting = moves.map((move) => ({ frame: move.frame, order: this.order++, move }))
  }

  /** Lets everything happen up to a frame, that frame included, and says what sounds on it: its steady level. */
  levelAt(frame: number): number {
    for (;;) {
      const due = this.waiting.filter((one) => one.frame <= frame)
      if (due.length === 0) break
      const next = due.reduce((a, b) => (b.frame < a.frame || (b.frame === a.frame && b.order < a.order) ? b : a))
      this.waiting.splice(this.waiting.indexOf(next), 1)
      this.frame = next.frame
      this.happen(next)
    }
    this.frame = frame
    this.forget()
    return this.sounding.flatMap(({ voices }) => voices).reduce((sum, voice) => sum + this.levelOfVoice(voice, frame), 0)
  }

  private levelOfVoice(voice: Voice, frame: number): number {
    if (frame < voice.from || frame >= voice.end) return 0
    const passed = frame - voice.fadeFrom
    return voice.level * voice.scale * (passed <= 0 ? 1 : Math.max(0, 1 - passed / voice.fadeFrames))
  }

  private endOf = (voice: Voice): number => Math.min(voice.end, voice.fadeFrom + voice.fadeFrames)
  private forget(): void {
    for (const one of this.sounding)
      one.voices.splice(0, one.voices.length, ...one.voices.filter((voice) => this.endOf(voice) > this.frame))
    this.sounding = this.sounding.filter(({ voices }) => voices.length > 0)
  }

  private happen({ move, along }: Waiting): void {
    this.forget()
    const pad = this.kit.pads[move.number]
    if (move.kind === 'strike') this.strike(along ? along.struck : pad.id, pad, move, along)
    else if (move.kind === 'letGo') this.letGo(pad, move.key)
    else if (move.kind === 'stopAll') for (const one of this.living()) this.stop(one, this.frames(STOP_SECONDS))
    else this.control(move.number, move.value)
  }

  private frames = (seconds: number): number => Math.floor(seconds * this.rate + 0.5)
  private living = (): Sounding[] => this.sounding.filter(({ stopping }) => !stopping)
  private settings = (pad: Pad) => ({ ...usualPadSettings, ...(pad.own as OwnSettings) })
  private ties = <Kind extends Tie['kind']>(kind: Kind): Extract<Tie, { kind: Kind }>[] =>
    this.kit.ties.filter((tie): tie is Extract<Tie, { kind: Kind }> => tie.kind === kind)
  private placeOf = (id: PadId): number => this.kit.pads.findIndex((pad) => pad.id === id)
  private padOf = (id: PadId): Pad => this.kit.pads.find((pad) => pad.id === id)!
  private take(counter: string): number {
    const count = this.counts.get(counter) ?? 0
    this.counts.set(counter, count + 1)
    return count
  }

  /** To the pad whose threshold the controller has reached, the lowest where it has reached none. */
  private opened(pad: Pad): Pad {
    const tie = this.ties('openings').find(({ steps }) => steps.some((step) => step.pad === pad.id))
    if (!tie) return pad
    const steps = [...tie.steps].sort((a, b) => a.from - b.from)
    return this.padOf((steps.filter(({ from }) => from <= (this.controls.get(tie.controller) ?? 0)).pop() ?? steps[0]).pad)
  }

  /** To the next of the pads that take turns. */
  private turned(pad: Pad): Pad {
    const tie = this.ties('takeTurns').find(({ pads }) => pads.includes(pad.id))
    if (!tie) return pad
    const count = this.take(`turns ${tie.pads[0]}`)
    if (tie.pick === 'random')
      return this.padOf(tie.pads[Math.floor(tie.pads.length * chance(this.kit.seed, hashId(tie.id), count, Purpose.tie))])
    return this.padOf(
      tie.pads[tie.pick === 'cycle' ? count % tie.pads.length : shuffled(this.kit.seed, hashId(tie.id), 0, count, tie.pads.length)],
    )
  }

  private strike(struck: PadId, given: Pad, move: RuleMove, along: Waiting['along']): void {
    const pad = this.turned(this.opened(given))
    const way = along?.way ?? []
    if (way.includes(pad.id)) return
    const number = this.take(`pad ${pad.id}`)
    const settings = this.settings(pad)
    const pool = this.poolOf(pad)
    this.turnNumber = pool === pad.id ? number : this.take(`pad ${pool}`)
    const since = this.frame - (this.lastFrame.get(pool) ?? Infinity)
    if (typeof settings.startAgain === 'number' && since > this.frames(settings.startAgain)) this.countAnew(pad, this.turnNumber)
    this.lastFrame.set(pad.id, this.frame)
    this.lastFrame.set(pool, this.frame)
    const choked = this.choke(pad, 'strike')
    this.room = new Set()
    const cells = this.sound(struck, pad, move, along?.gain ?? 1)
    this.strikes.push({
      frame: this.frame,
      pad: this.kit.pads.indexOf(pad),
      band: -1,
      turn: -1,
      above: -1,
      ...cells,
      choked,
      struck: this.placeOf(struck),
      room: [...this.room].sort((a, b) => a - b),
    })
    if (along?.passOn !== false) this.strikeAlong(struck, pad, number, move, [...way, pad.id], along?.gain ?? 1)
  }

  /** A pad that borrows goes on in the turns of the one it borrows from. */
  private poolOf = (pad: Pad): PadId => (pad as { poolOf?: PadId }).poolOf ?? pad.id

  private countAnew(pad: Pad, number: number): void {
    this.countedFrom.set(this.poolOf(pad), number)
    for (let band = 0; band < 128; band++) this.counts.delete(`band ${this.poolOf(pad)} ${band}`)
  }

  private strikeAlong(struck: PadId, pad: Pad, number: number, move: RuleMove, way: PadId[], gain: number): void {
    const all = this.ties('alsoStrike').flatMap((tie) => (tie.from === pad.id ? tie.to.map((to) => ({ tie, to })) : []))
    all.forEach(({ tie, to }, i) => {
      const draw = chance(this.kit.seed, hashId(tie.id), number, Purpose.tie + 256 * (i + 1))
      if (draw >= to.chance || way.includes(to.pad)) return
      const frame = this.frame + this.frames(to.delaySeconds)
      const place = this.kit.pads.findIndex(({ id }) => id === to.pad)
      const along = { way, struck, gain: gain * dbToGain(to.gainDb), passOn: tie.passOn }
      this.waiting.push({ frame, order: this.order++, move: { ...move, frame, number: place }, along })
    })
  }

  /**
   * What a pad silences, in the order of the ties; where several silence all of a pad they count as one, with the fade of
   * the last. Gives the numbers of the pads of which something was silenced.
   */
  private choke(pad: Pad, on: 'strike' | 'letGo'): number[] {
    const wanted = new Map<string, { id: PadId; fade: number; reach?: { rays?: readonly string[]; bands?: readonly string[] } }>()
    for (const tie of this.kit.ties) {
      if (tie.kind !== 'choke' && tie.kind !== 'chokeGroup') continue
      if (((tie.kind === 'choke' && tie.on) || 'strike') !== on) continue
      const isOf = tie.kind === 'choke' ? tie.from === pad.id : tie.pads.includes(pad.id)
      const targets = !isOf ? [] : tie.kind === 'choke' ? tie.to : tie.pads.filter((id) => tie.itself === true || id !== pad.id)
      for (const id of targets) wanted.set(tie.reach ? `${id} by ${tie.id}` : id, { id, fade: tie.fadeSeconds, reach: tie.reach })
    }
    const silenced = new Set<number>()
    for (const { id, fade, reach } of wanted.values()) {
      const living = this.living().filter((sounding) => sounding.pad.id === id)
      if (!reach) for (const one of living) this.stop(one, this.frames(fade))
      const any = reach ? this.silenceReached(id, fade, reach) : living.length > 0
      if (any) silenced.add(this.kit.pads.findIndex((one) => one.id === id))
    }
    return [...silenced].sort((x, y) => x - y)
  }

  private silenceReached(id: PadId, fade: number, reach: { rays?: readonly string[]; bands?: readonly string[] }): boolean {
    let any = false
    for (const one of this.living().filter(({ pad }) => pad.id === id)) {
      const meant = one.voices.filter((voice) => (reach.rays?.includes(voice.ray.id) ?? true) && (reach.bands?.includes(voice.bandId) ?? true)) // prettier-ignore
      for (const voice of meant) this.fade(voice, this.frames(fade))
      if (meant.length === 0) continue
      any = true
      if (one.voices.every((voice) => meant.includes(voice) || voice.fadeFrom < Infinity)) one.stopping = true
    }
    return any
  }

  private stop(one: Sounding, frames: number): void {
    one.stopping = true
    for (const voice of one.voices) this.fade(voice, frames)
  }

  /** A voice that fades already keeps the fade that ends first; a shorter one goes on from the level that is reached. */
  private fade(voice: Voice, given: number): void {
    const frames = Math.max(1, given)
    if (voice.fadeFrom < Infinity) {
      const left = voice.fadeFrom + voice.fadeFrames - this.frame
      if (left <= frames) return
      voice.scale *= left / voice.fadeFrames
    }
    voice.fadeFrom = this.frame
    voice.fadeFrames = frames
  }

  private letGo(pad: Pad, key: number): void {
    for (const one of this.sounding) {
      if (one.struck !== pad.id || one.released || (key !== 0 && one.key !== key)) continue
      one.released = true
      for (const voice of one.voices) if (voice.holds) this.fade(voice, this.frames(STOP_SECONDS))
    }
    this.choke(pad, 'letGo')
    for (const { along, frame, move } of [...this.waiting])
      if (along && along.struck === pad.id && frame >= this.frame && (key === 0 || move.key === key))
        this.waiting.push({
          frame,
          order: this.order++,
          move: { frame, kind: 'letGo', number: this.kit.pads.indexOf(pad), value: 0, key: move.key },
        })
  }

  private control(number: number, value: number): void {
    this.controls.set(number, value)
    for (const pad of this.kit.pads) {
      const tie = this.ties('openings').find(({ steps }) => steps.some((step) => step.pad === pad.id))
      if (!tie || tie.controller !== number || value > (tie.chokeAt ?? -1) || this.opened(pad) === pad) continue
      for (const one of this.living().filter((sounding) => sounding.pad === pad)) this.stop(one, this.frames(STOP_SECONDS))
    }
  }

  /** Strikes stop until one more fits: of the pad, of its group, of the pads it shares a limit with, of the kit. */
  private makeRoom(pad: Pad): void {
    const settings = this.settings(pad)
    const group = this.ties('chokeGroup').find(({ pads }) => pads.includes(pad.id))
    const limit = this.ties('limit').find(({ pads }) => pads.includes(pad.id))
    const inFirst = (tie: typeof group | typeof limit) => (one: Sounding) => tie !== undefined && this.ties(tie.kind as 'limit').find(({ pads }) => pads.includes(one.pad.id))?.id === tie.id // prettier-ignore
    this.steal((one) => one.pad === pad, settings.maxStrikes)
    if (group) this.steal(inFirst(group), group.maxStrikes ?? 128)
    if (limit) this.steal(inFirst(limit), limit.maxStrikes)
    this.steal(() => true, this.kit.maxStrikes ?? USUAL_STRIKES)
  }

  private steal(isOf: (one: Sounding) => boolean, most: number): void {
    for (;;) {
      const all = this.living().filter(isOf)
      if (all.length < most) return
      all.sort((a, b) => Number(b.released) - Number(a.released) || a.frame - b.frame || a.velocity - b.velocity || a.order - b.order)
      this.room.add(this.placeOf(all[0].pad.id))
      this.stop(all[0], this.frames(STOP_SECONDS))
    }
  }

  private sound(struck: PadId, pad: Pad, move: RuleMove, gain: number): Partial<ModelledStrike> {
    const { mode } = this.settings(pad)
    if (mode === 'silencer') return {}
    const own = this.living().filter((one) => one.pad === pad)
    if (mode === 'loopUntilStruckAgain' && own.length > 0) {
      for (const one of own) this.stop(one, this.frames(STOP_SECONDS))
      return {}
    }
    this.makeRoom(pad)
    const band = pad.bands.findLastIndex(({ fromVelocity }) => fromVelocity <= move.value)
    if (band < 0) return {}
    const upper = pad.bands[band + 1] as Band | undefined
    const width = upper ? Math.min(upper.blendVelocities, upper.fromVelocity - pad.bands[band].fromVelocity) : 0
    const share = upper && width > 0 ? Math.max(0, (move.value - (upper.fromVelocity - width)) / width) : 0
    const law = (part: number) => (upper?.blendLaw === 'power' ? Math.sqrt(part) : part)
    const one: Sounding = { pad, struck, key: move.key, frame: this.frame, velocity: move.value, order: this.order++, voices: [], released: false, stopping: false } // prettier-ignore
    const turn = this.cell(one, band, share > 0 ? gain * law(1 - share) : gain)
    if (share > 0) this.cell(one, band + 1, gain * law(share))
    if (one.voices.length > 0) this.sounding.push(one)
    return { band, turn, above: share > 0 ? band + 1 : -1 }
  }

  private cell(one: Sounding, band: number, gain: number): number {
    const { pad } = one
    const settings = this.settings(pad)
    const { turns, id, values } = pad.bands[band]
    const bandCount = this.take(`band ${this.poolOf(pad)} ${band}`)
    const count = settings.counter === 'band' ? bandCount : this.turnNumber - (this.countedFrom.get(this.poolOf(pad)) ?? 0)
    const turn = this.pickTurn(pad, band, count, this.turnNumber)
    if (turn < 0) return -1
    const holds = settings.mode === 'hold' || settings.mode === 'loopUntilLetGo'
    const loops = settings.mode === 'loopUntilLetGo' || settings.mode === 'loopUntilStruckAgain'
    for (const ray of pad.rays) {
      const clip = turns[turn].clips[ray.id] ?? (ray.onMissing === 'nearest' ? nearestClip(pad, band, turn, ray) : undefined)
      if (!clip || clip === 'intendedSilence' || ray.mute) continue
      const from = this.frame + this.frames(ray.values.delaySeconds ?? 0)
      const level = this.levelOf(clip) * gain * dbToGain(values.gainDb ?? 0)
      const end = loops ? Infinity : from + clip.endFrame - clip.startFrame
      one.voices.push({ level, from, end, ray, bandId: id, holds, scale: 1, fadeFrom: Infinity, fadeFrames: 0 })
    }
    return turn
  }

  private pickTurn(pad: Pad, band: number, count: number, number: number): number {
    const { turns } = pad.bands[band]
    const { pick } = this.settings(pad)
    if (turns.length < 2) return turns.length - 1
    if (pick === 'cycle') return count % turns.length
    if (pick === 'shuffle') return shuffled(this.kit.seed, hashId(this.poolOf(pad)), band, count, turns.length)
    const total = turns.reduce((sum, { weight }) => sum + weight, 0)
    let left = chance(this.kit.seed, hashId(this.poolOf(pad)), number, Purpose.turn) * total
    const found = turns.findIndex(({ weight }) => (left -= weight) < 0)
    return found < 0 ? turns.length - 1 : found
  }
}
