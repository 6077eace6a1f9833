import type { ChannelPlan } from '@heliaster/core/record'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { listMicrophones } from '../../audio/recording/inputs'
import type { InputDevice } from '../../audio/recording/inputs'
import { arm, changeRecorder, recorder } from '../../audio/recording/recorder'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Sheet } from '../../ui/layout/Sheet'
import { Slider } from '../../ui/controls/Slider'
import { Text } from '../../ui/layout/Text'
import { Toggle } from '../../ui/controls/Toggle'
import { LiveWave } from './LiveWave'

const CHANNELS: readonly { value: ChannelPlan; text: string }[] = [
  { value: 'stereo', text: 'Stereo' },
  { value: 'mono', text: 'Mono' },
  { value: 'left', text: 'Left' },
  { value: 'right', text: 'Right' },
]

/** Which input, which of its channels, when a take begins and when it ends. */
export function RecorderSheet({ onClose }: { readonly onClose: () => void }) {
  const { settings, state, label } = useStore(recorder)
  const [devices, setDevices] = useState<readonly InputDevice[]>([])
  useEffect(() => {
    void listMicrophones().then(setDevices)
  }, [state])
  const isPads = settings.input === 'pads'
  const all = [{ value: '', text: 'The browser’s own choice' }, ...devices.map((device) => ({ value: device.id, text: device.label }))]
  return (
    <Sheet title="Recording" isOpen onClose={onClose}>
      <View style={{ gap: 4 }}>
        <LiveWave
          isOpen={state === 'armed'}
          isRecording={false}
          height={60}
          words={state === 'armed' ? undefined : 'The input is not open.'}
        />
        {state === 'closed' && <Button label="Open the input and watch the level" onPress={() => void arm()} />}
        {label && state === 'armed' && (
          <Text look="small" tone="muted">
            {label}
          </Text>
        )}
      </View>
      {settings.input === 'microphone' && (
        <Chips
          label="Microphone"
          options={all}
          value={devices.some((device) => device.id === settings.deviceId) ? settings.deviceId : ''}
          onChoose={(deviceId) => changeRecorder({ deviceId: deviceId || undefined })}
        />
      )}
      {!isPads && (
        <>
          <Chips label="Channels" options={CHANNELS} value={settings.channels} onChoose={(channels) => changeRecorder({ channels })} />
          <Text look="small" tone="muted">
            Stereo keeps both channels; if they never differ, one is kept.
          </Text>
          <Toggle
            label="Listen before recording"
            words="Shows the level, and keeps the second before the button is pressed."
            value={settings.listens}
            onChange={(listens) => changeRecorder({ listens })}
          />
          <Toggle
            label="Wait for sound"
            words="Recording begins with the first sound above the threshold."
            value={settings.waitsForSound}
            onChange={(waitsForSound) => changeRecorder({ waitsForSound })}
          />
          {settings.waitsForSound && (
            <>
              <Slider
                label="Threshold"
                value={settings.thresholdDb}
                min={-60}
                max={-6}
                step={1}
                unit="dB"
                onSlide={(thresholdDb) => changeRecorder({ thresholdDb })}
                onDone={() => undefined}
              />
              <Slider
                label="Stop after silence (0 for never)"
                value={settings.silenceSeconds}
                min={0}
                max={30}
                step={0.5}
                unit="s"
                onSlide={(silenceSeconds) => changeRecorder({ silenceSeconds })}
                onDone={() => undefined}
              />
            </>
          )}
        </>
      )}
    </Sheet>
  )
}
