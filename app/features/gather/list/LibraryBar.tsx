import { audioFileEndings } from '@heliaster/core/decode'
import type { Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { canChooseFolders, chooseFiles, chooseFolder } from '../../../ui/device/choose-files'
import { SearchField } from '../../../ui/controls/SearchField'
import { changeView, isNarrowed } from './library-view'
import type { LibraryView } from './library-view'
import { ViewSheet } from '../sheets/ViewSheet'

interface Props {
  readonly total: number
  /** How many of them are of the kit that is open. */
  readonly own: number
  readonly view: LibraryView
  readonly tagged: readonly Source[]
  readonly isSelecting: boolean
  /** Several are going to be selected. */
  readonly onSelect: () => void
  readonly onFiles: (files: readonly File[]) => void
}

const AUDIO = [...audioFileEndings, 'audio/*'].join(',')

/** Finds, sorts and narrows the list; brings files and folders in. It opens on the kit's own sounds, all others a tap away. */
export function LibraryBar({ total, own, view, tagged, isSelecting, onSelect, onFiles }: Props) {
  const [isSorting, setIsSorting] = useState(false)
  const scopes = [
    { value: 'kit', text: `This kit ${own}` },
    { value: 'all', text: `All ${total}` },
  ] as const
  return (
    <View style={{ paddingLeft: 16, paddingRight: 8, paddingVertical: 6, gap: 4 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <SearchField value={view.words} onChange={(words) => changeView({ words })} placeholder="Find" />
        {canChooseFolders() && (
          <IconButton name="folder-plus-outline" label="Import a folder" onPress={() => void chooseFolder().then(onFiles)} />
        )}
        <Button label="Import files" kind="quiet" icon="tray-arrow-down" onPress={() => void chooseFiles(AUDIO, true).then(onFiles)} />
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Chips
            label="Whose sounds"
            hideLabel
            isOneLine
            options={scopes}
            value={view.words.trim() ? 'all' : view.scope}
            onChoose={(scope) => changeView({ scope, ...(scope === 'kit' ? { words: '' } : {}) })}
          />
        </View>
        {!isSelecting && <Button label="Select" kind="quiet" onPress={onSelect} />}
        <Button label={isNarrowed(view) ? 'Narrowed' : 'Order'} kind="quiet" onPress={() => setIsSorting(true)} />
      </View>
      {isSorting && <ViewSheet view={view} sounds={tagged} onClose={() => setIsSorting(false)} />}
    </View>
  )
}
