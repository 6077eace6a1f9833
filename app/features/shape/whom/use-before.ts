import type { Kit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'

import type { DrawnHit } from '../chart/use-drawn-hit'
import { hearAsLoud } from './hear-as-loud'

/** The pad as it was when one came to it, heard as loud as it is now. */
export function useBefore(kit: Kit, pad: Pad, drawn: DrawnHit | undefined) {
  const [before] = useState({ kit, pad })
  return { hasChanged: before.pad !== pad, hear: () => hearAsLoud(before.kit, before.pad, drawn) }
}
