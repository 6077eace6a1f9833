import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { FINGERS, handSettings, KEYS, NOTE_ROW, PRACTICE, setInput, settingsOfInput } from '../../../audio/playing/hands/hand-settings'
import { handsState } from '../../../audio/playing/hands/hands'
import { midiState, switchMidi } from '../../../audio/playing/hands/midi-inputs'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { Text } from '../../../ui/layout/Text'
import { CurvePanel } from './CurvePanel'

/** How MIDI stands, in words that say what to do. */
export function midiWords({ status, devices }: ReturnType<typeof midiState.getState>): string {
  switch (status) {
    case 'off':
      return 'Every device that is plugged in, and other programs of this machine by a MIDI port between them.'
    case 'asking':
      return 'The browser asks whether Heliaster may use MIDI.'
    case 'none':
      return 'This browser has no MIDI. Chrome, Edge and Firefox on a computer or Android have it; fingers, keys and the practice controller play everywhere.'
    case 'refused':
      return 'MIDI was not allowed. Allow it in the browser’s settings for this page, then switch it on again.'
    case 'on':
      return devices.length === 0
        ? 'No input is plugged in. One that you plug in now is heard at once.'
        : `Listening to ${devices.join(', ')}.`
  }
}

/** All that plays the pads, and how strong the strikes of each sound. */
export function InputsPart() {
  const midi = useStore(midiState)
  const heard = useStore(handsState, (state) => state.heard)
  const [chosen, choose] = useState<string>(FINGERS)
  const inputs = [FINGERS, KEYS, NOTE_ROW, PRACTICE, ...midi.devices]
  const input = inputs.includes(chosen) ? chosen : FINGERS
  const isOn = midi.status === 'on' || midi.status === 'asking'
  return (
    <View style={{ gap: 16 }}>
      <Toggle label="Play from MIDI inputs" words={midiWords(midi)} value={isOn} onChange={(wanted) => void switchMidi(wanted)} />
      {(isOn || heard) && (
        <Text look="small" tone="muted" role="status">
          {heard ? `Heard last: ${heard}.` : 'Nothing was heard yet. Strike something.'}
        </Text>
      )}
      <Chips label="Input" isOneLine options={inputs.map((name) => ({ value: name, text: name }))} value={input} onChoose={choose} />
      {input !== FINGERS && input !== KEYS && input !== NOTE_ROW && <DeviceRules input={input} />}
      <CurvePanel key={input} input={input} />
      {input === FINGERS && <FingerRule />}
    </View>
  )
}

const REPEATS = ['1', '2', '3', '4', '6', '8'].map((value) => ({ value, text: value }))

function FingerRule() {
  const fingers = useStore(handSettings, (state) => state.fingers)
  const repeats = useStore(handSettings, (state) => state.repeatsPerBeat)
  return (
    <>
      <Chips
        label="How hard a finger strikes"
        options={[
          { value: 'place', text: 'By its place: the rim is loudest' },
          { value: 'pressure', text: 'By its pressure, if the device tells' },
        ]}
        value={fingers}
        onChoose={(wanted) => handSettings.setState({ fingers: wanted })}
      />
      <Chips
        label="Slid outward from a pad, a strike repeats; in each beat of the kit’s tempo"
        options={REPEATS}
        value={String(repeats)}
        onChoose={(count) => handSettings.setState({ repeatsPerBeat: Number(count) })}
      />
      <Text look="small" tone="muted">
        The ring that the finger is on says how loud the next one is, beyond the rim the loudest. It ends with the finger.
      </Text>
    </>
  )
}

/** Whether an input plays, and on which channel. */
function DeviceRules({ input }: { readonly input: string }) {
  const { isOn, channel } = useStore(handSettings, (state) => settingsOfInput(input, state))
  return (
    <>
      <Toggle label={`${input} plays`} value={isOn} onChange={(wanted) => setInput(input, { isOn: wanted })} />
      <Slider
        label="Channel"
        value={channel}
        min={0}
        max={16}
        step={1}
        unit=""
        format={(value) => (value === 0 ? 'all' : `${value}`)}
        onSlide={(value) => setInput(input, { channel: value })}
        onDone={() => undefined}
      />
    </>
  )
}
