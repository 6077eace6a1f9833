import type { Kit, KitEdit, KitId, Pad, PadId } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'
import { useGlobalSearchParams } from 'expo-router'
import { useStore } from 'zustand'

import { strikePad } from '../audio/engine/sound'
import { kits } from '../documents'
import type { Gesture } from '../documents/gesture'
import { session, useSession } from './session'

export function useKitId(): KitId {
  return useGlobalSearchParams<{ kitId: KitId }>().kitId
}

export function useKit(): Kit | undefined {
  const kitId = useKitId()
  return useStore(kits.store, (state) => state.entries[kitId]?.doc)
}

const noPads: Pad[] = []

export function usePads(): Pad[] {
  return useKit()?.pads ?? noPads
}

/** The pad being worked on: the one struck or chosen last, else the first. */
export function useChosenPad(): { kit: Kit; pad: Pad } | undefined {
  const kit = useKit()
  const padId = useSession((state) => state.padId)
  const pad = kit?.pads.find((one) => one.id === padId) ?? kit?.pads[0]
  return kit && pad ? { kit, pad } : undefined
}

export function editKit(kitId: KitId, edits: KitEdit[], hear?: PadId): void {
  kits.edit(kitId, edits)
  if (hear) hearAgain(kitId, hear)
}

/** After each gesture the pad sounds again, unless that is switched off. */
export function hearAgain(kitId: KitId, padId: PadId, velocity = 100): void {
  const pad = kits.store.getState().entries[kitId]?.doc.pads.find((one) => one.id === padId)
  if (pad && session.getState().hearsAgain) strikePad({ padId, velocity })
}

export interface KitGesture {
  set(edits: KitEdit[]): void
  end(): void
}

/** A drag on the kit, one step to undo; `onEnd` is told when one has ended. */
export function kitGesture(kitId: KitId, onEnd?: () => void): KitGesture {
  let gesture: Gesture<KitEdit> | undefined
  return {
    set(edits) {
      gesture ??= kits.gesture(kitId)
      gesture.set(edits)
    },
    end() {
      if (!gesture) return
      gesture.end()
      gesture = undefined
      onEnd?.()
    },
  }
}

/** A drag on one pad: heard when it ends. */
export function padGesture(kitId: KitId, padId: PadId): KitGesture {
  return kitGesture(kitId, () => hearAgain(kitId, padId))
}

export function padName(kit: Kit, pad: Pad): string {
  return padSettings(kit, pad).name || 'Unnamed pad'
}
