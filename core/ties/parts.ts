import type { Clip } from '../kit/clip'
import type { AudioHash, MakeId, PadId, TieId } from '../kit/ids'
import type { AudioInfo, Kit, Pad, Tie } from '../kit/kit'
import type { KitEdit } from '../kit/kit-edit'
import { createPad, freeNote } from '../kit/make'
import { partOf } from '../kit/resolve'

export type PartsTie = Extract<Tie, { kind: 'parts' }>
type Part = PartsTie['parts'][number]

/** A part is not shorter than this, frames. */
export const SHORTEST_PART_FRAMES = 64
const MOST_PARTS = 512

/** Where each part of a recording begins and ends, frames of its file. */
export function partSpans(tie: PartsTie): { readonly startFrame: number; readonly endFrame: number }[] {
  return tie.parts.map((_, place) => partOf(tie, place))
}

/**
 * Edits that lay a clip in even parts on as many new pads, named after it and numbered. Fewer where a kit has no room for so
 * many pads or the clip is too short; none where it has room for none.
 */
export function laidInParts(
  makeId: MakeId,
  kit: Kit,
  sound: { readonly name: string; readonly clip: Clip; readonly audio: AudioHash; readonly info: AudioInfo },
  count: number,
): { readonly edits: KitEdit[]; readonly pads: readonly Pad[] } {
  const { clip, name } = sound
  const most = Math.min(128 - kit.pads.length, Math.floor((clip.endFrame - clip.startFrame) / SHORTEST_PART_FRAMES))
  let grown = kit
  const pads = Array.from({ length: Math.max(0, Math.min(count, most)) }, (_, i) => {
    const pad = createPad(makeId, { name: `${name.slice(0, 110)} ${i + 1}`, maxStrikes: 1 }, freeNote(grown))
    grown = { ...grown, pads: [...grown.pads, pad] }
    return pad
  })
  if (pads.length === 0) return { edits: [], pads }
  const parts = pads.map((pad) => ({ id: makeId('part'), pad: pad.id }))
  return {
    pads,
    edits: [
      { type: 'putAudio', audio: sound.audio, info: sound.info },
      ...pads.map((pad, i): KitEdit => ({ type: 'addPad', pad, index: kit.pads.length + i })),
      { type: 'putTie', tie: { id: makeId<TieId>('tie'), kind: 'parts', clip, parts } },
    ],
  }
}

/** The border between a part and the one after it at another frame, as near as both stay parts. The others stay where they are. */
export function withBorder(tie: PartsTie, place: number, frame: number): PartsTie {
  const spans = partSpans(tie)
  const [one, next] = [spans[place], spans[place + 1]]
  if (!one || !next) return tie
  const at = Math.round(Math.min(next.endFrame - SHORTEST_PART_FRAMES, Math.max(one.startFrame + SHORTEST_PART_FRAMES, frame)))
  return withParts(tie, (part, i) => (i === place ? { ...part, endFrame: at } : i === place + 1 ? { ...part, startFrame: at } : part))
}

/** A part on another pad. Several on one pad take turns. */
export function onOtherPad(tie: PartsTie, place: number, pad: PadId): PartsTie {
  return withParts(tie, (part, i) => (i === place ? { ...part, pad } : part))
}

/** A part in two of one length, on the same pad; borders that were even stay where they were. */
export function splitPart(makeId: MakeId, tie: PartsTie, place: number): PartsTie {
  const drawn = asDrawn(tie)
  const part = drawn.parts[place]
  if (!part || part.endFrame! - part.startFrame! < 2 * SHORTEST_PART_FRAMES || tie.parts.length >= MOST_PARTS) return tie
  const middle = Math.round((part.startFrame! + part.endFrame!) / 2)
  const halves: Part[] = [{ ...part, endFrame: middle }, { ...part, id: makeId('part'), startFrame: middle }] // prettier-ignore
  return { ...drawn, parts: [...drawn.parts.slice(0, place), ...halves, ...drawn.parts.slice(place + 1)] }
}

/** Without a part: the one before it, or else the one after, takes its stretch where both met. */
export function withoutPart(tie: PartsTie, place: number): PartsTie {
  const drawn = asDrawn(tie)
  const part = drawn.parts[place]
  if (!part || drawn.parts.length < 2) return tie
  const parts = drawn.parts.map((one, i) => {
    if (i === place - 1 && one.endFrame === part.startFrame) return { ...one, endFrame: part.endFrame }
    return place === 0 && i === 1 && one.startFrame === part.endFrame ? { ...one, startFrame: part.startFrame } : one
  })
  return { ...drawn, parts: parts.filter((_, i) => i !== place) }
}

/** Even parts again, on the pads that they lie on. */
export function evenAgain(tie: PartsTie): PartsTie {
  return withParts(tie, ({ startFrame: _from, endFrame: _to, ...part }) => part)
}

/** Every part says its frames, where they are now. */
function asDrawn(tie: PartsTie): PartsTie {
  const spans = partSpans(tie)
  return withParts(tie, (part, i) => ({ ...part, startFrame: spans[i]!.startFrame, endFrame: spans[i]!.endFrame }))
}

const withParts = (tie: PartsTie, change: (part: Part, place: number) => Part): PartsTie => ({ ...tie, parts: tie.parts.map(change) })
