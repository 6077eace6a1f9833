import { effects } from '@heliaster/core/kit'
import type { Insert } from '@heliaster/core/kit'
import { filterResponseDb } from '@heliaster/core/shaping'
import type { FilterSetting } from '@heliaster/core/shaping'
import { useState } from 'react'

import { useMixSpectrum } from '../../../audio/engine/mix-spectrum'
import { SpectrumField } from '../../../kit-view/spectrum/SpectrumField'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { bandKindWords } from '../../../kit-view/buses/effect-words'
import type { EffectProps } from './EffectPanel'
import { choiceOf, numberOf } from './short-words'

const BANDS = ['1', '2', '3', '4', '5', '6'] as const
type Band = (typeof BANDS)[number]
const LIFTING: readonly string[] = ['peak', 'lowShelf', 'highShelf']
const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
const rows = effects.equaliser as Record<string, { min: number; max: number }>

/** One band as a filter, for its curve. */
export function bandOf(insert: Insert, band: Band): FilterSetting {
  return {
    kind: choiceOf(insert, `band${band}Kind`) as FilterSetting['kind'],
    slope: '12',
    cutoffHz: numberOf(insert, `band${band}Hz`),
    damping: numberOf(insert, `band${band}Damping`),
    gainDb: numberOf(insert, `band${band}Db`),
  } as FilterSetting
}

/** A band moved from where it stood: sideways its frequency, upwards its gain, or how sharp it is where it has none. */
export function movedBand(insert: Insert, band: Band, from: FilterSetting, byCents: number, byDb: number): Insert['values'] {
  const hz = Math.round(clamp(from.cutoffHz * 2 ** (byCents / 1200), 20, 20000) * 10) / 10
  const upwards = LIFTING.includes(from.kind)
    ? { [`band${band}Db`]: clamp(Math.round((from.gainDb + (from.kind === 'peak' ? byDb : 2 * byDb)) * 10) / 10, -24, 24) }
    : { [`band${band}Damping`]: clamp(from.damping * 2 ** (-byDb / 6), rows[`band${band}Damping`]!.min, 2) }
  return { ...insert.values, [`band${band}Hz`]: hz, ...upwards }
}

/** Six bands over the spectrum that sounds now: their points are dragged, the chosen one has its numbers below. */
export function EqualiserPanel({ insert, onSlide, onDone, onChange }: EffectProps) {
  const spectrum = useMixSpectrum()
  const [chosen, setChosen] = useState<Band>('1')
  const points = BANDS.map((band) => {
    const setting = bandOf(insert, band)
    const db = setting.kind === 'peak' ? setting.gainDb : LIFTING.includes(setting.kind) ? setting.gainDb / 2 : 0
    const words = `${Math.round(setting.cutoffHz)} Hz, ${bandKindWords[setting.kind]}${LIFTING.includes(setting.kind) ? `, ${setting.gainDb.toFixed(1)} dB` : ''}`
    return { key: band, label: `Band ${band}`, words, hz: setting.cutoffHz, db, setting }
  })
  const field = (name: 'Hz' | 'Db' | 'Damping') => `band${chosen}${name}`
  const set = (name: 'Hz' | 'Db' | 'Damping', value: number) => onSlide({ values: { ...insert.values, [field(name)]: value } })
  const kind = choiceOf(insert, `band${chosen}Kind`)
  const isShelf = kind.endsWith('Shelf')
  return (
    <>
      <SpectrumField
        label="Equaliser over the spectrum of the mix"
        before={undefined}
        after={spectrum}
        points={points}
        curveDb={(hz) => points.reduce((sum, { setting }) => sum + filterResponseDb(setting, hz), 0)}
        onChoose={setChosen}
        onMove={(band, from, byCents, byDb) => onSlide({ values: movedBand(insert, band, from, byCents, byDb) })}
        onDone={onDone}
      />
      <Chips label="Band" hideLabel isOneLine options={BANDS.map((band) => ({ value: band, text: `Band ${band}` }))} value={chosen} onChoose={setChosen} />
      <Chips
        label="Kind"
        hideLabel
        isOneLine
        options={Object.entries(bandKindWords).map(([value, text]) => ({ value, text }))}
        value={kind}
        onChoose={(value) => onChange({ choices: { ...insert.choices, [`band${chosen}Kind`]: value } })}
      />
      <Slider label="Frequency" value={numberOf(insert, field('Hz'))} min={20} max={20000} step={1} unit="Hz" power={4} onSlide={(hz) => set('Hz', hz)} onDone={onDone} />
      {LIFTING.includes(kind) && <Slider label="Gain" value={numberOf(insert, field('Db'))} min={-24} max={24} step={0.1} unit="dB" neutral={0} onSlide={(db) => set('Db', db)} onDone={onDone} />}
      <Slider label="Sharpness" value={1 / numberOf(insert, field('Damping'))} min={0.5} max={isShelf ? 2 : 20} step={0.01} unit="" power={2} onSlide={(sharp) => set('Damping', 1 / sharp)} onDone={onDone} />
    </>
  )
} // prettier-ignore
