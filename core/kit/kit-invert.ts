import type { AudioHash } from './ids'
import type { Band, Kit, Pad } from './kit'
import { applyEdit } from './kit-edit'
import type { KitEdit } from './kit-edit'

/** The edits that undo `edit`, given the kit as it was before it. An edit that changes nothing has none. */
export function invertEdit(before: Kit, edit: KitEdit): KitEdit[] {
  const after = applyEdit(before, edit)
  if (after === before) return []
  switch (edit.type) {
    case 'setKit':
      return invertKitFields(before, edit.fields)
    case 'addPad':
      return [{ type: 'removePad', padId: edit.pad.id }]
    case 'removePad': {
      const index = before.pads.findIndex((pad) => pad.id === edit.padId)
      return [{ type: 'addPad', pad: before.pads[index]!, index }]
    }
    case 'movePad':
      return [{ type: 'movePad', padId: edit.padId, index: before.pads.findIndex((pad) => pad.id === edit.padId) }]
    case 'setPad': {
      const pad = padOf(before, edit.padId)
      const touched = [...Object.keys(edit.own), ...(edit.clear ?? [])] as (keyof Pad['own'])[]
      const { held, added } = splitFields(pad.own, touched)
      return [{ type: 'setPad', padId: edit.padId, own: held, clear: added }]
    }
    case 'setPadNotes':
      return [{ type: 'setPadNotes', padId: edit.padId, notes: padOf(before, edit.padId).notes }]
    case 'setPadLeader':
      return [{ type: 'setPadLeader', padId: edit.padId, leansOn: padOf(before, edit.padId).leansOn ?? null }]
    case 'setPadFilling': {
      const { rays, bands, spread } = padOf(before, edit.padId)
      return [{ type: 'setPadFilling', padId: edit.padId, rays, bands, spread }]
    }
    case 'setRay': {
      const ray = padOf(before, edit.padId).rays.find((other) => other.id === edit.rayId)!
      const touched = [...Object.keys(edit.fields), ...(edit.clear ?? [])] as (keyof typeof edit.fields)[]
      const { held, added } = splitFields(ray, touched)
      return [{ type: 'setRay', padId: edit.padId, rayId: edit.rayId, fields: held, clear: added as ('bus' | 'shape')[] }]
    }
    case 'setBand': {
      const band = padOf(before, edit.padId).bands.find((other) => other.id === edit.bandId)!
      const { held } = splitFields(band, Object.keys(edit.fields) as (keyof typeof edit.fields)[])
      return [{ type: 'setBand', padId: edit.padId, bandId: edit.bandId, fields: held }]
    }
    case 'setClip': {
      const clip = allTurns(padOf(before, edit.padId)).find((turn) => turn.id === edit.turnId)?.clips[edit.rayId]
      return [{ ...edit, clip: clip ?? null }]
    }
    case 'putTie':
    case 'removeTie': {
      const id = edit.type === 'putTie' ? edit.tie.id : edit.tieId
      const index = before.ties.findIndex((tie) => tie.id === id)
      return index < 0 ? [{ type: 'removeTie', tieId: id }] : [{ type: 'putTie', tie: before.ties[index]!, index }]
    }
    case 'putGroove':
    case 'removeGroove': {
      const id = edit.type === 'putGroove' ? edit.groove.id : edit.grooveId
      const index = before.grooves.findIndex((groove) => groove.id === id)
      return index < 0 ? [{ type: 'removeGroove', grooveId: id }] : [{ type: 'putGroove', groove: before.grooves[index]!, index }]
    }
    case 'putBus':
    case 'removeBus': {
      const id = edit.type === 'putBus' ? edit.bus.id : edit.busId
      const index = before.buses.findIndex((bus) => bus.id === id)
      return index < 0 ? [{ type: 'removeBus', busId: id }] : [{ type: 'putBus', bus: before.buses[index]!, index }]
    }
    case 'replaceAudio':
      return invertReplaceAudio(before, after, edit.from, edit.to)
    case 'putAudio':
    case 'removeAudio': {
      const info = (before.audio as Record<AudioHash, Kit['audio'][string] | undefined>)[edit.audio]
      return info ? [{ type: 'putAudio', audio: edit.audio, info }] : [{ type: 'removeAudio', audio: edit.audio }]
    }
  }
}

/** Puts back the filling of each pad that read the file, and what the kit knew of both files. */
function invertReplaceAudio(before: Kit, after: Kit, from: AudioHash, to: AudioHash): KitEdit[] {
  const audioOf = (hash: AudioHash): KitEdit => {
    const info = (before.audio as Record<AudioHash, Kit['audio'][string] | undefined>)[hash]
    return info ? { type: 'putAudio', audio: hash, info } : { type: 'removeAudio', audio: hash }
  }
  const fillings = before.pads
    .filter((pad, i) => pad !== after.pads[i])
    .map(({ id, rays, bands, spread }): KitEdit => {
      return { type: 'setPadFilling', padId: id, rays, bands, spread }
    })
  const ties = before.ties.filter((tie, i) => tie !== after.ties[i]).map((tie): KitEdit => ({ type: 'putTie', tie }))
  return [...fillings, ...ties, audioOf(from), audioOf(to)]
}

function padOf(kit: Kit, padId: string): Pad {
  return kit.pads.find((pad) => pad.id === padId)!
}

function allTurns(pad: Pad) {
  const own = pad.rays.flatMap((ray): Band[] => (ray.source.kind === 'clips' && ray.source.bands) || [])
  return [...pad.bands, ...own].flatMap((band) => band.turns)
}

/** Of the touched fields, the values they had and the names of those that were not there. */
function splitFields<T extends object, K extends keyof T>(of: T, touched: readonly K[]) {
  const held = Object.fromEntries(touched.filter((key) => key in of).map((key) => [key, of[key]])) as unknown as Partial<T>
  return { held, added: touched.filter((key) => !(key in of)) }
}

/** `maxStrikes` is the one kit field that may be absent; undoing its first setting leaves the default written out. */
function invertKitFields(before: Kit, fields: Partial<Kit>): KitEdit[] {
  const { held } = splitFields(before, Object.keys(fields) as (keyof Kit)[])
  return [{ type: 'setKit', fields: held as Extract<KitEdit, { type: 'setKit' }>['fields'] }]
}
