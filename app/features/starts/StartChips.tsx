import { createStart } from '@heliaster/core/kit'
import type { Start } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { starts } from '../../documents'
import { makeId } from '../../documents/make-id'
import { Button, IconButton } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { notify } from '../../ui/layout/notices'
import { WordField } from '../../ui/controls/WordField'
import { useStarts } from './use-starts'

interface ChipsProps {
  readonly label: string
  readonly about: 'pad' | 'cut'
  /** What choosing none of them is called. */
  readonly plain: string
  readonly value: string | undefined
  readonly onChoose: (start: Start | undefined) => void
}

/** The starts that were kept, of which one can be chosen or given away. Nothing where there is none. */
export function StartChips({ label, about, plain, value, onChoose }: ChipsProps) {
  const kept = useStarts(about)
  const chosen = kept.find((start) => start.id === value)
  if (kept.length === 0) return null
  const remove = async (start: Start) => {
    onChoose(undefined)
    const back = await starts.hide(start.id)
    notify(`The start “${start.name}” is gone. What was begun with it stays as it is.`, { label: 'Undo', run: () => void back() })
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-end' }}>
      <View style={{ flex: 1 }}>
        <Chips
          label={label}
          options={[{ value: '', text: plain }, ...kept.map((start) => ({ value: start.id as string, text: start.name }))]}
          value={chosen?.id ?? ''}
          onChoose={(id) => onChoose(kept.find((start) => start.id === id))}
        />
      </View>
      {chosen && <IconButton name="trash-can-outline" label={`Give away the start “${chosen.name}”`} onPress={() => void remove(chosen)} />}
    </View>
  )
}

interface KeepProps {
  readonly label: string
  readonly settings: Pick<Start, 'pad' | 'tillers' | 'cut'>
}

/** Keeps settings under a name. The same name again takes the place of what it stood for. */
export function KeepStart({ label, settings }: KeepProps) {
  const about = settings.pad ? 'pad' : 'cut'
  const kept = useStarts(about)
  const [name, setName] = useState<string>()
  if (name === undefined) return <Button label={label} icon="bookmark-outline" onPress={() => setName('')} />
  const keep = () => {
    const words = name.trim().slice(0, 120)
    if (!words) return
    const before = kept.find((start) => start.name === words)
    if (before) starts.edit(before.id, [{ type: 'setStart', fields: settings.pad ? { tillers: [], ...settings } : settings }])
    else void starts.create(createStart(makeId, words, settings))
    setName(undefined)
    notify(`“${words}” can be chosen as a start from now on.`)
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 8 }}>
      <View style={{ flex: 1 }}>
        <WordField label="Name of the start" value={name} autoFocus onChange={setName} onEnter={keep} />
      </View>
      <Button label={kept.some((start) => start.name === name.trim()) ? 'Replace it' : 'Keep'} disabled={!name.trim()} onPress={keep} />
    </View>
  )
}
