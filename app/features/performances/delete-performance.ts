import type { Performance } from '@heliaster/core/kit'

import { performances } from '../../documents'
import { notify } from '../../ui/layout/notices'

/** Takes a performance off the list; it can be brought back where it is said. */
export async function deletePerformance({ id, name }: Performance, then?: () => void): Promise<void> {
  const bringBack = await performances.hideMany([id])
  then?.()
  notify(`“${name}” is deleted.`, { label: 'Bring it back', run: () => void bringBack() })
}
