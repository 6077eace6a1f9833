import { createPad, freeNote, velocityToLevel } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, Source } from '@heliaster/core/kit'
import { asTurns, byLoudness } from '@heliaster/core/place'

import { makeId } from '../../stores/make-id'
import { clipOfHit, hitTitle } from './hit-clip'
import type { CutHit } from './use-source-cut'

/** How hits reach the pads. */
export type SendWay = 'pads' | 'turns' | 'bands'

/** The pads that sending would make; nothing has changed yet. */
export function padsToSend(kit: Kit, source: Source, hits: readonly CutHit[], way: SendWay, bandCount?: number): Pad[] {
  const takes = hits.flatMap(({ marker, hit }) =>
    hit ? [{ clip: clipOfHit(source, marker, hit), loudnessDb: hit.loudnessDb, marker, hit }] : [],
  )
  if (takes.length === 0) return []
  if (way === 'pads') {
    let grown = kit
    return takes.slice(0, 128 - kit.pads.length).map(({ clip, marker, hit }, i) => {
      const pad = createPad(makeId, { name: hitTitle(marker, hit, i), family: hit.family }, freeNote(grown))
      const filled = { ...pad, bands: asTurns(makeId, pad.rays[0].id, [clip]) }
      grown = { ...grown, pads: [...grown.pads, filled] }
      return filled
    })
  }
  const pad = createPad(
    makeId,
    { name: takes[0].marker.name ?? source.name.slice(0, 60), family: takes[0].hit.family, pick: 'shuffle' },
    freeNote(kit),
  )
  const rayId = pad.rays[0].id
  if (way === 'turns')
    return [
      {
        ...pad,
        bands: asTurns(
          makeId,
          rayId,
          takes.slice(0, 128).map((take) => take.clip),
        ),
      },
    ]
  const bands = byLoudness(makeId, rayId, takes, bandCount)
  return [{ ...pad, own: { ...pad.own, responses: [velocityToLevel(bands.length)] }, bands, spread: 'loudness' }]
}

/** New pads behind those that are there, or the filling of one pad that keeps all its settings. */
export function sendEdits(kit: Kit, source: Source, pads: readonly Pad[], into?: Pad): KitEdit[] {
  const audio: KitEdit = { type: 'putAudio', audio: source.audio, info: source.info }
  if (!into) return [audio, ...pads.map((pad, i): KitEdit => ({ type: 'addPad', pad, index: kit.pads.length + i }))]
  const [from] = pads
  const text = JSON.stringify(from.bands).replaceAll(`"${from.rays[0].id}":`, `"${into.rays[0].id}":`)
  return [audio, { type: 'setPadFilling', padId: into.id, bands: JSON.parse(text) as Pad['bands'], spread: from.spread }]
}
