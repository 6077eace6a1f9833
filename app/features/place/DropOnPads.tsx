import type { Kit, PadId, Source } from '@heliaster/core/kit'
import { useState } from 'react'
import type { ReactNode } from 'react'

import { importFiles, soundsOf } from '../../audio/import/import'
import { FileDrop } from '../../ui/controls/FileDrop'
import { notify } from '../../ui/layout/notices'
import { PlaceSheet } from './PlaceSheetLater'

/** Files dropped on a pad, or beside the pads, are taken in and then asked about; nothing is placed unasked. */
export function DropOnPads({ kit, children }: { readonly kit: Kit; readonly children: ReactNode }) {
  const [dropped, setDropped] = useState<{ readonly files: readonly Source[]; readonly padId?: PadId }>()
  const take = (files: readonly File[], on: Element | null) => {
    const padId = on?.closest<HTMLElement>('[data-pad]')?.dataset.pad as PadId | undefined
    if (files.length > 3) notify(`Reading ${files.length} files.`)
    importFiles(files, ({ done, state }) => {
      if (state !== 'finished') return
      const sources = soundsOf(done)
      const failed = done.filter((one) => one.type === 'failed')
      if (failed.length > 0) notify(failed.map(({ name, reason }) => `${name}: ${reason}`).join(' '))
      if (sources.length > 0) setDropped({ files: sources, padId })
    })
  }
  const onto = kit.pads.find(({ id }) => id === dropped?.padId)
  return (
    <FileDrop onFiles={take}>
      {children}
      {dropped && <PlaceSheet files={dropped.files} onto={onto} onClose={() => setDropped(undefined)} />}
    </FileDrop>
  )
}
