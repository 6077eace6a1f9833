import type { Source } from '@heliaster/core/kit'

import { CutSheet } from '../sheets/CutSheet'
import { HitSheet } from '../sheets/HitSheet'
import { NameSheet } from '../sheets/NameSheet'
import { RepairSheet } from '../sheets/RepairSheet'
import { SendSheet } from '../send/SendSheet'
import type { Analysis, CutActions, CutHit } from './use-source-cut'

export type OpenSheet = 'send' | 'rhythm' | 'cut' | 'repair' | 'names' | 'hit'

interface Props {
  readonly source: Source
  readonly analysis: Analysis
  readonly tempoBpm: number
  readonly open: OpenSheet | undefined
  readonly chosen: CutHit | undefined
  /** Hits to be sent; the hits of the list; those of the list that are not passed. */
  readonly kept: readonly CutHit[]
  readonly listed: readonly CutHit[]
  readonly unpassed: readonly CutHit[]
  readonly actions: CutActions
  readonly onHear: (item: CutHit) => void
  readonly onClose: () => void
}

/** What opens over the bench: one at a time. */
export function BenchSheets(props: Props) {
  const { source, analysis, tempoBpm, open, chosen, kept, unpassed, actions, onHear, onClose } = props
  switch (open) {
    case 'send':
    case 'rhythm':
      // What was marked just now is sent once it has been described.
      return kept.length > 0 && kept.every(({ hit }) => hit) ? (
        <SendSheet source={source} hits={kept} first={open === 'rhythm' ? 'rhythm' : 'pads'} onHear={onHear} onClose={onClose} />
      ) : null
    case 'hit':
      return chosen ? <HitSheet source={source} item={chosen} actions={actions} onClose={onClose} /> : null
    case 'cut':
      return (
        <CutSheet
          source={source}
          analysis={analysis}
          tempoBpm={tempoBpm}
          onCut={actions.setCut}
          onSlide={actions.slideCut}
          onSlid={actions.endGesture}
          onClose={onClose}
        />
      )
    case 'names':
      return <NameSheet hits={unpassed} sourceName={source.name} onNames={actions.nameAll} onHear={onHear} onClose={onClose} />
    case 'repair':
      return (
        <RepairSheet
          source={source}
          chosen={chosen}
          listed={unpassed}
          onSlide={actions.slideClips}
          onDone={actions.endGesture}
          onHear={onHear}
          onClose={onClose}
        />
      )
    case undefined:
      return null
  }
}
