import { soundingOfMeasured } from '@heliaster/core/alike'
import { isSoundTitle } from '@heliaster/core/cut'
import { clipOfSource, clipsOfPad, createPad, createRay, createTurn, createBand, freeNote, velocityToLevel } from '@heliaster/core/kit'
import type { Band, Bus, Clip, Kit, KitEdit, Pad, RayId, Source } from '@heliaster/core/kit'
import { asBands, asTurns, byLoudness, editsOfPlan, exchangeClips, keepSettings, padsOfPlan, putTakes } from '@heliaster/core/place'
import type { Cells, NamedFile, NamePlan } from '@heliaster/core/place'

import { sources } from '../../documents'
import { makeId } from '../../documents/make-id'
import type { LoudnessOf } from './use-loudness'

/** How many files reach the pads: as their names say, or all in one manner. */
export type PlaceWay = 'names' | 'pads' | 'turns' | 'loudness' | 'bands' | 'rays'

export interface Placing {
  readonly pads: readonly Pad[]
  readonly buses: readonly Bus[]
}

/** Files as their names are read: a folder's name came in as a tag, and may say something where there are several. */
export function namedFiles(sources: readonly Source[], loudness: LoudnessOf): NamedFile[] {
  const hasFolders = sources.every(({ tags }) => tags.length === 1) && new Set(sources.map(({ tags }) => tags[0])).size > 1
  return sources.map(({ name, tags, audio, info, measured }) => {
    const loudnessDb = loudness.get(audio)
    const centreHz = measured?.centreHz
    const portrait = soundingOfMeasured(measured)?.portrait
    return {
      name,
      frames: info.frames,
      ...(centreHz ? { centreHz } : {}),
      ...(measured?.pitchHz ? { pitchHz: measured.pitchHz } : {}),
      ...(portrait ? { portrait } : {}),
      ...(hasFolders ? { folder: tags[0] } : {}),
      ...(loudnessDb === undefined ? {} : { loudnessDb }),
    }
  })
}

export interface PlaceHow {
  readonly way: PlaceWay
  readonly loudness: LoudnessOf
  /** What the names say, for placing by them. */
  readonly plan?: NamePlan
  readonly onto?: Pad
  /** The cells of that pad to which the files go, where they are not for all of it: only their clips are exchanged. */
  readonly cells?: Cells
  /** How many bands, for the ways that make several; as many as they ask for where it is not said. */
  readonly bandCount?: number
  /** Whether what is on the pad stays, with the files besides. */
  readonly stays?: boolean
}

const MOST_RAYS = 32
const MOST_BANDS = 127
/** Stands for what is still being measured. */
const QUIET_DB = -60

/** The pads as they would be; nothing has changed yet. `onto` keeps its settings and only gets clips. */
export function placeFiles(kit: Kit, files: readonly Source[], how: PlaceHow): Placing {
  const { onto, stays, way, cells } = how
  if (onto && cells && files.length > 0) return { pads: [ontoCells(onto, cells, files, how)], buses: [] }
  const placing = placed(kit, files, how)
  if (!onto || stays || way === 'names') return placing
  const edges = way === 'loudness' ? 'brought' : 'kept'
  return { ...placing, pads: placing.pads.map((pad) => ({ ...pad, bands: keepSettings(onto.bands, pad.bands, edges) })) }
}

/** The root note that a file tells is that of the pad it fills. */
const rootOf = ({ told }: Source) => (told?.rootNote === undefined ? {} : { rootNote: told.rootNote })

function placed(kit: Kit, files: readonly Source[], { way, plan, onto, stays, loudness, bandCount }: PlaceHow): Placing {
  if (files.length === 0) return { pads: [], buses: [] }
  if (onto && stays && canStay(way, onto)) return { pads: [addedTo(onto, files, way)], buses: [] }
  if (way === 'names' && plan) return padsOfPlan(makeId, kit, { plan, clipOf: (file) => clipOfSource(files[file]), onto })
  const clips = files.map(clipOfSource)
  if (way === 'pads') {
    let grown = kit
    const pads = clips.slice(0, 128 - kit.pads.length).map((clip, i) => {
      const pad = createPad(makeId, { name: files[i].name.slice(0, 120), family: files[i].family, ...rootOf(files[i]) }, freeNote(grown))
      grown = { ...grown, pads: [...grown.pads, pad] }
      return { ...pad, bands: asTurns(makeId, pad.rays[0].id, [clip]) }
    })
    return { pads, buses: [] }
  }
  const pad = onto ?? createPad(makeId, { name: commonName(files), family: files[0].family, pick: 'shuffle' }, freeNote(kit))
  const rayId = pad.rays[0].id
  switch (way) {
    case 'names': // with no plan of the names, they are takes of one thing
    case 'turns':
      return { pads: [{ ...pad, bands: bandsOf('turns', rayId, clips, loudness), spread: 'even' }], buses: [] }
    case 'bands':
    case 'loudness': {
      const spread = way === 'bands' ? 'even' : 'loudness'
      return { pads: [withLevel({ ...pad, bands: bandsOf(way, rayId, clips, loudness, bandCount), spread }, onto)], buses: [] }
    }
    case 'rays': {
      const rays = clips.slice(0, MOST_RAYS).map((_, i) => pad.rays[i] ?? createRay(makeId, files[i].name.slice(0, 40)))
      const turn = createTurn(makeId, Object.fromEntries(clips.slice(0, MOST_RAYS).map((clip, i) => [rays[i].id, clip])))
      return { pads: [{ ...pad, rays: onto ? [...rays, ...pad.rays.slice(rays.length)] : rays, bands: [createBand(makeId, 1, [turn])] }], buses: [] } // prettier-ignore
    }
  }
}

