import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { device, saveState } from '../documents'
import type { RefusedEdits } from '../sync/local-db'
import type { SaveState } from '../sync/save-state'
import { Button } from '../ui/controls/Button'
import { NameField } from '../ui/controls/NameField'
import { Sheet } from '../ui/layout/Sheet'
import { Text } from '../ui/layout/Text'
import { applyAgain, describeEdits, nameOf, putAway, readRefused, saveAllAsFile, saveAsFile } from './kept-aside'

interface Props {
  readonly isOpen: boolean
  readonly onClose: () => void
  /** The kit whose name was pressed: it is changed here. */
  readonly kit?: { readonly name: string; readonly onName: (name: string) => void }
}

/** All of how saving stands: what is where, what does not go on and what can be done about it. */
export function SaveSheet({ isOpen, onClose, kit }: Props) {
  const state = useStore(saveState)
  return (
    <Sheet title="How saving stands" isOpen={isOpen} onClose={onClose}>
      {kit && <NameField label="Name of the kit" value={kit.name} onName={kit.onName} />}
      {state.unkept > 0 && <NotKept {...state} />}
      <Where {...state} />
      {state.state === 'away' && <Button label="Try the server again" icon="refresh" onPress={device.wake} />}
      <Apart />
      {isOpen && <Refused count={state.refused} />}
      {state.lasting === false && (
        <Text look="small" tone="muted">
          This browser has not promised to keep what it holds: when its disk is full it may clear it, and a private window forgets all of it
          when it closes. What is saved on the server stays.
        </Text>
      )}
    </Sheet>
  )
}

function Where({ unkept, waiting, state, why, blocked }: SaveState) {
  const kept = Math.max(0, waiting - unkept)
  const sentences = [
    blocked && 'Another tab with an older Heliaster holds what this device keeps. Close it, and this one goes on by itself.',
    waiting === 0 && state === 'saved' && unkept === 0 && 'Everything is saved on the server.',
    kept > 0 && `${kept === 1 ? '1 thing is' : `${kept} things are`} kept on this device and not on the server yet.`,
    state === 'away' && (why ?? 'The server cannot be reached. It is tried again by itself every few seconds.'),
  ].filter((sentence): sentence is string => typeof sentence === 'string')
  return (
    <>
      {sentences.map((sentence) => (
        <Text key={sentence}>{sentence}</Text>
      ))}
    </>
  )
}

function NotKept({ unkept, failure }: SaveState) {
  const isFull = failure?.includes('Quota') ?? false
  const them = unkept === 1 ? 'it' : 'them'
  return (
    <View role="alert" style={{ gap: 10 }}>
      <Text look="strong">{`${unkept} ${unkept === 1 ? 'change is' : 'changes are'} in this page alone.`}</Text>
      <Text>
        {isFull
          ? `This device has no room for ${them}. Free some space, or delete sounds you do not need; it is tried again by itself. Until then, keep this page open, or save what is open as a file.`
          : `This browser could not write ${them} (${failure}). It is tried again by itself. Until then, keep this page open, or save what is open as a file.`}
      </Text>
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button label="Try again" icon="refresh" style={{ flex: 1 }} onPress={() => void device.shelf.tryAgain()} />
        <Button label="Save as a file" icon="download" kind="main" style={{ flex: 1 }} onPress={saveAllAsFile} />
      </View>
    </View>
  )
}

/** Documents that cannot be read: as they are, they can be taken away. */
function Apart() {
  const apart = useStore(device.kits.store, (state) => state.setApart)
  return (
    <>
      {Object.values(apart).map((one) => (
        <View key={one.id} style={{ gap: 6 }}>
          <Text look="strong">A kit is set apart because it cannot be read.</Text>
          <Text look="small">{one.reason}</Text>
          <Button label="Save it as a file" icon="download" onPress={() => saveAsFile(one)} />
        </View>
      ))}
    </>
  )
}

function Refused({ count }: { readonly count: number }) {
  const [list, setList] = useState<readonly RefusedEdits[]>([])
  useEffect(() => {
    let gone = false
    void readRefused().then((refused) => !gone && setList(refused))
    return () => void (gone = true)
  }, [count])
  if (list.length === 0) return null
  return (
    <View style={{ gap: 14 }}>
      <Text look="strong">Changes kept aside</Text>
      <Text look="small">These changes of yours did not fit what someone else had made meanwhile, and were not made.</Text>
      {list.map((one) => (
        <View key={one.place} style={{ gap: 6 }}>
          <Text>{`${nameOf(one)}: ${one.reason}`}</Text>
          <Text look="figures" tone="muted">
            {describeEdits(one)}
          </Text>
          <View style={{ flexDirection: 'row', gap: 10 }}>
            <Button label="Make them again" style={{ flex: 1 }} onPress={() => void applyAgain(one)} />
            <Button label="Put away" style={{ flex: 1 }} onPress={() => void putAway(one)} />
          </View>
        </View>
      ))}
    </View>
  )
}
