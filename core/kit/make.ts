import type { AudioHash, MakeId } from './ids'
import type { AudioInfo, Band, Bus, Clip, Kit, OwnSettings, Pad, Ray, Turn } from './kit'
import type { BusId } from './ids'
import { stages, usualChoices, usualValues } from './parameters'
import type { PadSettings } from './resolve'
import { velocityToLevel } from './responses'
import { usualEnvelopes } from './shape'
import { KIT_VERSION } from './version'

/** Strikes that a kit sounds at once where it does not say. */
export const USUAL_KIT_STRIKES = 64

/** What a pad is before anyone sets anything: filter off, no drive, pitch fixed, velocity moves the level. */
export const usualPadSettings: PadSettings = {
  name: '',
  family: 'other',
  mode: 'oneShot',
  maxStrikes: 8,
  pick: 'cycle',
  counter: 'band',
  startAgain: 'never',
  mute: false,
  values: usualValues,
  choices: usualChoices,
  envelopes: usualEnvelopes,
  order: [...stages],
  responses: [velocityToLevel(1)],
}

export function createKit(makeId: MakeId, name: string): Kit {
  return {
    format: 'heliaster-kit',
    version: KIT_VERSION,
    id: makeId('kit'),
    name,
    tempoBpm: 96,
    values: {},
    inserts: [],
    seed: 1,
    tuningA4Hz: 440,
    arrangement: { columns: 3 },
    pads: [],
    buses: [],
    ties: [],
    responses: [],
    oscillators: [],
    tillers: [],
    grooves: [],
    song: [],
    audio: {},
  }
}

export function createRay(makeId: MakeId, name: string): Ray {
  return {
    id: makeId('ray'),
    name,
    source: { kind: 'clips' },
    microphone: false,
    onMissing: 'silent',
    sends: [],
    invert: false,
    mute: false,
    values: {},
    choices: {},
    envelopes: {},
  }
}

/** An empty pad with one ray. `note` is left out where no note should strike it. */
export function createPad(makeId: MakeId, own: OwnSettings, note?: number): Pad {
  return {
    id: makeId('pad'),
    notes: note === undefined ? [] : [note],
    own,
    rays: [createRay(makeId, 'Body')],
    bands: [],
    spread: 'even',
  }
}

/** The whole of an audio file as a clip. */
export function wholeClip(audio: AudioHash, info: Pick<AudioInfo, 'frames' | 'channels'>): Clip {
  return {
    audio,
    startFrame: 0,
    endFrame: info.frames,
    fadeInSeconds: 0,
    fadeOutSeconds: 0,
    gainDb: 0,
    reverse: false,
    invert: false,
    channel: info.channels > 1 ? 'both' : 'left',
  }
}

export function createTurn(makeId: MakeId, clips: Turn['clips']): Turn {
  return { id: makeId('turn'), weight: 1, clips }
}

export function createBand(makeId: MakeId, fromVelocity: number, turns: Turn[]): Band {
  return { id: makeId('band'), fromVelocity, blendVelocities: 0, blendLaw: 'power', values: {}, turns }
}

/** The lowest note from 36 up that no pad answers yet, or undefined when all are taken. */
export function freeNote(kit: Kit): number | undefined {
  const taken = new Set(kit.pads.flatMap((pad) => pad.notes))
  for (let note = 36; note <= 127; note++) if (!taken.has(note)) return note
  return undefined
}

export function createBus(id: BusId, name: string): Bus {
  return { id, name, values: {}, mute: false, isReturn: false, inserts: [], sends: [] }
}
