import type { Kit, Pad } from '../../kit/kit'
import { chokesOf } from '../../kit/resolve'
import { dbToGain } from '../math'
import { hashId } from '../strike/chance'
import { onCodes, pickCodes } from './codes'
import { table, toFrames } from './context'
import type { CompileContext } from './context'
import { ChokeField, Head } from './layout'
import { writeCurve } from './write-envelope'

/** Everything a pad has to do with others: whom it silences, limits it shares, where its strikes go, and what they set off. */
export function writeLinks(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const group = kit.ties.find((tie) => tie.kind === 'chokeGroup' && tie.pads.includes(pad.id))
  const limit = kit.ties.find((tie) => tie.kind === 'limit' && tie.pads.includes(pad.id))
  out[Head.group] = group ? hashId(group.id) : -1
  out[Head.groupMaxStrikes] = group?.kind === 'chokeGroup' ? (group.maxStrikes ?? 128) : 128
  out[Head.limit] = limit ? hashId(limit.id) : -1
  out[Head.limitMaxStrikes] = limit?.kind === 'limit' ? limit.maxStrikes : 128
  writeChokes(out, kit, pad, context)
  writeOpenings(out, kit, pad, context)
  writeTakeTurns(out, kit, pad, context)
  writeAlso(out, kit, pad, context)
}

function writeChokes(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const chokes = chokesOf(kit, pad.id).filter(({ padId }) => kit.pads.some(({ id }) => id === padId))
  const at = table(out, chokes.length, ChokeField.length)
  out[Head.chokeCount] = chokes.length
  out[Head.chokes] = at
  chokes.forEach(({ padId, fadeSeconds, on, reach }, i) => {
    const row = at + i * ChokeField.length
    out[row + ChokeField.padSlot] = context.slotOf(padId)
    out[row + ChokeField.fadeFrames] = toFrames(fadeSeconds, context)
    out[row + ChokeField.on] = onCodes[on]
    writeHashes(out, row + ChokeField.rays, reach?.rays)
    writeHashes(out, row + ChokeField.bands, reach?.bands)
  })
}

/** Lets a field point at a list of ids, as their number and their hashes: how far it is from the field; 0 where none is given. */
function writeHashes(out: number[], field: number, ids: readonly string[] | undefined): void {
  if (!ids) return
  out[field] = out.length - field
  out.push(ids.length, ...ids.map(hashId))
}

/** The first openings that a pad is among, from the lowest threshold up; pads that are gone are tidied away before. */
function writeOpenings(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const tie = kit.ties.find((one) => one.kind === 'openings' && one.steps.some((step) => step.pad === pad.id))
  out[Head.openings] = -1
  if (tie?.kind !== 'openings') return
  const steps = [...tie.steps].sort((a, b) => a.from - b.from)
  out[Head.openings] = out.length
  out.push(tie.controller, tie.chokeAt ?? -1, steps.length)
  for (const step of steps) out.push(step.from, context.slotOf(step.pad))
}

function writeTakeTurns(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const tie = kit.ties.find((one) => one.kind === 'takeTurns' && one.pads.includes(pad.id))
  out[Head.takeTurns] = -1
  if (tie?.kind !== 'takeTurns') return
  out[Head.takeTurns] = out.length
  out.push(context.slotOf(tie.pads[0]), hashId(tie.id), pickCodes[tie.pick], tie.pads.length)
  for (const id of tie.pads) out.push(context.slotOf(id))
}

function writeAlso(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const also = kit.ties.flatMap((tie) => (tie.kind === 'alsoStrike' && tie.from === pad.id ? tie.to.map((to) => ({ to, tie })) : []))
  const curves = also.map(({ to }) => writeCurve(out, to.velocity))
  out[Head.alsoCount] = also.length
  out[Head.also] = out.length
  also.forEach(({ to, tie }, i) =>
    out.push(
      context.slotOf(to.pad),
      to.chance,
      dbToGain(to.gainDb),
      toFrames(to.delaySeconds, context),
      tie.passOn ? 1 : 0,
      hashId(tie.id),
      curves[i],
    ),
  )
}
