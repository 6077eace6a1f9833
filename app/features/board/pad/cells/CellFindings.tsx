import { missingCells } from '@heliaster/core/kit'
import type { Clip, Kit, Pad } from '@heliaster/core/kit'
import { oddOnes } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'
import { View } from 'react-native'

import { CHANNEL_CHOICES } from '../../../../kit-view/channel-choices'
import { Text } from '../../../../ui/layout/Text'

const MOST_NAMED = 4

/** What is easily overlooked among many cells: a microphone without a clip, a clip that is set otherwise than the rest. */
export function CellFindings({ kit, pad, cells }: { readonly kit: Kit; readonly pad: Pad; readonly cells: Cells }) {
  const { ray, bands } = cells
  const missing = cells.isOwn ? [] : missingCells(pad).filter((cell) => cell.ray.id === ray.id)
  const items = bands.flatMap((band, b) =>
    band.turns.flatMap((turn, t) => {
      const clip = turn.clips[ray.id]
      return clip && clip !== 'intendedSilence' ? [{ name: `band ${b + 1}, turn ${t + 1}`, values: clipWords(clip, kit) }] : []
    }),
  )
  const odd = oddOnes(items)
  if (missing.length === 0 && odd.length === 0) return null
  return (
    <View style={{ gap: 4 }} role="status">
      {missing.length > 0 && (
        <Text look="small" tone="coral">
          {`${ray.name} has no clip in ${named(missing.map(({ band, turn }) => `band ${band + 1}, turn ${turn + 1}`))}: ${ray.onMissing === 'nearest' ? 'the nearest band’s sounds there' : 'it is silent there'}. Tap the cell to say that it is meant.`}
        </Text>
      )}
      {odd.map(({ setting, common, odd: ones }) => (
        <Text key={setting} look="small" tone="coral">
          {`${setting} is ${common} everywhere but in ${named(ones.map(({ name, values }) => `${name} (${values[setting]})`))}.`}
        </Text>
      ))}
    </View>
  )
}

function named(names: readonly string[]): string {
  return names.slice(0, MOST_NAMED).join('; ') + (names.length > MOST_NAMED ? `; and ${names.length - MOST_NAMED} more` : '')
}

function clipWords({ audio, gainDb, channel, reverse, invert, repairs }: Clip, kit: Kit): Record<string, string> {
  const info = kit.audio[audio]
  return {
    'Level of the clip': `${gainDb.toFixed(1)} dB`,
    'Channel of the file':
      (info?.channels ?? 1) > 1 ? (CHANNEL_CHOICES.find(({ value }) => value === channel)?.text ?? channel) : 'one alone',
    Direction: reverse ? 'reversed' : 'forward',
    Polarity: invert ? 'upside down' : 'upright',
    'Sample rate': info ? `${info.sampleRateHz / 1000} kHz` : 'unknown',
    'Low cut': repairs?.lowCutHz ? `${repairs.lowCutHz} Hz` : 'off',
    'High shelf': repairs?.shelfDb ? `${repairs.shelfDb} dB` : 'off',
    'Low shelf': repairs?.lowShelfDb ? `${repairs.lowShelfDb} dB` : 'off',
    Bell: repairs?.bellDb ? `${repairs.bellDb} dB at ${repairs.bellHz} Hz` : 'off',
    Notch: repairs?.notchHz ? `${repairs.notchHz} Hz` : 'off',
  }
}
