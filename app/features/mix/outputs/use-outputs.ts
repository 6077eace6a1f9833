import { useEffect, useState } from 'react'

import { outputsLater } from '../../../audio/engine/outputs-later'
import type { Outputs } from '../../../audio/engine/outputs-later'

/** What tells of this device's outputs and chooses among them; undefined for the moment until it is loaded. */
export function useOutputs(): Outputs | undefined {
  const [outputs, hold] = useState<Outputs>()
  useEffect(() => {
    let isGone = false
    void outputsLater().then((loaded) => !isGone && hold(loaded))
    return () => void (isGone = true)
  }, [])
  return outputs
}
