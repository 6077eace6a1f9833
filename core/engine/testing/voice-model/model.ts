import type { Parameter } from '../../../kit/parameters'
import { padSettings, rayOfTurn, shapeOf } from '../../../kit/resolve'
import type { PadSettings } from '../../../kit/resolve'
import type { Shape } from '../../../kit/shape'
import { drive } from './drive'
import { filter, passes } from './filter'
import { read } from './read'
import { crush, edges, level, shapeTransient, widen } from './stages'
import { dB, DRIVE_FRAMES, held, STOP_FRAMES } from './terms'
import type { Sides } from './terms'
import { Voice } from './voice'
import type { ModelledStrike } from './voice'

/**
 * A slow, plain model of one strike of a pad: sample by sample, each stage over the whole sound, by the formulas that
 * docs/kit-format.md and the stages' own descriptions say. It shares the document and its resolving with the engine, and
 * nothing else. What it knows: strikes of one band and turn, responses that are settled by velocity and note, what moves
 * while it sounds by controls and sines, straight pitch envelopes, all stages of a voice; passes and notches of filters.
 * Neither loops (a clip may go round), shelves and peaks nor what decides a strike: these have models of their own.
 */
export function modelStrike(strike: ModelledStrike): Sides {
  const { kit, pad, frames } = strike
  const out = [new Float64Array(frames), new Float64Array(frames)]
  const settings = padSettings(kit, pad)
  const turn = pad.bands[0].turns[0]
  const rays = pad.rays.map((ray) => rayOfTurn(ray, turn))
  const ahead = DRIVE_FRAMES * Math.max(...rays.map((ray) => drivesOf(settings, shapeOf(settings, ray))))
  for (const ray of rays) {
    const clip = turn.clips[ray.id]
    if (clip && clip !== 'intendedSilence') addVoice(out, new Voice(strike, settings, ray, clip, ahead))
  }
  return out
}

function drivesOf(settings: PadSettings, { values }: Shape): number {
  const isMoved = (name: Parameter) => settings.responses.some(({ to, bypass }) => !bypass && to.some(({ param }) => param === name))
  return (['driveDb', 'driveAfterDb'] as const).filter((name) => values[name] > 0 || isMoved(name)).length
}

/** What a voice adds to what is heard. */
function addVoice(out: Sides, voice: Voice): void {
  const { strike, settings, ray, clip, shape } = voice
  const { delay } = voice
  const { sides, endFrame } = shaped(voice, strike.frames - delay)
  const band = strike.pad.bands[0]
  const fixed = [settings.values.gainDb, ray.values.gainDb ?? 0, band.values.gainDb ?? 0, clip.gainDb, strike.kit.values.gainDb ?? 0]
  const gain = dB(fixed.reduce((sum, db) => sum + db, 0) + voice.settled('gainDb')) * (ray.invert !== (clip.invert ?? false) ? -1 : 1)
  const place = settings.values.pan + (ray.values.pan ?? 0) + voice.settled('pan')
  const rings = ['filter1Kind', 'filter2Kind'].some((name) => shape.choices[name as 'filter1Kind'] !== 'off') || hasLowCut(voice)
  for (let t = 0; t + delay < strike.frames; t++) {
    const level = gain * dB(Math.min(120, voice.moved('gainDb', t))) * lastFade(t, endFrame, rings, voice.ahead)
    const pan = held(place + voice.moved('pan', t), -1, 1)
    out[0][t + delay] += sides[0][t] * level * Math.sqrt(1 - pan)
    out[1][t + delay] += (sides[1] ?? sides[0])[t] * level * Math.sqrt(1 + pan)
  }
}

/** A filter rings on after its clip, in a fade; what has none ends with it. */
function lastFade(t: number, endFrame: number, rings: boolean, ahead: number): number {
  if (!rings) return t < endFrame + ahead ? 1 : 0
  return t <= endFrame ? 1 : Math.max(0, 1 - (t - endFrame) / (5 * STOP_FRAMES))
}

const hasLowCut = (voice: Voice) => voice.shape.values.lowCutHz > 1 || voice.movers('lowCutHz').length > 0

/** A stage works on all of a voice; `late` is by how many frames what moves it lags behind its own time. */
type Stage = (sides: Sides, late: number) => void

function shaped(voice: Voice, frames: number): { sides: Sides; endFrame: number } {
  const { shape, settings } = voice
  const longer = frames + 2 * DRIVE_FRAMES + 64
  const { sides, positions, endFrame } = read(voice, longer)
  const { values } = shape
  const isOn = (name: Parameter, off: number) => values[name] !== off || voice.movers(name).length > 0
  const all: Record<string, Stage | false> = {
    transient: (isOn('attackDb', 0) || isOn('tailDb', 0)) && ((to, late) => shapeTransient(voice, to, late)),
    drive: isOn('driveDb', 0) && ((to, late) => drive(voice, 'driveDb', to, late)),
    crush: isOn('crush', 0) && ((to, late) => crush(voice, to, late)),
    filter1: shape.choices.filter1Kind !== 'off' && ((to, late) => filter(voice, 'filter1', to, late)),
    filter2: shape.choices.filter2Kind !== 'off' && ((to, late) => filter(voice, 'filter2', to, late)),
    driveAfter: isOn('driveAfterDb', 0) && ((to, late) => drive(voice, 'driveAfterDb', to, late)),
    width: isOn('width', 1) && ((to, late) => widen(voice, to, late)),
    level: shape.envelopes.level.points.length > 0 && ((to, late) => level(voice, to, late)),
  }
  let late = voice.ahead
  edges(voice, sides, positions, endFrame)
  late -= voice.ahead - DRIVE_FRAMES * [all.drive, all.driveAfter].filter((one) => one).length
  const lowCut = voice.shape.values.lowCutHz * 2 ** (voice.settled('lowCutHz') / 1200)
  if (hasLowCut(voice)) passes(sides, 'highPass', 1, () => lowCut, () => Math.SQRT2) // prettier-ignore
  for (const name of [...settings.order, 'driveAfter', 'width', 'level']) {
    const stage = all[name]
    if (!stage) continue
    stage(sides, late)
    if (name === 'drive' || name === 'driveAfter') late -= DRIVE_FRAMES
  }
  return { sides, endFrame }
}
