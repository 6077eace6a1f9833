import {
  beadById,
  copiedBeads,
  movedBeads,
  padOfBead,
  pasted,
  takenIds,
  withBeads,
  withLaterBeads,
  withNewBead,
  withoutBeads,
} from '@heliaster/core/groove'
import type { Copied, PlacedBead } from '@heliaster/core/groove'
import { padById } from '@heliaster/core/kit'
import type { Bead, BeadId, Groove, Kit, PadId } from '@heliaster/core/kit'
import { useMemo, useRef, useState } from 'react'

import { hearVersion } from '../../../audio/engine/sound'
import { grooveState } from '../../../audio/playing/groove-player'
import { endTake, takeState } from '../../../audio/playing/groove-take'
import { editKit } from '../../../kit-view'
import { kitGesture } from '../../../kit-view/use-kit'
import { notify } from '../../../ui/layout/notices'

/** A step of a string, where keys are and where what was copied is put down. */
export interface Cursor {
  readonly padId: PadId
  readonly step: number
}

type Fields = Partial<Omit<Bead, 'id'>>

/** What hands do to the beads of a groove: each edit is one step to undo, a drag of several `slide` and a `done` is one too. */
export interface BeadHands {
  readonly kit: Kit
  readonly groove: Groove
  readonly padIds: readonly PadId[]
  readonly chosen: ReadonlySet<BeadId>
  readonly cursor?: Cursor
  readonly copied?: Copied
  choose(ids: ReadonlySet<BeadId>, cursor?: Cursor): void
  edit(groove: Groove, ids?: ReadonlySet<BeadId>): void
  /** Says the whole of a drag so far, over the groove as it was before it. */
  slide(change: (before: Groove) => Groove): void
  done(): void
  put(cursor: Cursor): void
  remove(): void
  move(steps: number, strings?: number): void
  fields(fields: Fields): void
  fieldsOf(change: (placed: PlacedBead) => Fields): void
  /** The same within a drag. */
  slideFields(change: (placed: PlacedBead) => Fields): void
  copy(): void
  paste(): void
  /** Of its own accord only while no groove plays. */
  hear(id: BeadId, isAsked?: boolean): void
}

/** So loud is a bead that is put by a tap. */
const USUAL_VELOCITY = 100
const none: ReadonlySet<BeadId> = new Set()

export function useBeadHands(kit: Kit, groove: Groove): BeadHands {
  const padIds = useMemo(() => kit.pads.map(({ id }) => id), [kit.pads])
  const [state, setState] = useState<{ ids: ReadonlySet<BeadId>; cursor?: Cursor; of?: string }>({ ids: none })
  const [copied, setCopied] = useState<Copied>()
  const before = useRef<Groove>(undefined)
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const chosen = useMemo(() => kept(groove, state.of === groove.id ? state.ids : none), [groove, state])
  const say = (changed: Groove) => ({ type: 'putGroove' as const, groove: changed })
  const hands: BeadHands = {
    kit,
    groove,
    padIds,
    chosen,
    cursor: state.of === groove.id ? state.cursor : undefined,
    copied,
    choose: (ids, cursor) => setState((now) => ({ ids, cursor: cursor ?? now.cursor, of: groove.id })),
    edit(changed, ids) {
      const taken = takeState.getState().isOn ? endTake() : undefined // what is edited by hand is edited over the pass
      if (changed !== groove) editKit(kit.id, [say(taken ? withLaterBeads(changed, groove, taken) : changed)])
      if (ids) setState((now) => ({ ...now, ids, of: groove.id }))
    },
    slide(change) {
      before.current ??= groove
      gesture.set([say(change(before.current))])
    },
    done() {
      before.current = undefined
      gesture.end()
    },
    put(cursor) {
      const { groove: changed, id } = withNewBead(groove, cursor.padId, cursor.step, USUAL_VELOCITY)
      hands.edit(changed, new Set([id]))
      setState({ ids: new Set([id]), cursor, of: groove.id })
      hearBead(kit, changed, id)
    },
    remove: () => hands.edit(withoutBeads(groove, chosen), none),
    move: (steps, strings = 0) => hands.edit(movedBeads(groove, chosen, steps, padIds, strings)),
    fields: (fields) => hands.edit(withBeads(groove, chosen, () => fields)),
    fieldsOf: (change) => hands.edit(withBeads(groove, chosen, change)),
    slideFields: (change) => hands.slide((before) => withBeads(before, chosen, change)),
    copy() {
      if (chosen.size === 0) return
      setCopied(copiedBeads(groove, chosen, padIds))
      notify(`${chosen.size === 1 ? 'The bead is' : `${chosen.size} beads are`} copied: tap a step, then Paste.`)
    },
    paste() {
      const { cursor } = hands
      if (!copied || !cursor) return
      const { groove: changed, ids } = pasted(groove, copied, padIds, cursor.padId, cursor.step)
      hands.edit(changed, ids)
    },
    hear: (id, isAsked) => hearBead(kit, groove, id, isAsked),
  }
  return hands
}

/** Those that are still there: the very same set where all are. */
function kept(groove: Groove, ids: ReadonlySet<BeadId>): ReadonlySet<BeadId> {
  if (ids.size === 0) return none
  const there = takenIds(groove)
  const left = [...ids].filter((id) => there.has(id))
  return left.length === ids.size ? ids : new Set(left)
}

/** Sounds a bead by itself, whatever its laps, chance and the other beads say; of its own accord only while no groove plays. */
function hearBead(kit: Kit, groove: Groove, id: BeadId, isAsked = false): void {
  const placed = beadById(groove, id)
  const pad = placed && padById(kit, placed.string.padId)
  if (!pad || (!isAsked && grooveState.getState().playing)) return
  hearVersion(padOfBead(kit, pad, placed.bead), 0, placed.bead.velocity)
}
