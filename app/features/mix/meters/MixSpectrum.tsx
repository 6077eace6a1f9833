import { useMixSpectrum } from '../../../audio/engine/mix-spectrum'
import { SpectrumField } from '../../../kit-view/spectrum/SpectrumField'

/** What the mix is made of now. */
export function MixSpectrum() {
  const spectrum = useMixSpectrum()
  return (
    <SpectrumField
      label="Spectrum of the mix"
      heightPx={120}
      before={undefined}
      after={spectrum}
      points={[]}
      curveDb={() => 0}
      onMove={() => undefined}
      onDone={() => undefined}
    />
  )
}
