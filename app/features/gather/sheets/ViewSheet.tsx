import { familiesAmong, familyWords } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { useMemo } from 'react'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Slider } from '../../../ui/controls/Slider'
import { sound } from '../../../audio/engine/sound'
import { Meter } from '../../../ui/drawing/Meter'
import { Toggle } from '../../../ui/controls/Toggle'
import { changeView, kinds, showAll, sorts, tagsOf } from '../list/library-view'
import type { LibraryView } from '../list/library-view'

interface Props {
  readonly view: LibraryView
  readonly sounds: readonly Source[]
  readonly onClose: () => void
}

const ALL = ''

/** The order of the list, what it is narrowed to, and how its sounds are heard. */
export function ViewSheet({ view, sounds, onClose }: Props) {
  const tags = useMemo(() => tagsOf(sounds), [sounds])
  const there = useMemo(() => familiesAmong(sounds.map((source) => source.family)), [sounds])
  const familyChoices = [{ value: ALL, text: 'Any' }, ...there.map((one) => ({ value: one, text: familyWords(one) }))]
  const tagChoices = [{ value: ALL, text: 'Any' }, ...tags.map((tag) => ({ value: tag, text: tag }))]
  return (
    <Sheet title="List of sounds" isOpen onClose={onClose} actions={<Button label="Show all sounds" onPress={showAll} />}>
      <Chips label="Order" options={sorts} value={view.sort} onChoose={(sort) => changeView({ sort })} />
      <Toggle label="The other way round" value={view.isReversed} onChange={(isReversed) => changeView({ isReversed })} />
      <Chips label="Show" options={kinds} value={view.only} onChoose={(only) => changeView({ only })} />
      <Chips
        label="Family"
        options={familyChoices}
        value={view.family ?? ALL}
        onChoose={(family) => changeView({ family: family === ALL ? undefined : (family as Source['family']) })}
      />
      {tags.length > 0 && (
        <Chips label="Tag" options={tagChoices} value={view.tag ?? ALL} onChoose={(tag) => changeView({ tag: tag || undefined })} />
      )}
      <Toggle
        label="Hear on select"
        words="Arrow keys sound each sound as they reach it."
        value={view.hearsOnSelect}
        onChange={(hearsOnSelect) => changeView({ hearsOnSelect })}
      />
      <Toggle
        label="Hear files before they come in"
        words="They are heard one after another, and only those that are ticked are kept."
        value={view.hearsFirst}
        onChange={(hearsFirst) => changeView({ hearsFirst })}
      />
      <Slider
        label="Level of listening"
        value={view.hearDb}
        min={-40}
        max={12}
        step={1}
        unit="dB"
        neutral={0}
        onSlide={(hearDb) => changeView({ hearDb })}
        onDone={() => undefined}
      />
      <Meter level={() => sound.getState().player?.peak() ?? 0} label="Level of what is heard" />
    </Sheet>
  )
}
