import { bandHz, hitSpectrumDb } from '@heliaster/core/cut'
import { clipSamples, repairsDb } from '@heliaster/core/engine'
import type { Clip, Repairs, Source } from '@heliaster/core/kit'
import { useEffect, useMemo, useState } from 'react'
import { View } from 'react-native'

import { decodedAudio } from '../../../audio/files/audio-files'
import { SpectrumField } from '../../../kit-view/spectrum/SpectrumField'
import { Chip } from '../../../ui/controls/Chip'
import { NumberField } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import type { CutHit } from '../bench/use-source-cut'
import { clipOfHit } from '../hits/hit-clip'
import { hasTone, movedTone, toggledTone, toneOf, tonePoint, TONES, toneWords, withTone } from './tone-points'
import type { Tone } from './tone-points'
import type { Repairing } from './use-repairs'

const BANDS = 120
/** So much of a hit its spectrum is measured over, samples. */
const MEASURED = 8192

interface Props {
  readonly source: Source
  readonly repairs: Repairing
}

/** The tone of the hit that is repaired, on its spectrum: before dashed, after filled; each repair a point that is dragged. */
export function RepairSpectrum({ source, repairs }: Props) {
  const item = repairs.items[0]
  const set: Repairs = item?.marker.clip?.repairs ?? {}
  const [chosen, choose] = useState<Tone>()
  const spectra = useSpectra(source, item)
  const points = TONES.filter(({ key }) => hasTone(set, key)).map(({ key, text }) => {
    const setting = toneOf(set, key)
    return { key, label: text, words: toneWords(key, setting), ...tonePoint(key, setting), setting }
  })
  const shown = points.find(({ key }) => key === chosen) ?? points[0]
  const change = (fields: Partial<Repairs>) => {
    repairs.repair(fields)
    repairs.hearThem()
  }
  return (
    <View style={{ gap: 8 }}>
      <SpectrumField
        label="Spectrum of the hit, with its repairs"
        heightPx={150}
        before={spectra?.before}
        after={spectra?.after}
        points={points}
        curveDb={(hz) => repairsDb(set, hz, source.info.sampleRateHz)}
        onChoose={choose}
        onMove={(tone, from, byCents, byDb) => repairs.repair(movedTone(tone, from, byCents, byDb))}
        onDone={repairs.hearThem}
      />
      <View role="group" aria-label="Tone" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {TONES.map(({ key, text }) => (
          <Chip
            key={key}
            role="checkbox"
            text={text}
            isChosen={hasTone(set, key)}
            onPress={() => {
              choose(key)
              change(toggledTone(set, key, spectra && loudestHz(spectra.before)))
            }}
          />
        ))}
      </View>
      {shown && <TypedTone tone={shown.key} label={shown.label} setting={shown.setting} onChange={change} />}
    </View>
  )
}

interface TypedProps {
  readonly tone: Tone
  readonly label: string
  readonly setting: ReturnType<typeof toneOf>
  readonly onChange: (fields: Partial<Repairs>) => void
}

function TypedTone({ tone, label, setting, onChange }: TypedProps) {
  const { hz, db, octaves } = setting
  const put = (fields: Partial<typeof setting>) => onChange(withTone(tone, { ...setting, ...fields }))
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <Text look="label" tone="muted" style={{ flex: 1 }}>
        {label}
      </Text>
      <NumberField label={`${label}, Hz`} text={hz.toFixed(1)} unit="Hz" onNumber={(typed) => put({ hz: typed })} />
      {tone !== 'lowCut' && tone !== 'notch' && (
        <NumberField label={`${label}, dB`} text={db.toFixed(1)} unit="dB" width={48} onNumber={(typed) => put({ db: typed })} />
      )}
      {(tone === 'bell' || tone === 'notch') && (
        <NumberField label={`${label}, octaves`} text={octaves.toFixed(2)} unit="oct" width={48} onNumber={(typed) => put({ octaves: typed })} />
      )}
    </View>
  )
} // prettier-ignore

/** The frequency that is strongest, Hz. */
function loudestHz(bands: Float32Array): number | undefined {
  const strongest = Math.max(...bands)
  return Number.isFinite(strongest) ? bandHz(bands.indexOf(strongest), bands.length) : undefined
}

/** What the hit is made of without its repairs and with them. */
function useSpectra(source: Source, item: CutHit | undefined) {
  const [channels, setChannels] = useState<Float32Array[]>()
  useEffect(() => {
    let gone = false
    decodedAudio(source.audio).then(
      ({ audio }) => !gone && setChannels(audio.channels),
      () => undefined, // missing audio is named in Cut itself
    )
    return () => {
      gone = true
    }
  }, [source.audio])
  const { sampleRateHz } = source.info
  return useMemo(() => {
    if (!channels || !item?.hit) return undefined
    const clip = clipOfHit(source, item.marker, item.hit)
    const spectrum = (one: Clip) => hitSpectrumDb(clipSamples({ sampleRateHz, channels }, one)[0]!, sampleRateHz, BANDS)
    const measured = { ...clip, endFrame: Math.min(clip.endFrame, clip.startFrame + MEASURED), fadeOutSeconds: 0 }
    const { repairs: _, ...bare } = measured
    return { before: spectrum(bare), after: spectrum(measured) }
  }, [channels, source, item, sampleRateHz])
}
