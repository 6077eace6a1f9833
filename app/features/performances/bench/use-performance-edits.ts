import type { Performance, PerformanceEdit, PerformanceId } from '@heliaster/core/kit'
import { useMemo } from 'react'

import { performances } from '../../../documents'
import type { Gesture } from '../../../documents/gesture'

/** What is changed of a performance by hand. */
export type PerformanceFields = Extract<PerformanceEdit, { type: 'setPerformance' }>['fields']

export interface PerformanceEdits {
  /** One step, which can be taken back. */
  readonly edit: (fields: Partial<Performance>) => void
  /** Follows a drag, which is one step once it is done. */
  readonly slide: (fields: Partial<Performance>) => void
  readonly done: () => void
}

export function usePerformanceEdits(id: PerformanceId): PerformanceEdits {
  return useMemo(() => performanceEdits(id), [id])
}

function performanceEdits(id: PerformanceId): PerformanceEdits {
  let gesture: Gesture<PerformanceEdit> | undefined
  const editOf = (fields: Partial<Performance>): PerformanceEdit[] => [{ type: 'setPerformance', fields: fields as PerformanceFields }]
  return {
    edit: (fields) => performances.edit(id, editOf(fields)),
    slide: (fields) => (gesture ??= performances.gesture(id)).set(editOf(fields)),
    done: () => {
      gesture?.end()
      gesture = undefined
    },
  }
}
