import { useCallback, useRef, useState } from 'react'

import { importFiles } from '../../audio/import'
import type { ImportProgress } from '../../audio/import'

/** One import after another, with how it goes. Files given while one runs come after it. */
export function useImport() {
  const [progress, setProgress] = useState<ImportProgress>()
  const running = useRef<{ cancel(): void; finished: Promise<void> }>(undefined)
  const take = useCallback((files: readonly File[]) => {
    if (files.length === 0) return
    const before = running.current?.finished ?? Promise.resolve()
    void before.then(() => (running.current = importFiles(files, setProgress)))
  }, [])
  return { progress, take, cancel: () => running.current?.cancel(), close: () => setProgress(undefined) }
}
