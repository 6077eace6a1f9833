import { audioFileEndings } from '@heliaster/core/decode'
import type { Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'
import { canChooseFolders, chooseFiles, chooseFolder } from '../../../ui/device/choose-files'
import { SearchField } from '../../../ui/controls/SearchField'
import { changeView, isNarrowed } from './library-view'
import type { LibraryView } from './library-view'
import { ViewSheet } from '../sheets/ViewSheet'

interface Props {
  readonly total: number
  readonly view: LibraryView
  readonly tagged: readonly Source[]
  readonly isSelecting: boolean
  readonly onSelecting: (isSelecting: boolean) => void
  readonly onFiles: (files: readonly File[]) => void
}

const AUDIO = [...audioFileEndings, 'audio/*'].join(',')

/** Finds, sorts and narrows the list; brings files and folders in. */
export function LibraryBar({ total, view, tagged, isSelecting, onSelecting, onFiles }: Props) {
  const [isSorting, setIsSorting] = useState(false)
  return (
    <View style={{ flexDirection: 'row', paddingLeft: 16, paddingRight: 8, paddingVertical: 6, alignItems: 'center' }}>
      <SearchField value={view.words} onChange={(words) => changeView({ words })} placeholder={`Find in ${total} sounds`} />
      <IconButton
        name="sort-variant"
        label="Sort and narrow the list"
        on={isNarrowed(view)}
        tone={isNarrowed(view) ? 'kelp' : 'ink'}
        onPress={() => setIsSorting(true)}
      />
      <IconButton
        name="checkbox-multiple-marked-outline"
        label={isSelecting ? 'Stop selecting' : 'Select several'}
        on={isSelecting}
        onPress={() => onSelecting(!isSelecting)}
      />
      {canChooseFolders() && (
        <IconButton name="folder-plus-outline" label="Import a folder" onPress={() => void chooseFolder().then(onFiles)} />
      )}
      <IconButton name="tray-arrow-down" label="Import files" tone="kelp" onPress={() => void chooseFiles(AUDIO, true).then(onFiles)} />
      {isSorting && <ViewSheet view={view} sounds={tagged} onClose={() => setIsSorting(false)} />}
    </View>
  )
}
