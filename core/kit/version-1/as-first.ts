import { broadFamily } from '../families'
import type { Band, Bus, Clip, Groove, Kit, OwnSettings, Pad, Ray, Tie, Turn } from '../kit'
import { padSettings, rayOfTurn, shapeOf } from '../resolve'
import type { PadSettings } from '../resolve'
import { bendOf } from '../shape'
import type { Response, Shape } from '../shape'
import type { Start } from '../start'
import type {
  Band as OldBand, Bus as OldBus, Clip as OldClip, Groove as OldGroove, Kit as OldKit, Pad as OldPad,
  PadSettings as OldSettings, Ray as OldRay, Tie as OldTie, Turn as OldTurn,
} from './kit' // prettier-ignore
import { nearest } from './nearest'
import type { Response as OldResponse, Shape as OldShape } from './shape'
import { oldOfSwing } from './swing'
import { dampingOfResonance, defined, movedByOldTarget, sourceOfOld } from './upgrade-shape'

/**
 * A kit seen as the first version would have written it, so that changes which were meant for that can be made on it. What
 * that version could not say is left out here and stays untouched in the kit itself.
 */
export function asFirstKit(kit: Kit): OldKit {
  const { values, inserts: _i, responses: _r, oscillators: _o, song: _s, tillers, pads, buses, ties, grooves, ...rest } = kit
  return {
    ...rest,
    version: 1,
    gainDb: values.gainDb ?? 0,
    quickControls: tillers.map(({ id, name, value }) => ({ id, name, value })),
    pads: pads.map((pad) => asFirstPad(kit, pad)),
    buses: buses.map(asFirstBus),
    ties: ties.flatMap(asFirstTie),
    grooves: grooves.map(asFirstGroove),
  }
}

function asFirstPad(kit: Kit, pad: Pad): OldPad {
  const settings = padSettings(kit, pad)
  return {
    ...pad,
    own: asFirstOwn(pad.own, settings),
    rays: pad.rays.map((ray) => asFirstRay(settings, ray)),
    bands: pad.bands.map((band) => asFirstBand(settings, pad.rays[0], band)),
  }
}

const pitchLevelPlace: ReadonlySet<string> = new Set(['gainDb', 'pan', 'tuneCents'])

/** A shape was a pad's own wholly or not at all: where any of it is its own now, all of it was. */
export function asFirstOwn(own: OwnSettings, settings: Pick<PadSettings, 'values' | 'choices' | 'envelopes'>): Partial<OldSettings> {
  const { values = {}, choices = {}, envelopes = {}, order: _order, responses, family, ...rest } = own
  const { gainDb, pan, tuneCents } = values
  const isShaped = Object.keys({ ...choices, ...envelopes }).length > 0 || Object.keys(values).some((name) => !pitchLevelPlace.has(name))
  return {
    ...rest,
    ...(family ? { family: broadFamily(family) } : {}),
    ...defined({ gainDb, pan, tuneCents }),
    ...(isShaped ? { shape: asFirstShape(settings) } : {}),
    ...(responses ? { responses: responses.flatMap(asFirstResponse) } : {}),
  }
}

function asFirstShape({ values, choices, envelopes }: Shape): OldShape {
  return {
    amp: envelopes.level,
    pitch: envelopes.pitch,
    filter: {
      type: choices.filter1Kind in { off: 1, lowPass: 1, bandPass: 1, highPass: 1 } ? (choices.filter1Kind as 'off') : 'off',
      cutoffHz: values.filter1CutoffHz,
      resonance: Math.min(1, Math.max(0, nearest((2 - values.filter1Damping) / 1.95, values.filter1Damping, dampingOfResonance))),
      env: envelopes.filter1,
      envCents: values.filter1EnvelopeCents,
    },
    driveDb: values.driveDb,
    crush: values.crush,
    startSeconds: values.startSeconds,
    decayScale: values.decayScale,
  }
}

/** The sections of a shape that a ray or a turn has something of; each was its own wholly. */
function asFirstSections(of: Pick<Turn, 'values' | 'choices' | 'envelopes'>, resolved: Shape): Partial<OldShape> | undefined {
  const { values = {}, choices = {}, envelopes = {} } = of
  const shape = asFirstShape(resolved)
  const has = {
    amp: envelopes.level,
    pitch: envelopes.pitch,
    filter: choices.filter1Kind ?? values.filter1CutoffHz ?? values.filter1Damping ?? values.filter1EnvelopeCents ?? envelopes.filter1,
    driveDb: values.driveDb,
    crush: values.crush,
    startSeconds: values.startSeconds,
    decayScale: values.decayScale,
  }
  const sections = (Object.keys(has) as (keyof OldShape)[]).filter((section) => has[section] !== undefined)
  return sections.length === 0 ? undefined : Object.fromEntries(sections.map((section) => [section, shape[section]]))
}

