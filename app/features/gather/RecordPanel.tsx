import type { Source } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { Pressable, View } from 'react-native'

import { preparePractice } from '../../audio/practice-microphone'
import type { InputKind } from '../../audio/recorder'
import { Chips } from '../../ui/Chips'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { LiveWave } from './LiveWave'
import { useRecorder } from './use-recorder'

const INPUTS = [
  { value: 'microphone', text: 'Microphone' },
  { value: 'practice', text: 'Practice microphone' },
] as const
const KEY = 'heliaster-input'

/** The record button, what comes in, and how loud. */
export function RecordPanel({ onTaken }: { readonly onTaken: (source: Source) => void }) {
  const palette = usePalette()
  const { state, problem, moment, start, stop } = useRecorder(onTaken)
  const [input, setInput] = useState<InputKind>(() => (localStorage.getItem(KEY) === 'practice' ? 'practice' : 'microphone'))
  useEffect(() => {
    localStorage.setItem(KEY, input)
    if (input === 'practice') void preparePractice()
  }, [input])
  const isRecording = state === 'recording'
  return (
    <View style={{ padding: 16, gap: 12, alignItems: 'center' }}>
      <LiveWave moment={moment} running={isRecording} />
      <Pressable
        role="button"
        aria-label={isRecording ? 'Stop and cut' : 'Record'}
        aria-busy={state === 'starting' || state === 'keeping'}
        onPress={() => void (isRecording ? stop() : start(input))}
        disabled={state === 'starting' || state === 'keeping'}
        style={{
          width: 104,
          height: 104,
          borderRadius: 52,
          borderWidth: 2,
          borderColor: palette.coral,
          alignItems: 'center',
          justifyContent: 'center',
          backgroundColor: palette.surface,
        }}
      >
        <View
          style={{
            width: isRecording ? 36 : 78,
            height: isRecording ? 36 : 78,
            borderRadius: isRecording ? 6 : 39,
            backgroundColor: palette.coral,
            opacity: state === 'idle' || isRecording ? 1 : 0.4,
          }}
        />
      </Pressable>
      <Text look="strong">
        {{ idle: 'Record', starting: 'Opening the input', recording: 'Stop and cut', keeping: 'Keeping the recording' }[state]}
      </Text>
      {state === 'idle' && <Chips label="Input" hideLabel options={INPUTS} value={input} onChoose={setInput} />}
      {problem && (
        <View role="alert" style={{ backgroundColor: palette.coralWash, borderRadius: 8, padding: 12, maxWidth: 460 }}>
          <Text look="small">{problem}</Text>
        </View>
      )}
    </View>
  )
}
