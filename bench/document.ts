import { createGroove, withBead } from '@heliaster/core/groove'
import {
  applyBatch,
  createBand,
  createIds,
  createKit,
  createPad,
  createTurn,
  facesOf,
  kitKind,
  makeChange,
  readKit,
  wholeClip,
} from '@heliaster/core/kit'
import type { AudioHash, Kit, KitEdit } from '@heliaster/core/kit'
import { asFirstKit, seeded } from '@heliaster/core/kit/testing'

import { median, spreadOf } from './figure'
import type { Figure } from './figure'

const PADS = 128
const CLIPS = 2000
const BEADS = 5000
const RUNS = 300

/** A kit of 128 pads with 2,000 clips and a groove of 5,000 beads: edits, saving and reading, and what a gesture sends. */
export function figuresOfDocument(): Record<string, Figure> {
  const kit = largeKit()
  const text = JSON.stringify(kit)
  const cloneMs = median(times(12, () => structuredClone(kit)))
  const gestures = Object.entries(gesturesOn(kit))
  const figures: Record<string, Figure> = {}
  let largest = 0
  const editMs: number[] = []
  for (const [name, edit] of gestures) {
    const runs = times(RUNS, (i) => makeChange(kitKind, kit, edit(i)))
    editMs.push(...runs)
    for (let i = 0; i < RUNS; i++) {
      const { edits } = makeChange(kitKind, kit, edit(i))
      largest = Math.max(largest, JSON.stringify({ baseRevision: 1, batchId: 'x'.repeat(20), version: 2, edits }).length)
    }
    figures[`document.editMs.${name}`] = { value: median(runs), unit: 'ms', spread: spreadOf(runs) }
  }
  const saves = times(RUNS, (i) => {
    const { doc } = applyBatch(kitKind, kit, gestures[i % gestures.length][1](i))
    return [JSON.stringify(doc), facesOf(doc)]
  })
  const first = JSON.parse(JSON.stringify(asFirstKit(kit))) as unknown
  return {
    ...figures,
    'document.editAgainstCopy': { value: cloneMs / median(editMs), unit: 'times', peer: 'structuredClone of the kit' },
    'document.saveMs': { value: median(saves), unit: 'ms: a batch made, checked and written as text', spread: spreadOf(saves) },
    'document.readMs': { value: median(times(8, () => readKit(JSON.parse(text)))), unit: `ms, ${(text.length / 1e6).toFixed(2)} MB` },
    'document.upgradeMs': { value: median(times(8, () => readKit(first))), unit: 'ms: the same kit from the form of before' },
    'document.largestGestureBytes': { value: largest, unit: 'bytes sent for one gesture' },
  }
}

function times(count: number, work: (i: number) => unknown): number[] {
  for (let i = 0; i < 3; i++) work(i) // warm
  return Array.from({ length: count }, (_, i) => {
    const from = performance.now()
    work(i)
    return performance.now() - from
  })
}

function largeKit(): Kit {
  const makeId = createIds(seeded(4))
  const perPad = CLIPS / PADS
  const hashes = Array.from({ length: 64 }, (_, i) => i.toString(16).padStart(64, '0') as AudioHash)
  const pads = Array.from({ length: PADS }, (_, i) => {
    const pad = createPad(makeId, { name: `Pad ${i}`, values: { gainDb: -3, pan: 0.1 } }, i)
    const turns = Array.from({ length: Math.ceil(perPad) }, (_, t) =>
      createTurn(makeId, { [pad.rays[0].id]: wholeClip(hashes[(i + t) % 64], { frames: 24000, channels: 1 }) }),
    )
    const half = turns.length >> 1
    return { ...pad, bands: [createBand(makeId, 1, turns.slice(0, half)), createBand(makeId, 64, turns.slice(half))] }
  })
  let groove = { ...createGroove(makeId, 'Long'), lengthSteps: 1024 }
  for (let i = 0; i < BEADS; i++) groove = withBead(groove, pads[i % PADS].id, Math.floor(i / PADS) * 7, 1 + (i % 127))
  const audio = Object.fromEntries(hashes.map((hash) => [hash, { name: `${hash}.wav`, sampleRateHz: 48000, frames: 24000, channels: 1 }]))
  const kit = { ...createKit(makeId, 'Large'), pads, grooves: [groove], audio }
  const read = readKit(kit)
  if (!read.ok) throw new Error(read.message)
  return read.value
}

/** What a finger does, as the screens say it. */
function gesturesOn(kit: Kit): Record<string, (i: number) => KitEdit[]> {
  const pad = (i: number) => kit.pads[(i * 37) % PADS]
  const [groove] = kit.grooves
  return {
    level: (i) => [{ type: 'setPad', padId: pad(i).id, own: { values: { gainDb: -i / 10 } } }],
    envelope: (i) => [{ type: 'setPad', padId: pad(i).id, own: { envelopes: { level: { points: [{ seconds: i / 100, value: 0, bend: 0 }] } } } }],
    bead: (i) => [{ type: 'putGroove', groove: withBead(groove, pad(i).id, 3 + 7 * i, 90) }],
    clip: (i) => {
      const [turn] = pad(i).bands[0].turns
      return [{ type: 'setClip', padId: pad(i).id, turnId: turn.id, rayId: pad(i).rays[0].id, clip: { ...(Object.values(turn.clips)[0] as object), gainDb: i / 10 } as never }]
    },
    pad: (i) => [{ type: 'movePad', padId: pad(i).id, index: (i * 11) % PADS }],
  } // prettier-ignore
}
