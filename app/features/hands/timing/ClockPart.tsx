import { useStore } from 'zustand'

import { clockSettings, clockState } from '../../../audio/playing/hands/midi-clock'
import { midiState, switchMidi } from '../../../audio/playing/hands/midi-inputs'
import { Button } from '../../../ui/controls/Button'
import { CheckChips } from '../../../ui/controls/CheckChips'
import { Chips } from '../../../ui/controls/Chips'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'

const NOBODY = ''

/** A MIDI clock: whose the groove follows, and who gets its own. */
export function ClockPart() {
  const { status, devices, outputs } = useStore(midiState)
  const { follows, sends } = useStore(clockSettings)
  const { tempoBpm, leads } = useStore(clockState)
  const known = follows && !devices.includes(follows) ? [follows, ...devices] : devices
  const toggle = (output: string) =>
    clockSettings.setState({ sends: sends.includes(output) ? sends.filter((one) => one !== output) : [...sends, output] })
  if (status !== 'on')
    return (
      <Part name="Clock">
        <Text look="small" tone="muted">
          The groove can follow the MIDI clock of another device, and send it its own. MIDI is off.
        </Text>
        <Button label="Use MIDI" onPress={() => void switchMidi(true)} style={{ alignSelf: 'flex-start' }} />
      </Part>
    )
  return (
    <Part name="Clock">
      <Chips
        label="Follow the clock of"
        options={[{ value: NOBODY, text: 'Nobody' }, ...known.map((name) => ({ value: name, text: name }))]}
        value={follows}
        onChoose={(name) => clockSettings.setState({ follows: name })}
      />
      <Text look="small" tone="muted" role="status">
        {clockWords({ follows, isHere: devices.includes(follows), tempoBpm, leads })}
      </Text>
      {outputs.length > 0 || sends.length > 0 ? (
        <CheckChips
          label="Send the groove’s clock to"
          options={[...new Set([...outputs, ...sends])].map((name) => ({ value: name, text: name }))}
          values={sends}
          onToggle={toggle}
        />
      ) : (
        <Text look="small" tone="muted">
          No output is plugged in to which the groove’s clock could be sent.
        </Text>
      )}
    </Part>
  )
}

interface Followed {
  readonly follows: string
  readonly isHere: boolean
  readonly tempoBpm: number | undefined
  readonly leads: boolean
}

/** What comes of the clock that is followed. */
export function clockWords({ follows, isHere, tempoBpm, leads }: Followed): string {
  if (!follows) return 'The groove goes by the tempo of the kit.'
  if (!isHere) return `${follows} is not plugged in. The groove goes by the tempo of the kit until it is.`
  if (tempoBpm === undefined) return `Nothing has come of ${follows} yet. Start it there.`
  const tempo = `${tempoBpm.toFixed(1)} beats a minute`
  return leads ? `The groove goes by ${follows}, at ${tempo}.` : `${follows} stands still; it was at ${tempo}.`
}