/** One ray gets other clips; the other rays, and all that is set, stay. Where rays share their cells, they do so still. */
function ontoCells(pad: Pad, cells: Cells, files: readonly Source[], { way, loudness, bandCount }: PlaceHow): Pad {
  const clips = files.map(clipOfSource)
  const { ray, isOwn } = cells
  const isShared = !isOwn && pad.rays.length > 1 && cells.bands.some((band) => band.turns.length > 0)
  const bands = isShared
    ? exchangeClips(cells.bands, ray.id, clips)
    : keepSettings(cells.bands, bandsOf(way, ray.id, clips, loudness, bandCount), way === 'loudness' ? 'brought' : 'kept')
  if (!isOwn) return { ...pad, bands }
  return { ...pad, rays: pad.rays.map((one) => (one.id === ray.id ? { ...one, source: { ...one.source, kind: 'clips', bands } } : one)) }
}

function bandsOf(way: PlaceWay, rayId: RayId, clips: readonly Clip[], loudness: LoudnessOf, bandCount?: number): Band[] {
  if (way === 'bands') return asBands(makeId, rayId, clips, Math.min(MOST_BANDS, bandCount ?? clips.length))
  if (way !== 'loudness') return asTurns(makeId, rayId, clips)
  return byLoudness(
    makeId,
    rayId,
    clips.map((clip) => ({ clip, loudnessDb: loudness.get(clip.audio) ?? QUIET_DB })),
    bandCount,
  )
}

/** Whether files can come to what is on a pad already: as more turns of its one band, or as more rays. */
export function canStay(way: PlaceWay, pad: Pad): boolean {
  return (way === 'turns' && pad.bands.length === 1) || (way === 'rays' && pad.bands.length > 0)
}

function addedTo(pad: Pad, files: readonly Source[], way: PlaceWay): Pad {
  const clips = files.map(clipOfSource)
  if (way === 'turns') return { ...pad, ...putTakes(makeId, pad, { kind: 'pad' }, [clips], 'add') }
  const rays = clips.slice(0, MOST_RAYS - pad.rays.length).map((clip, i) => {
    const ray = createRay(makeId, files[i].name.slice(0, 40))
    return { ...ray, source: { kind: 'clips' as const, bands: asTurns(makeId, ray.id, [clip]) } }
  })
  return { ...pad, rays: [...pad.rays, ...rays] }
}

/** A new pad of several bands gets less of velocity's own level. */
function withLevel(pad: Pad, onto: Pad | undefined): Pad {
  return onto ? pad : { ...pad, own: { ...pad.own, responses: [velocityToLevel(pad.bands.length)] } }
}

/** What the names begin with, as far as it is words. */
function commonName(files: readonly Source[]): string {
  let common = files[0].name
  for (const { name } of files) while (!name.startsWith(common)) common = common.slice(0, -1)
  const words = common.replace(/[\s_\-\d.]+$/, '').replace(/[_]+/g, ' ')
  return (words || files[0].name).slice(0, 120)
}

/** A pad whose name nobody has typed takes the name of what is put on it. */
export function nameEdits(pad: Pad | undefined, name: string): KitEdit[] {
  if (!pad || !name || name.slice(0, 120) === pad.own.name || !isNamedBySound(pad)) return []
  return [{ type: 'setPad', padId: pad.id, own: { name: name.slice(0, 120) } }]
}

/** The files whose sound is on a pad, as far as they are among these. */
function filesOn(pad: Pick<Pad, 'bands' | 'rays'>, among: readonly Source[]): Source[] {
  const hashes = new Set(clipsOfPad(pad).map(({ audio }) => audio))
  return among.filter(({ audio }, i) => hashes.has(audio) && among.findIndex((other) => other.audio === audio) === i)
}

/** Whether a pad has no name, only its number, or that of what is on it. */
function isNamedBySound({ own: { name }, leansOn, ...pad }: Pad): boolean {
  if (!name) return leansOn === undefined
  if (/^Pad \d+$/.test(name) || isSoundTitle(name)) return true
  const all = Object.values(sources.store.getState().entries).map(({ doc }) => doc)
  const files = filesOn(pad, all)
  const hits = clipsOfPad(pad).flatMap(({ fromHit }) => all.find(({ id }) => id === fromHit?.sourceId)?.markers.find(({ id }) => id === fromHit?.markerId)?.name ?? []) // prettier-ignore
  const names = [...files.map((file) => file.name), ...(files.length > 0 ? [commonName(files)] : []), ...hits]
  return names.some((one) => one.slice(0, 120) === name || one.slice(0, 60) === name)
}

export function placeEdits(kit: Kit, files: readonly Source[], placing: Placing): KitEdit[] {
  const onto = placing.pads.length === 1 ? kit.pads.find(({ id }) => id === placing.pads[0].id) : undefined
  return [
    ...files.map((file): KitEdit => ({ type: 'putAudio', audio: file.audio, info: file.info })),
    ...editsOfPlan(kit, placing),
    ...nameEdits(onto, commonName(onto ? filesOn(placing.pads[0]!, files) : files)),
  ]
}
