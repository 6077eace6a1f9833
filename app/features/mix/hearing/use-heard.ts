import type { Groove, Kit } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'

export interface Measured<Result> {
  readonly result?: Result
  /** Why nothing could be measured. */
  readonly problem?: string
}

/** Measures a groove of a kit once it is asked for, and again when `again` changes; what comes too late is let go. */
export function useMeasured<Result>(kit: Kit, groove: Groove | undefined, measure: (kit: Kit, groove: Groove) => Promise<Result>, again: number): Measured<Result> {
  const [measured, setMeasured] = useState<Measured<Result>>({})
  useEffect(() => {
    if (!groove) return undefined
    let isWanted = true
    const take = (next: Measured<Result>) => isWanted && setMeasured(next)
    measure(kit, groove).then((result) => take({ result }), () => take({ problem: 'The groove could not be listened to: a sound of it is not on this device. Connect to the server and try again.' }))
    return () => {
      isWanted = false
    }
  }, [again]) // eslint-disable-line react-hooks/exhaustive-deps -- what is measured is the kit as it was when that was asked for
  return measured
} // prettier-ignore
