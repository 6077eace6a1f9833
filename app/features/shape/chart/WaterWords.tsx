import { familyWords } from '@heliaster/core/kit'
import type { Kit, PadSettings } from '@heliaster/core/kit'
import { sinkingsOf, sinkingWords, usefulHz } from '@heliaster/core/shaping'

import { nearestNote, useNoteName } from '../../../kit-view/note-name'
import { Text } from '../../../ui/layout/Text'
import { pitchAlong } from './TideMarks'
import type { DrawnHit } from './use-drawn-hit'

interface Props {
  readonly kit: Kit
  readonly settings: PadSettings
  readonly drawn: DrawnHit | undefined
  readonly baseHz: number | undefined
}

/** Where the family of a hit is at home and whether this one is there; a warning where it sinks below what is heard. */
export function WaterWords({ kit, settings, drawn, baseHz }: Props) {
  const noteName = useNoteName()
  if (!drawn || !baseHz) return null
  const hzAt = pitchAlong(settings, baseHz)
  const warning = sinkingWords(sinkingsOf(drawn.levels, drawn.seconds, hzAt))
  const range = usefulHz(settings.family)
  if (!warning && !range) return null
  const note = (hz: number) => noteName(nearestNote(hz, kit.tuningA4Hz).note)
  return (
    <Text look="small" tone={warning ? 'coral' : 'muted'} role="status" numberOfLines={2}>
      {warning ?? homeWords(familyWords(settings.family), range!, hzAt(drawn.soundSeconds), note)}
    </Text>
  )
}

/** Whether a pitch lies in the water of its family, in words. */
export function homeWords(family: string, [low, high]: readonly [number, number], hz: number, note: (hz: number) => string): string {
  const where = hz < low || hz > high ? '' : ', in it'
  return `A ${family}’s water: ${low}-${high} Hz (${note(low)}-${note(high)}). This one: ${hz.toFixed(0)} Hz${where}.`
}