function asFirstRay(settings: PadSettings, ray: Ray): OldRay {
  const { values, choices: _c, envelopes: _e, order: _o, sends, source, ...rest } = ray
  const { gainDb = 0, pan = 0, tuneCents = 0, keyTrack = 0, bendTrack = 0, delaySeconds = 0 } = values
  const shape = asFirstSections(ray, shapeOf(settings, ray))
  return {
    ...rest,
    source:
      source.kind === 'clips' && source.bands
        ? { ...source, bands: source.bands.map((band) => asFirstBand(settings, ray, band)) }
        : (source as OldRay['source']),
    sends: sends.map((send) => ({ busId: send.busId, gainDb: send.values.gainDb ?? 0 })),
    ...{ gainDb, pan, tuneCents, keyTrack, bendTrack, delaySeconds },
    ...(shape ? { shape } : {}),
  }
}

function asFirstBand(settings: PadSettings, ray: Ray | undefined, { values, turns, ...band }: Band): OldBand {
  return { ...band, gainDb: values.gainDb ?? 0, turns: turns.map((turn) => asFirstTurn(settings, ray, turn)) }
}

/** What a turn of a pad without rays stands on. */
const noRay = { values: {}, choices: {}, envelopes: {} }

function asFirstTurn(settings: PadSettings, ray: Ray | undefined, turn: Turn): OldTurn {
  const { values: _v, choices: _c, envelopes: _e, clips, ...rest } = turn
  const shape = asFirstSections(turn, shapeOf(settings, rayOfTurn(ray ?? noRay, turn)))
  return {
    ...rest,
    clips: Object.fromEntries(Object.entries(clips).map(([id, clip]) => [id, clip === 'intendedSilence' ? clip : asFirstClip(clip)])),
    ...(shape ? { shape } : {}),
  }
}

function asFirstClip({ loop, slices, process: _p, made: _m, ...clip }: Clip): OldClip {
  return {
    ...clip,
    ...(loop ? { loop: { startFrame: loop.startFrame, endFrame: loop.endFrame } } : {}),
    ...(slices ? { slices: slices.map(({ frame }) => frame) } : {}),
  }
}

function asFirstBus({ id, name, values, mute }: Bus): OldBus {
  return { id, name, gainDb: values.gainDb ?? 0, pan: values.pan ?? 0, mute }
}

const newSources = new Set<string>(['keyPressure'])
const oldSourceOf = new Map<string, string>(Object.entries(sourceOfOld).map(([old, now]) => [now, old]))
const oldTargetOf = new Map<string, string>(Object.entries(movedByOldTarget).map(([old, now]) => [now, old]))

/** As the first version said it: one target. Those it could not say stay as they are. */
function asFirstResponse(response: Response): OldResponse[] {
  const { from, to, amount, curve, min, max, bypass } = response
  const target = to.length === 1 ? oldTargetOf.get(to[0]!.param) : undefined
  if (!target || newSources.has(from.kind)) return []
  return [
    {
      from: (oldSourceOf.get(from.kind) ?? from.kind) as OldResponse['from'],
      to: { kind: target as OldResponse['to']['kind'], ...(to[0]!.ray === undefined ? {} : { rayId: to[0]!.ray }) },
      amount,
      bend: bendOf(curve) ?? 0,
      ...defined({ which: from.number, min, max }),
      bypass,
    },
  ]
}

function asFirstTie(tie: Tie): OldTie[] {
  switch (tie.kind) {
    case 'limit':
    case 'spots':
      return []
    case 'choke': {
      const { reach: _reach, on: _on, ...old } = tie
      return [old]
    }
    case 'chokeGroup': {
      const { reach: _reach, itself: _itself, ...old } = tie
      return [old]
    }
    case 'alsoStrike':
      return [{ ...tie, to: tie.to.map(({ velocity: _velocity, ...to }) => to) }]
    case 'parts': {
      const { parts, clip, ...rest } = tie
      return [{ ...rest, kind: 'loopParts', clip: asFirstClip(clip), pads: parts.map(({ pad }) => pad) }]
    }
    default:
      return [tie]
  }
}

function asFirstGroove({ swing, strings, lanes: _l, feel: _f, ...groove }: Groove): OldGroove {
  return {
    ...groove,
    swing: oldOfSwing(swing),
    strings: strings.map(({ padId, beads }) => ({
      padId,
      beads: beads.map(({ step, velocity, chance, repeats }) => ({ step, velocity, ...defined({ chance, repeats: repeats?.count }) })),
    })),
  }
}

export function asFirstStart({ pad, ...start }: Start, settings: PadSettings): Record<string, unknown> {
  return { ...start, version: 1, ...(pad ? { pad: asFirstOwn(pad, settings) } : {}) }
}
