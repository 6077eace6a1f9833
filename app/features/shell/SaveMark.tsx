import { useState } from 'react'
import { Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { localDb } from '../../stores/local-db'
import type { RefusedEdit } from '../../stores/local-db'
import { saveState } from '../../stores/outbox'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'

/** How saving stands, in two or three words, and the list of what did not fit. */
export function SaveMark() {
  const palette = usePalette()
  const { state, waiting, refused } = useStore(saveState)
  const [list, setList] = useState<RefusedEdit[]>()
  const words =
    refused > 0
      ? `${refused} ${refused === 1 ? 'change' : 'changes'} kept aside`
      : state === 'saved'
        ? 'Saved'
        : state === 'saving'
          ? 'Saving'
          : `Saved here, ${waiting} to send`
  const color = refused > 0 ? palette.coral : state === 'saved' ? palette.kelp : state === 'saving' ? palette.muted : palette.coral
  const open = async () => setList(await (await localDb()).getAll('refused'))
  return (
    <>
      <Pressable
        role="status"
        aria-label={`Saving: ${words}`}
        onPress={() => void open()}
        disabled={refused === 0}
        style={{ flexDirection: 'row', alignItems: 'center', gap: 5 }}
      >
        <View style={{ width: 7, height: 7, borderRadius: 4, backgroundColor: color }} />
        <Text look="small" tone="muted" numberOfLines={1} style={{ fontSize: 13, lineHeight: 16 }}>
          {words}
        </Text>
      </Pressable>
      <Sheet
        title="Changes kept aside"
        isOpen={list !== undefined}
        onClose={() => setList(undefined)}
        actions={
          <Button
            label="I have seen them"
            kind="main"
            onPress={() => {
              void localDb().then((db) => db.clear('refused'))
              saveState.setState({ refused: 0 })
              setList(undefined)
            }}
          />
        }
      >
        <Text look="small">This was changed elsewhere at the same time. These changes of yours no longer fitted and were not made:</Text>
        {list?.map((one) => (
          <View key={one.place} style={{ gap: 2 }}>
            <Text look="strong">{one.reason}</Text>
            <Text look="figures" tone="muted">
              {JSON.stringify(one.edit).slice(0, 240)}
            </Text>
          </View>
        ))}
      </Sheet>
    </>
  )
}
