import type { OwnSettings, PadSettings } from '@heliaster/core/kit'

import { SpectrumField } from '../../../kit-view/spectrum/SpectrumField'
import type { DrawnHit } from '../chart/use-drawn-hit'
import { filterNames, filterOf, filterWords, movedFilter, pointOf, togetherDb } from './filter-moves'

interface Props {
  readonly settings: PadSettings
  readonly drawn: DrawnHit | undefined
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
  readonly heightPx?: number
}

/** What the hit is made of, before and after it is shaped, and its filters over it: their points are dragged. */
export function SpectrumChart({ settings, drawn, onChange, onDone, heightPx }: Props) {
  const points = filterNames.flatMap((name) => {
    const filter = filterOf(settings, name)
    if (filter.kind === 'off') return []
    const label = name === 'filter1' ? 'Filter, on the spectrum' : 'Second filter, on the spectrum'
    return [{ key: name, label, words: filterWords(filter), ...pointOf(filter), setting: filter }]
  })
  return (
    <SpectrumField
      label="Spectrum of the hit, with its filters"
      heightPx={heightPx}
      before={drawn?.clipSpectrumDb}
      after={drawn?.spectrumDb}
      points={points}
      curveDb={(hz) => togetherDb(settings, hz)}
      onMove={(name, from, byCents, byDb) => onChange(movedFilter(name, from, byCents, byDb))}
      onDone={onDone}
    />
  )
}
