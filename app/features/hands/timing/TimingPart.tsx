import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { deviceDelays, measureTiming, timing } from '../../../audio/playing/hands/timing'
import { measureLoop } from '../../../audio/recording/loop'
import { Button } from '../../../ui/controls/Button'
import { Toggle } from '../../../ui/controls/Toggle'
import { Text } from '../../../ui/layout/Text'
import { ClockPart } from './ClockPart'

const LOOK_EVERY_MS = 500
const inMs = (ms: number) => `${ms.toFixed(1)} ms`

/** How long a strike is under way, as far as it was measured here, and whether it is always as long. */
export function TimingPart() {
  const isSteady = useStore(handSettings, (state) => state.isSteady)
  const { spreadMs, strikes } = useStore(timing)
  const [device, setDevice] = useState(deviceDelays)
  useEffect(() => {
    const timer = setInterval(() => setDevice(deviceDelays()), LOOK_EVERY_MS)
    const stop = measureTiming()
    return () => {
      clearInterval(timer)
      stop()
    }
  }, [isSteady])
  return (
    <View style={{ gap: 12 }}>
      <Toggle
        label="Steady"
        words="Every strike sounds equally long after the hand, a burst later than it could. Without it each sounds as soon as it can."
        value={isSteady}
        onChange={(wanted) => handSettings.setState({ isSteady: wanted })}
      />
      <View role="status" style={{ gap: 4 }}>
        <Text>
          {spreadMs === undefined
            ? 'Strike a few times: here stands how much they differ.'
            : `The last ${strikes} strikes differ by ${inMs(spreadMs)}, from the hand to the first frame.`}
        </Text>
        {device && device.burstMs > 0 && (
          <Text tone="muted">
            This device asks for {inMs(device.burstMs)} of sound at once, and says that {inMs(device.outputMs)} pass until it is heard.
            {device.mixMs > 0 && ` A limiter in the mix, which looks ahead, adds ${inMs(device.mixMs)}.`}
          </Text>
        )}
      </View>
      <LoopMeasure />
      <ClockPart />
    </View>
  )
}

/** Speaker and microphone together, measured with chirps. */
function LoopMeasure() {
  const [isBusy, setBusy] = useState(false)
  const [words, setWords] = useState<string>()
  const measure = async () => {
    setBusy(true)
    setWords('Five chirps are played. Keep quiet for four seconds.')
    const found = await measureLoop().catch((error: unknown) => `It could not be measured: ${String(error)}. Try again.`)
    setBusy(false)
    setWords(
      typeof found === 'string'
        ? found
        : `From the speaker back through the microphone ${inMs(1000 * found.seconds)} pass; single chirps differ by ${inMs(1000 * found.spreadSeconds)}.`,
    )
  }
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row' }}>
        <Button label="Measure speaker and microphone" busy={isBusy} disabled={isBusy} onPress={() => void measure()} />
      </View>
      <Text role="status" tone="muted">
        {words ?? 'With the speaker on, not headphones: chirps are played and heard again.'}
      </Text>
    </View>
  )
}
