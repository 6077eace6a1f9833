import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad, PadSettings } from '@heliaster/core/kit'
import { limitWords } from '@heliaster/core/ties'
import { useMemo } from 'react'
import { useStore } from 'zustand'

import { Chips } from '../../../../ui/controls/Chips'
import { chooseMiddleC, middleC } from '../../../../kit-view/note-name'
import type { MiddleC } from '../../../../kit-view/note-name'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import { PadNotes } from '../../../../kit-view/PadNotes'
import { padGesture } from '../../../../kit-view/use-kit'
import { MODES, PICKS } from '../../../../kit-view/play-choices'
import { ChokeChips } from '../ties/ChokeChips'
import { LinkChips } from '../ties/LinkChips'
import { GoesOn } from './GoesOn'
import { TurnRules } from './TurnRules'

/** How a pad answers strikes: which turn is next, what it silences, how many sound at once. */
export function PadPlaying({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const settings = padSettings(kit, pad)
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const set = (own: Partial<PadSettings>) => editKit(kit.id, [{ type: 'setPad', padId: pad.id, own }], pad.id)
  const octave = useStore(middleC, (state) => state.octave)
  return (
    <>
      <Chips label="Next turn" options={PICKS} value={settings.pick} onChoose={(pick) => set({ pick })} />
      <TurnRules settings={settings} bands={pad.bands.length} onSet={set} />
      <ChokeChips kit={kit} pad={pad} />
      <Chips label="When struck" options={MODES} value={settings.mode} onChoose={(mode) => set({ mode })} />
      <GoesOn kit={kit} pad={pad} gesture={gesture} />
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
        {limitWords(kit, pad.id)}
      </Text>
      <PadNotes kit={kit} pad={pad} />
      <Chips
        label="Middle C, note 60, is called (everywhere)"
        options={(['3', '4', '5'] as const).map((value) => ({ value, text: `C${value}` }))}
        value={String(octave) as '3' | '4' | '5'}
        onChoose={(value) => chooseMiddleC(Number(value) as MiddleC)}
      />
      <LinkChips kit={kit} pad={pad} />
    </>
  )
}
