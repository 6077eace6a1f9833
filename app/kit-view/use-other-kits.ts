import type { Kit, KitId } from '@heliaster/core/kit'
import { useEffect } from 'react'
import { useStore } from 'zustand'

import { device, kits } from '../documents'

const UNNAMED = 'A kit without a name'

/** All kits but this one as choices, by their names; those that are only on the server too. */
export function useOtherKits(kit: Kit): { value: KitId; text: string }[] {
  const entries = useStore(kits.store, (state) => state.entries)
  const elsewhere = useStore(kits.store, (state) => state.elsewhere)
  const here = Object.values(entries).map(({ doc }) => ({ value: doc.id, text: doc.name || UNNAMED }))
  const there = Object.values(elsewhere).map(({ id, name }) => ({ value: id as KitId, text: name || UNNAMED }))
  return [...here, ...there].filter(({ value }) => value !== kit.id).sort((a, b) => a.text.localeCompare(b.text))
}

/** A kit by its id, fetched where only the server has it. */
export function useKitById(id: KitId | undefined): Kit | undefined {
  const kit = useStore(kits.store, ({ entries }) => (id ? entries[id]?.doc : undefined))
  useEffect(() => {
    if (id && !kit) void device.fetchDocument('kit', id)
  }, [id, kit])
  return kit
}
