import { applyBatch, createKit, createPad, kitKind, makeChange } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { asTurns } from '@heliaster/core/place'

import { makeId } from '../documents/make-id'

export const audio = 'b'.repeat(64) as never
export const info = { name: 'x.wav', sampleRateHz: 48000, frames: 48000, channels: 1 }
const clip = {
  audio,
  startFrame: 0,
  endFrame: 100,
  fadeInSeconds: 0,
  fadeOutSeconds: 0,
  gainDb: 0,
  reverse: false,
  invert: false,
  channel: 'left' as const,
}

export function aPad(turns: number, how: typeof asTurns = asTurns): Pad {
  const pad = createPad(makeId, { name: 'Oar' }, 40)
  return {
    ...pad,
    bands: how(
      makeId,
      pad.rays[0].id,
      Array.from({ length: turns }, () => clip),
    ),
  }
}

export function aKitOf(...pads: Pad[]): Kit {
  return { ...createKit(makeId, 'K'), pads }
}

export const after = (kit: Kit, edits: KitEdit[]) => {
  const { doc, refused, inverses } = makeChange(kitKind, kit, edits)
  expect(refused).toEqual([])
  expect(applyBatch(kitKind, doc, inverses).doc).toEqual(kit)
  return doc
}
