import type { Kit, KitId } from '@heliaster/core/kit'
import { useEffect } from 'react'
import { useStore } from 'zustand'

import { device, kits } from '../documents'

const UNNAMED = 'A kit without a name'

export interface KitToChoose {
  readonly value: KitId
  readonly text: string
  /** In ms since 1970. */
  readonly changedAt: number
}

/** All kits but this one as choices, by their names; those that are only on the server too. */
export function useOtherKits(but?: KitId): readonly KitToChoose[] {
  const entries = useStore(kits.store, (state) => state.entries)
  const elsewhere = useStore(kits.store, (state) => state.elsewhere)
  const here = Object.values(entries).map(({ doc, changedAt }) => ({ value: doc.id, text: doc.name || UNNAMED, changedAt }))
  const there = Object.values(elsewhere).map(({ id, name, changedAt }) => ({ value: id as KitId, text: name || UNNAMED, changedAt }))
  return [...here, ...there].filter(({ value }) => value !== but).sort((a, b) => a.text.localeCompare(b.text))
}

/** A kit by its id, fetched where only the server has it. */
export function useKitById(id: KitId | undefined): Kit | undefined {
  const kit = useStore(kits.store, ({ entries }) => (id ? entries[id]?.doc : undefined))
  useEffect(() => {
    if (id && !kit) void device.fetchDocument('kit', id)
  }, [id, kit])
  return kit
}
