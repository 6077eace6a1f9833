import { View } from 'react-native'
import { useStore } from 'zustand'

import { backingState, chooseBacking, removeBacking, setBacking, setBackingLevel, turnBacking } from '../../../audio/playing/backing'
import type { Backing } from '../../../audio/playing/backing'
import { editKit } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { chooseFiles } from '../../../ui/device/choose-files'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

interface Props {
  readonly hands: BeadHands
  readonly onClose: () => void
}

/** A song or a bass line of one's own beside the groove, lined up to its tempo and its first beat. */
export function BackingSheet({ hands, onClose }: Props) {
  const { backing, isReading, problem } = useStore(backingState)
  const open = async () => {
    const [file] = await chooseFiles('audio/*', false)
    if (file) await chooseBacking(file)
  }
  return (
    <Sheet title="A song beside it" isOpen onClose={onClose}>
      <Text look="small" tone="muted">
        A song or a bass line of your own plays in time with the groove. It stays in this page, is no part of the kit and is never shipped.
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label={backing ? 'Another file' : 'Choose a file'} icon="folder-open-outline" kind={backing ? 'plain' : 'main'} busy={isReading} onPress={() => void open()} />
        {backing && <Button label="Take it away" icon="close" onPress={removeBacking} />}
      </View>
      {problem && <Text tone="coral">{problem}</Text>}
      {backing && <Song hands={hands} backing={backing} />}
    </Sheet>
  )
} // prettier-ignore

function Song({ hands: { kit }, backing }: { readonly hands: BeadHands; readonly backing: Backing }) {
  const { isOn, levelDb } = useStore(backingState)
  const beat = 60 / backing.tempoBpm
  const isOff = Math.abs(backing.tempoBpm - kit.tempoBpm) > 0.005
  return (
    <>
      <Text look="strong" role="status">
        {backing.isFound ? `“${backing.name}” goes at ${backing.tempoBpm} beats a minute.` : `No tempo was found in “${backing.name}”: type it, and where its first beat is.`}
      </Text>
      <Toggle label="Play it beside the groove" value={isOn} onChange={turnBacking} />
      <Slider label="Its tempo" value={backing.tempoBpm} min={20} max={400} step={0.01} power={1.5} unit="BPM" onSlide={(tempoBpm) => setBacking({ tempoBpm })} onDone={() => undefined} />
      <Slider label="Its first beat" value={backing.firstSeconds} min={-30} max={Math.max(30, backing.seconds)} step={0.001} unit="s" onSlide={(firstSeconds) => setBacking({ firstSeconds })} onDone={() => undefined} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="A beat earlier" onPress={() => setBacking({ firstSeconds: backing.firstSeconds - beat })} />
        <Button label="A beat later" onPress={() => setBacking({ firstSeconds: backing.firstSeconds + beat })} />
        <Button label="10 ms earlier" onPress={() => setBacking({ firstSeconds: backing.firstSeconds - 0.01 })} />
        <Button label="10 ms later" onPress={() => setBacking({ firstSeconds: backing.firstSeconds + 0.01 })} />
      </View>
      {isOff && (
        <>
          <Text look="small" tone="muted">
            {`The groove goes at ${kit.tempoBpm}: to stay with it the song plays ${paceWords(kit.tempoBpm / backing.tempoBpm)}.`}
          </Text>
          <Button label={`The kit takes ${backing.tempoBpm} BPM`} onPress={() => editKit(kit.id, [{ type: 'setKit', fields: { tempoBpm: backing.tempoBpm } }])} style={{ alignSelf: 'flex-start' }} />
        </>
      )}
      <Slider label="Its level" value={levelDb} min={-40} max={6} step={0.5} unit="dB" neutral={0} onSlide={setBackingLevel} onDone={() => undefined} />
    </>
  )
} // prettier-ignore

/** `4 % faster, and higher`. */
function paceWords(rate: number): string {
  const percent = Math.abs(100 * (rate - 1))
  const much = percent < 1 ? percent.toFixed(1) : percent.toFixed(0)
  return rate > 1 ? `${much} % faster, and higher` : `${much} % slower, and lower`
}
