import { controlNumbers } from '@heliaster/core/engine'
import type { Pad, Response } from '@heliaster/core/kit'
import { useStore } from 'zustand'

import { handsState } from '../../../audio/playing/hands/hands'
import { useSession } from '../../../kit-view/session'

const HIGHEST = 127

/** Where what moves a response stands now, 0..1 as its curve is drawn; nothing where it is not one place. */
export function useLiveSource(pad: Pad, { from }: Response): number | undefined {
  const struck = useSession((state) => state.lit[pad.id])
  const controls = useStore(handsState, (state) => state.controls)
  const keyPressure = useStore(handsState, (state) => state.keyPressures[pad.id])
  const controller = (number: number) => (controls[number] === undefined ? undefined : controls[number] / HIGHEST)
  switch (from.kind) {
    case 'velocity':
      return struck && struck.velocity / HIGHEST
    case 'turn': {
      const turns = struck && pad.bands[struck.band]?.turns.length
      return turns === undefined || turns < 2 ? undefined : struck!.turn / (turns - 1)
    }
    case 'wheel':
      return controller(controlNumbers.wheel)
    case 'controller':
      return controller(from.number ?? controlNumbers.wheel)
    case 'bend':
      return controls[controlNumbers.bend] === undefined ? undefined : Math.abs(controls[controlNumbers.bend])
    case 'pressure':
      return controls[controlNumbers.pressure]
    case 'keyPressure':
      return keyPressure
    default:
      return undefined
  }
}
