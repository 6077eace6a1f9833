import type { BeadId } from '../ids'
import type { Band, Bus, Clip, Groove, Kit, OwnSettings, Pad, Ray, Tie, Turn } from '../kit'
import type {
  Band as OldBand, Bus as OldBus, Clip as OldClip, Groove as OldGroove, Kit as OldKit, Pad as OldPad,
  PadSettings as OldSettings, Ray as OldRay, Tie as OldTie, Turn as OldTurn,
} from './kit' // prettier-ignore
import { swingOfOld } from './swing'
import { defined, upgradedResponses, upgradedShape } from './upgrade-shape'

/** A kit of the first version as one of the second: it sounds the same, to the bit. */
export function upgradedKit({ version: _one, gainDb, quickControls, pads, buses, ties, grooves, ...kit }: OldKit): Kit {
  return {
    ...kit,
    version: 2,
    values: notUsual({ gainDb }),
    inserts: [],
    pads: pads.map(upgradedPad),
    buses: buses.map(upgradedBus),
    ties: ties.map(upgradedTie),
    responses: [],
    oscillators: [],
    tillers: quickControls.map((control) => ({ ...control, to: [] })),
    grooves: grooves.map(upgradedGroove),
    song: [],
  }
}

/** Values that add up: what adds nothing need not be said. */
function notUsual<T extends Record<string, number>>(values: T): Partial<T> {
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== 0)) as Partial<T>
}

function upgradedPad({ own, rays, bands, ...pad }: OldPad): Pad {
  return { ...pad, own: upgradedOwn(own), rays: rays.map(upgradedRay), bands: bands.map(upgradedBand) }
}

/** What a pad has of its own, it keeps of its own: nothing of it may come from a leader afterwards. */
export function upgradedOwn({ gainDb, pan, tuneCents, shape, responses, ...own }: Partial<OldSettings>): OwnSettings {
  const shaped = upgradedShape(shape)
  const values = { ...defined({ gainDb, pan, tuneCents }), ...shaped.values }
  return {
    ...own,
    ...filled({ values, choices: shaped.choices, envelopes: shaped.envelopes }),
    ...(responses ? { responses: upgradedResponses(responses) } : {}),
  }
}

/** The parts that hold something. */
function filled<T extends object>(parts: T): Partial<T> {
  return Object.fromEntries(Object.entries(parts).filter(([, part]) => Object.keys(part as object).length > 0)) as Partial<T>
}

function upgradedRay(ray: OldRay): Ray {
  const { shape, gainDb, pan, tuneCents, keyTrack, bendTrack, delaySeconds, sends, source, ...rest } = ray
  const shaped = upgradedShape(shape)
  return {
    ...rest,
    source: source.kind === 'clips' && source.bands ? { ...source, bands: source.bands.map(upgradedBand) } : (source as Ray['source']),
    sends: sends.map((send) => ({ busId: send.busId, values: notUsual({ gainDb: send.gainDb }), tap: 'post' as const })),
    values: { ...notUsual({ gainDb, pan, tuneCents, keyTrack, bendTrack, delaySeconds }), ...shaped.values },
    choices: shaped.choices,
    envelopes: shaped.envelopes,
  }
}

function upgradedBand({ gainDb, turns, ...band }: OldBand): Band {
  return { ...band, values: notUsual({ gainDb }), turns: turns.map(upgradedTurn) }
}

function upgradedTurn({ shape, clips, ...turn }: OldTurn): Turn {
  return {
    ...turn,
    clips: Object.fromEntries(Object.entries(clips).map(([ray, clip]) => [ray, clip === 'intendedSilence' ? clip : upgradedClip(clip)])),
    ...(shape ? filled({ ...upgradedShape(shape) }) : {}),
  }
}

/** `process` was free and never written by any Heliaster: it has no form to be read by. */
export function upgradedClip({ loop, slices, process: _never, ...clip }: OldClip): Clip {
  return {
    ...clip,
    ...(loop ? { loop: { ...loop, kind: 'forward' as const, until: 'end' as const, crossfadeSeconds: 0 } } : {}),
    ...(slices ? { slices: slicesAt(slices) } : {}),
  }
}

function slicesAt(frames: readonly number[]): NonNullable<Clip['slices']> {
  const taken = new Map<number, number>()
  return frames.map((frame) => {
    const count = (taken.get(frame) ?? 0) + 1
    taken.set(frame, count)
    return { id: count === 1 ? `slice-${frame}` : `slice-${frame}-${count}`, frame, values: {} }
  })
}

function upgradedBus({ gainDb, pan, ...bus }: OldBus): Bus {
  return { ...bus, values: notUsual({ gainDb, pan }), isReturn: false, inserts: [], sends: [] }
}

function upgradedTie(tie: OldTie): Tie {
  if (tie.kind !== 'loopParts') return tie as Tie
  const { pads, clip, ...rest } = tie
  const taken = new Map<string, number>()
  const parts = pads.map((pad) => {
    const count = (taken.get(pad) ?? 0) + 1
    taken.set(pad, count)
    return { id: count === 1 ? pad : `${pad}_${count}`, pad }
  })
  return { ...rest, kind: 'parts', clip: upgradedClip(clip), parts }
}

function upgradedGroove({ swing, strings, ...groove }: OldGroove): Groove {
  return {
    ...groove,
    swing: swingOfOld(swing),
    strings: strings.map((string) => ({ ...string, beads: upgradedBeads(string.padId, string.beads) })),
  }
}

function upgradedBeads(padId: string, beads: readonly OldGroove['strings'][number]['beads'][number][]): Groove['strings'][number]['beads'] {
  const taken = new Map<number, number>()
  return beads.map(({ repeats, ...bead }) => {
    const count = (taken.get(bead.step) ?? 0) + 1
    taken.set(bead.step, count)
    const id = (count === 1 ? `${padId}.${bead.step}` : `${padId}.${bead.step}.${count}`) as BeadId
    return { id, ...bead, ...(repeats === undefined ? {} : { repeats: { count: repeats } }) }
  })
}

/** A start of the first version. */
export function upgradedStart({ pad, ...start }: Readonly<Record<string, unknown>>): object {
  return { ...start, ...(pad ? { pad: upgradedOwn(pad as Partial<OldSettings>) } : {}) }
}
