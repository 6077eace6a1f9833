import type { Pad, Source, TurnId } from '@heliaster/core/kit'
import { namedAlike } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../../../documents'
import { Button } from '../../../../ui/controls/Button'
import { Text } from '../../../../ui/layout/Text'
import { usePalette } from '../../../../ui/theme/theme'
import { PlaceSheet } from '../../../place'

interface Props {
  readonly pad: Pad
  /** The file that was put into a cell. */
  readonly file: Source
  readonly turnId: TurnId
  readonly onDone: () => void
}

/** Once one file is in its cell, those named like it can follow by the same parts of their names. */
export function Followers({ pad, file, turnId, onDone }: Props) {
  const palette = usePalette()
  const [isPlacing, setPlacing] = useState(false)
  const entries = useStore(sources.store, (state) => state.entries)
  const isOfSeveral = pad.rays.filter(({ microphone }) => microphone).length > 1
  const alike = useMemo(() => {
    const all = Object.values(entries).map((entry) => entry.doc)
    const place = all.findIndex(({ id }) => id === file.id)
    if (place < 0) return []
    const found = namedAlike(
      all.map(({ name }) => name),
      place,
      isOfSeveral,
    )
    return found.map((one) => all[one]).filter(({ verdict }) => verdict !== 'pass')
  }, [entries, file.id, isOfSeveral])
  const band = pad.bands.findIndex(({ turns }) => turns.some(({ id }) => id === turnId))
  const turn = pad.bands[band]?.turns.findIndex(({ id }) => id === turnId)
  const shown = useMemo(() => ({ file, band, turn }), [file, band, turn])
  if (alike.length < 2 || band < 0) return null
  return (
    <View style={{ gap: 8, padding: 12, borderRadius: 8, backgroundColor: palette.kelpWash }} role="status">
      <Text look="small">
        {`“${file.name}” is in band ${band + 1}, turn ${turn + 1}. ${alike.length - 1} more are named like it; they can follow.`}
      </Text>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Let them follow" kind="main" onPress={() => setPlacing(true)} />
        <Button label="Only this one" onPress={onDone} />
      </View>
      {isPlacing && <PlaceSheet files={alike} onto={pad} shown={shown} onClose={onDone} />}
    </View>
  )
}
