import { audioInUse } from '@heliaster/core/kit'
import type { AudioHash, Source } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { useStore } from 'zustand'

import { gathered, soundsOfKit } from '../documents/gathered'
import { useKit } from './use-kit'

/** The sounds of the kit that is open; the very same list while its pads use the same files. */
export function useOwnSounds(all: readonly Source[]): readonly Source[] {
  const kit = useKit()
  const came = useStore(gathered, ({ ofKit }) => (kit ? ofKit[kit.id] : undefined))
  const pads = kit?.pads
  const used = useMemo(() => (kit ? audioInUse(kit).join(' ') : ''), [pads]) // eslint-disable-line react-hooks/exhaustive-deps -- pads are what uses files
  return useMemo(() => soundsOfKit(all, used.split(' ') as AudioHash[], came), [all, used, came])
}
