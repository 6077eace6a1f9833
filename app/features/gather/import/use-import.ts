import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { importFiles } from '../../../audio/import/import'
import type { ImportProgress } from '../../../audio/import/import'

/** How the import goes, wherever one is meanwhile: going to another place neither stops nor forgets it. */
const imports = createStore<{ readonly progress?: ImportProgress }>(() => ({}))
let running: { cancel(): void; readonly finished: Promise<void> } | undefined

/** Files given while an import runs come after it. */
function take(files: readonly File[]): void {
  if (files.length === 0) return
  const before = running?.finished ?? Promise.resolve()
  void before.catch(() => undefined).then(() => (running = importFiles(files, (progress) => imports.setState({ progress }))))
}

const cancel = () => running?.cancel()
const close = () => imports.setState({ progress: undefined })

/** One import after another, with how it goes. */
export function useImport() {
  return { progress: useStore(imports, (state) => state.progress), take, cancel, close }
}
