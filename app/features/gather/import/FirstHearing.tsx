import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { fileLevel, hearFile, setFileLevel, stopFile } from '../../../audio/playing/hear-file'
import { Button } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Icon } from '../../../ui/drawing/Icon'
import { Meter } from '../../../ui/drawing/Meter'
import { LongList } from '../../../ui/layout/LongList'
import { PickRow } from '../../../ui/layout/PickRow'
import { Sheet } from '../../../ui/layout/Sheet'
import { usePalette } from '../../../ui/theme/theme'
import { changeView, libraryView } from '../list/library-view'

interface Props {
  readonly files: readonly File[]
  /** Takes in those that are ticked. */
  readonly onTake: (files: readonly File[]) => void
  readonly onClose: () => void
}

const ROW_HEIGHT = 48

/** Files are heard one after another before they come in, and only the ticked ones do. */
export function FirstHearing({ files, onTake, onClose }: Props) {
  const hearDb = useStore(libraryView, (state) => state.hearDb)
  const [ticked, setTicked] = useState<ReadonlySet<File>>(() => new Set(files))
  const [heard, setHeard] = useState<File>()
  const [reasons, setReasons] = useState<ReadonlyMap<File, string>>(new Map())
  useEffect(() => stopFile, [])
  const hear = async (file: File | undefined) => {
    setHeard(file)
    if (!file) return stopFile()
    const reason = await hearFile(file, hearDb, () => setHeard((now) => (now === file ? undefined : now)))
    if (!reason) return undefined
    setReasons((before) => new Map(before).set(file, reason))
    setHeard((now) => (now === file ? undefined : now))
    setTicked((before) => new Set([...before].filter((one) => one !== file))) // it would only be refused
    return undefined
  }
  const tick = (file: File) =>
    setTicked((before) => {
      const next = new Set(before)
      if (!next.delete(file)) next.add(file)
      return next
    })
  const [last, setLast] = useState(-1)
  const next = () => {
    const at = (last + 1) % files.length
    setLast(at)
    void hear(files[at])
  }
  const chosen = files.filter((file) => ticked.has(file))
  return (
    <Sheet
      title={files.length === 1 ? 'Hear it first' : `Hear ${files.length} files first`}
      isOpen
      onClose={onClose}
      actions={
        <>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
            <Button label="Hear the next" onPress={next} />
            <View style={{ flex: 1 }}>
              <Meter level={fileLevel} label="Level of what is heard" />
            </View>
          </View>
          <Button
            label={chosen.length === files.length ? `Bring in all ${files.length}` : `Bring in ${chosen.length} of ${files.length}`}
            kind="main"
            disabled={chosen.length === 0}
            onPress={() => {
              onTake(chosen)
              onClose()
            }}
          />
        </>
      }
    >
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Slider
            label="Level of listening"
            value={hearDb}
            min={-40}
            max={12}
            step={1}
            unit="dB"
            neutral={0}
            onSlide={(to) => {
              changeView({ hearDb: to })
              setFileLevel(to)
            }}
            onDone={() => undefined}
          />
        </View>
        <Button
          label={chosen.length === files.length ? 'Tick none' : 'Tick all'}
          onPress={() => setTicked(new Set(chosen.length === files.length ? [] : files))}
        />
      </View>
      <LongList
        label="Files"
        items={files}
        rowHeight={ROW_HEIGHT}
        style={{ height: 320 }}
        keyOf={keyOf}
        draw={(file) => (
          <FileRow
            file={file}
            isTicked={ticked.has(file)}
            isHeard={file === heard}
            reason={reasons.get(file)}
            onTick={() => tick(file)}
            onHear={() => {
              setLast(files.indexOf(file))
              void hear(file === heard ? undefined : file)
            }}
          />
        )}
        empty={null}
      />
    </Sheet>
  )
}

const ids = new WeakMap<File, string>()
let lastId = 0

/** Two files of one name are two all the same. */
function keyOf(file: File): string {
  let id = ids.get(file)
  if (id === undefined) ids.set(file, (id = `file-${++lastId}`))
  return id
}

interface RowProps {
  readonly file: File
  readonly isTicked: boolean
  readonly isHeard: boolean
  /** Why it cannot be heard. */
  readonly reason: string | undefined
  readonly onTick: () => void
  readonly onHear: () => void
}

function FileRow({ file, isTicked, isHeard, reason, onTick, onHear }: RowProps) {
  const palette = usePalette()
  return (
    <PickRow
      name={file.name}
      facts={reason ?? `${(file.size / 1024).toFixed(0)} KB`}
      isWrong={reason !== undefined}
      isPicked={isTicked}
      onPick={onTick}
      isHeard={isHeard}
      onHear={onHear}
      height={ROW_HEIGHT}
    >
      <Icon name={isTicked ? 'checkbox-marked' : 'checkbox-blank-outline'} size={22} color={isTicked ? palette.kelp : palette.muted} />
    </PickRow>
  )
}
