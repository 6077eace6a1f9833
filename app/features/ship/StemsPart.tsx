import { MOST_STEM_SECONDS, stemSeconds, fileName } from '@heliaster/core/ship'
import type { StemOptions } from '@heliaster/core/ship'
import type { GrooveId, Kit } from '@heliaster/core/kit'
import { transfer } from 'comlink'
import { useState } from 'react'
import { View } from 'react-native'

import type { Shipped } from '../../audio/workers/ship-work'
import { shipWork } from '../../audio/workers/workers'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Slider } from '../../ui/controls/Slider'
import { Toggle } from '../../ui/controls/Toggle'
import { saveFile } from '../../ui/device/choose-files'
import { Text } from '../../ui/layout/Text'
import { Waiting } from '../../ui/layout/Waiting'
import { gatheredAudio } from './gathered-audio'
import { sizeWords } from './size-words'

const BY = [
  { value: 'bus', text: 'By bus' },
  { value: 'pad', text: 'By pad' },
  { value: 'ray', text: 'By ray' },
] as const
const RATES = [
  { value: '44100', text: '44.1 kHz' },
  { value: '48000', text: '48 kHz' },
  { value: '96000', text: '96 kHz' },
] as const

type State =
  | { readonly is: 'open' }
  | { readonly is: 'busy' }
  | { readonly is: 'made'; readonly shipped: Shipped }
  | { readonly is: 'failed'; readonly why: string }

/** A groove or the song as stems: what is in them is chosen, then they are made and saved. */
export function StemsPart({ kit }: { readonly kit: Kit }) {
  const [options, setOptions] = useState<Omit<StemOptions, 'onDone'>>({ by: 'pad', withEffects: true, what: kit.song.length > 0 ? 'song' : (kit.grooves[0]?.id ?? 'song'), laps: 4, sampleRateHz: 48000 })
  const [state, setState] = useState<State>({ is: 'open' })
  const change = (fields: Partial<StemOptions>) => {
    setOptions({ ...options, ...fields })
    setState({ is: 'open' })
  }
  if (kit.grooves.every(({ strings }) => strings.every(({ beads }) => beads.length === 0)))
    return <Text>Stems are of a groove: put beads on some strings in Groove, or take a ready one.</Text>
  const seconds = stemSeconds(kit, options)
  const make = async () => {
    setState({ is: 'busy' })
    try {
      const audio = await gatheredAudio(kit)
      setState({ is: 'made', shipped: await shipWork().stems(kit, options, transfer(audio, [...audio.values()])) })
    } catch (error) {
      setState({ is: 'failed', why: `The stems could not be made: ${error instanceof Error ? error.message : String(error)}. Nothing of the kit is changed.` })
    }
  }
  return (
    <View style={{ gap: 14 }}>
      <Chips label="Parts" options={BY} value={options.by} onChoose={(by) => change({ by })} />
      <Chips
        label="Of"
        options={[...(kit.song.length > 0 ? [{ value: 'song', text: 'The song' }] : []), ...kit.grooves.map(({ id, name }) => ({ value: id as string, text: name || 'Groove' }))]}
        value={options.what as string}
        onChoose={(what) => change({ what: what as GrooveId | 'song' })}
      />
      {options.what !== 'song' && <Slider label="Laps" value={options.laps} min={1} max={64} step={1} unit="" power={2} onSlide={(laps) => change({ laps })} onDone={() => undefined} />}
      <Toggle label="With effects" words="What stands in buses, with its tails. What is lowered there by level is lowered as in the whole mix." value={options.withEffects} onChange={(withEffects) => change({ withEffects })} />
      <Chips label="Rate" options={RATES} value={String(options.sampleRateHz) as (typeof RATES)[number]['value']} onChoose={(rate) => change({ sampleRateHz: Number(rate) })} />
      <Text look="small" tone="muted">
        {seconds > MOST_STEM_SECONDS ? `Only the first ${MOST_STEM_SECONDS / 60} minutes are made.` : `${seconds.toFixed(1)} s, and what rings out after.`}
      </Text>
      {state.is === 'failed' && (
        <Text role="alert" tone="coral">
          {state.why}
        </Text>
      )}
      {state.is === 'busy' && <Waiting words="Playing every part" />}
      {state.is === 'made' && <Made kit={kit} shipped={state.shipped} />}
      {(state.is === 'open' || state.is === 'failed') && <Button label="Make the stems" kind="main" onPress={() => void make()} />}
    </View>
  )
} // prettier-ignore

/** What was made, listed, and what they do not say. */
function Made({ kit, shipped }: { readonly kit: Kit; readonly shipped: Shipped }) {
  return (
    <View style={{ gap: 8 }}>
      {shipped.notes.map((note) => (
        <Text key={note} look="small">
          {note}
        </Text>
      ))}
      {shipped.files.map(({ path, bytes }) => (
        <View key={path} style={{ flexDirection: 'row', gap: 12 }}>
          <Text look="small" numberOfLines={1} style={{ flex: 1 }}>
            {path}
          </Text>
          <Text look="figures" tone="muted">
            {sizeWords(bytes)}
          </Text>
        </View>
      ))}
      <Button
        label={`Save ${sizeWords(shipped.zip.byteLength)} zip`}
        kind="main"
        icon="download"
        onPress={() => saveFile(`${fileName(kit.name)} stems.zip`, shipped.zip, 'application/zip')}
      />
    </View>
  )
}
