import { useStore } from 'zustand'

import { midiState, switchMidi } from '../../audio/playing/midi-inputs'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { Toggle } from '../../ui/controls/Toggle'

/** How MIDI stands, in words that say what to do. */
export function midiWords({ status, devices }: ReturnType<typeof midiState.getState>): string {
  switch (status) {
    case 'off':
      return 'Notes strike the pads that answer them; wheel, pedal, bend and pressure move what responds to them.'
    case 'asking':
      return 'The browser asks whether Heliaster may use MIDI.'
    case 'none':
      return 'This browser has no MIDI. Chrome, Edge and Firefox on a computer or Android have it; keys and touch play everywhere.'
    case 'refused':
      return 'MIDI was not allowed. Allow it in the browser’s settings for this page, then switch it on again.'
    case 'on':
      return devices.length === 0
        ? 'No input is plugged in. One that you plug in now is heard at once.'
        : `Listening to ${devices.join(', ')}.`
  }
}

/** What plays the pads beside fingers: MIDI inputs, and the keys of the computer. */
export function InputsSheet({ onClose }: { readonly onClose: () => void }) {
  const state = useStore(midiState)
  const isOn = state.status === 'on' || state.status === 'asking'
  return (
    <Sheet title="Keys and MIDI" isOpen onClose={onClose}>
      <Toggle label="Play from MIDI inputs" words={midiWords(state)} value={isOn} onChange={(wanted) => void switchMidi(wanted)} />
      {state.status === 'on' && (
        <Text look="small" tone="muted" role="status">
          {state.heard ? `Heard last: ${state.heard}.` : 'Nothing was heard yet. Strike something.'}
        </Text>
      )}
      <Text look="small" tone="muted">
        The computer’s keys play as well: the bottom row from Z strikes the first pads, then the rows above. Shift strikes hard, Alt softly.
      </Text>
    </Sheet>
  )
}
