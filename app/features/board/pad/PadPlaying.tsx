import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad, PadSettings } from '@heliaster/core/kit'
import { noteNumber } from '@heliaster/core/place'
import { useMemo } from 'react'

import { Chips } from '../../../ui/Chips'
import { NameField } from '../../../ui/NameField'
import { noteName } from '../../../ui/note-name'
import { notify } from '../../../ui/notices'
import { Slider } from '../../../ui/Slider'
import { Text } from '../../../ui/Text'
import { editKit } from '../../shell'
import { padGesture } from '../../shell/use-kit'
import { MODES, PICKS } from '../play-choices'
import { ChokeChips } from './ChokeChips'
import { TurnRules } from './TurnRules'

/** How a pad answers strikes: which turn is next, what it silences, how many sound at once. */
export function PadPlaying({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const settings = padSettings(kit, pad)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const set = (own: Partial<PadSettings>) => editKit(kit.id, [{ type: 'setPad', padId: pad.id, own }], pad.id)
  const setNotes = (words: string) => {
    const typed = words.split(/[\s,;]+/).filter(Boolean)
    const notes = typed.map((word) => (/^\d+$/.test(word) ? Number(word) : noteNumber(word)))
    const wrong = typed.find((_, i) => notes[i] === undefined || notes[i] > 127)
    if (wrong) return notify(`“${wrong}” is no note. Notes are numbers from 0 to 127, or names such as C2, with commas between.`)
    editKit(kit.id, [{ type: 'setPadNotes', padId: pad.id, notes: [...new Set(notes as number[])] }])
  }
  return (
    <>
      <Chips label="Next turn" options={PICKS} value={settings.pick} onChoose={(pick) => set({ pick })} />
      <TurnRules settings={settings} bands={pad.bands.length} onSet={set} />
      <ChokeChips kit={kit} pad={pad} />
      <Chips label="When struck" options={MODES} value={settings.mode} onChoose={(mode) => set({ mode })} />
      <Slider
        label="Strikes at once"
        value={settings.maxStrikes}
        min={1}
        max={32}
        step={1}
        unit=""
        onSlide={(maxStrikes) => gesture.set([{ type: 'setPad', padId: pad.id, own: { maxStrikes } }])}
        onDone={gesture.end}
      />
      <Text look="small" tone="muted">
        Where more are struck, the oldest that was let go is stopped, then the oldest, and of two that began together the softer. The pad’s
        limit comes first, then its choke group’s, then the kit’s.
      </Text>
      <NameField
        label="Notes that strike it"
        value={pad.notes.map(noteName).join(', ')}
        placeholder="None: it answers no note"
        onName={setNotes}
      />
    </>
  )
}
