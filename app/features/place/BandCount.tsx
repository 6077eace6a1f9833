import type { Pad } from '@heliaster/core/kit'

import { Slider } from '../../ui/controls/Slider'
import type { PlaceWay } from './place-files'

interface Props {
  readonly way: PlaceWay
  /** How many files there are to lay out. */
  readonly files: number
  /** The pad as it would be. */
  readonly pad: Pad | undefined
  readonly onCount: (bands: number) => void
}

const MOST_BANDS = 127

/** Into how many bands the files go, up to one for each; the picture follows. Only for the ways that make several. */
export function BandCount({ way, files, pad, onCount }: Props) {
  if ((way !== 'loudness' && way !== 'bands') || files < 2 || !pad) return null
  const most = Math.min(MOST_BANDS, files)
  return (
    <Slider
      label={most === files ? 'Bands, up to one for each file' : 'Bands'}
      value={pad.bands.length}
      min={1}
      max={most}
      step={1}
      unit=""
      onSlide={onCount}
      onDone={() => undefined}
    />
  )
}
