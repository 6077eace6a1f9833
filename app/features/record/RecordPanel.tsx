import type { Source } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { changeRecorder, startTake, stopTake } from '../../audio/recording/recorder'
import type { RecorderState } from '../../audio/recording/recorder'
import { IconButton } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { LiveWave } from './LiveWave'
import { RecordButton } from './RecordButton'
import { RecorderSheet } from './RecorderSheet'
import { useRecorder } from '../../audio/recording/use-recorder'

const INPUTS = [
  { value: 'microphone', text: 'Microphone' },
  { value: 'practice', text: 'Practice microphone' },
  { value: 'pads', text: 'The pads' },
] as const

const WORDS: Record<RecorderState, string> = {
  closed: 'Record',
  opening: 'Opening the input',
  armed: 'Record',
  waiting: 'Waiting for sound',
  recording: 'Stop and cut',
  keeping: 'Keeping the recording',
}

interface Props {
  readonly onTaken: (source: Source) => void
  readonly isSlim: boolean
  readonly onSlim: (isSlim: boolean) => void
}

/** The record button, what comes in, and how loud. Put away, it is a line with a small button. */
export function RecordPanel({ onTaken, isSlim, onSlim }: Props) {
  const { state, problem, settings, onDisk } = useRecorder()
  const [settingUp, setSettingUp] = useState(false)
  const isRunning = state === 'recording' || state === 'waiting'
  const button = (size: number) => (
    <RecordButton
      state={state}
      size={size}
      stopLabel="Stop and cut"
      onStart={() => void startTake(onTaken)}
      onStop={() => void stopTake()}
    />
  )
  if (isSlim && !isRunning)
    return (
      <View style={{ flexDirection: 'row', alignItems: 'center', paddingLeft: 16, paddingRight: 6, paddingVertical: 6, gap: 12 }}>
        {button(48)}
        <Text look="strong" style={{ flex: 1 }}>
          {WORDS[state]}
        </Text>
        <IconButton name="chevron-down" label="Show the recorder" onPress={() => onSlim(false)} />
      </View>
    )
  return (
    <View style={{ paddingHorizontal: 16, paddingTop: 8, paddingBottom: 12, gap: 8, alignItems: 'center' }}>
      <LiveWave isOpen={state === 'armed' || isRunning} isRecording={state === 'recording'} words={wordsOf(state, settings.input)} />
      <View style={{ flexDirection: 'row', alignItems: 'center', alignSelf: 'stretch', justifyContent: 'center' }}>
        <View style={{ flex: 1, alignItems: 'center' }}>
          <IconButton name="tune-variant" label="Settings of recording" onPress={() => setSettingUp(true)} disabled={isRunning} />
        </View>
        {button(96)}
        <View style={{ flex: 1, alignItems: 'center' }}>
          <IconButton name="chevron-up" label="Put the recorder away" onPress={() => onSlim(true)} disabled={isRunning} />
        </View>
      </View>
      <Text look="strong">{WORDS[state]}</Text>
      {!isRunning && state !== 'keeping' && (
        <Chips label="Input" hideLabel options={INPUTS} value={settings.input} onChoose={(input) => changeRecorder({ input })} />
      )}
      {!onDisk && (
        <Problem words="This browser cannot write to the disk while it records. Keep the page open until the recording is stopped." />
      )}
      {problem && <Problem words={problem} />}
      {settingUp && <RecorderSheet onClose={() => setSettingUp(false)} />}
    </View>
  )
}

/** What stands in place of advice about the level. */
function wordsOf(state: RecorderState, input: string): string | undefined {
  if (state === 'closed' || state === 'opening' || state === 'keeping')
    return input === 'microphone' ? 'The level is shown once the microphone is open.' : ' '
  if (state === 'waiting') return 'Recording begins with the first sound, and keeps the second before it.'
  return input === 'pads' ? 'What the pads play is recorded, sample for sample, before the limiter.' : undefined
}

function Problem({ words }: { readonly words: string }) {
  const palette = usePalette()
  return (
    <View role="alert" style={{ backgroundColor: palette.coralWash, borderRadius: 8, padding: 12, maxWidth: 460 }}>
      <Text look="small">{words}</Text>
    </View>
  )
}
