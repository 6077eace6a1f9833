import { kitKind, performanceKind, sourceKind, startKind } from '@heliaster/core/kit'
import type { Kind, Kit, KitEdit, Performance, PerformanceEdit, Source, SourceEdit, Start, StartEdit } from '@heliaster/core/kit'

import { clashesOf, sameName } from '../documents/clashes'
import { createDocuments } from '../documents/documents'
import type { Ground } from './device'
import type { SenderNeeds } from './sender'
import type { Shelf } from './shelf'

/** The documents of all kinds as a shelf keeps them. `isNewKit` says of one that comes whether it is new, and not only new here. */
export function documentsOn(shelf: Shelf, ground: Ground, isNewKit: (id: string) => boolean) {
  const need = { shelf, makeId: ground.makeId, now: () => ground.timers.now(), onRefused: ground.notify, stepsOf: ground.stepsOf }
  const kits = createDocuments<Kit, KitEdit>(kitKind, {
    ...need,
    onArrived: (before, after) => {
      const here = Object.values(kits.store.getState().entries).map((entry) => entry.doc)
      const words = before ? clashesOf(before as Kit, after as Kit) : isNewKit((after as Kit).id) ? sameName(here, after as Kit) : undefined
      if (words) ground.notify(words)
    },
  })
  const sources = createDocuments<Source, SourceEdit>(sourceKind, { ...need, onMade: ground.onSoundsMade })
  const starts = createDocuments<Start, StartEdit>(startKind, need)
  const performances = createDocuments<Performance, PerformanceEdit>(performanceKind, need)
  const byKind = { kit: kits, source: sources, start: starts, performance: performances }
  const documentsOf = (kind: Kind) => byKind[kind] as unknown as ReturnType<SenderNeeds['documentsOf']>
  return { kits, sources, starts, performances, all: Object.values(byKind), documentsOf }
}
