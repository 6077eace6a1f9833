import type { Pace } from '@heliaster/core/groove/rhythm'
import { View } from 'react-native'

import { DrawnToSteps } from '../../../kit-view/DrawnToSteps'
import { Button } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly pace: Pace
  /** No pulse was found: it is the tempo of the kit from the first strike on. */
  readonly isGuess: boolean
  readonly onPace: (pace: Pace) => void
  readonly share: number
  readonly onShare: (share: number) => void
  readonly ownHits: boolean
  readonly onOwnHits: (own: boolean) => void
  readonly kitBpm: number
  readonly takesTempo: boolean
  readonly onTakesTempo: (takes: boolean) => void
}

/** How the rhythm goes that was played: its tempo, its one, and how much of the hand is kept. */
export function RhythmPart(props: Props) {
  const { pace, isGuess, onPace, share, onShare, ownHits, onOwnHits, kitBpm, takesTempo, onTakesTempo } = props
  const beat = 60 / pace.tempoBpm
  const shift = (beats: number) => onPace({ ...pace, firstSeconds: pace.firstSeconds + beats * beat })
  const scale = (factor: number) => onPace({ ...pace, tempoBpm: Math.round(pace.tempoBpm * factor * 100) / 100, stepsPerBeat: Math.max(1, Math.round(pace.stepsPerBeat / factor)) })
  return (
    <View style={{ gap: 10 }}>
      <Text look="strong" role="status">
        {isGuess ? 'No even pulse was found: type the tempo, or keep what was played as it was.' : wordsOf(pace)}
      </Text>
      <Slider
        label="Tempo"
        value={pace.tempoBpm}
        min={20}
        max={400}
        step={0.1}
        power={1.5}
        unit="BPM"
        onSlide={(tempoBpm) => onPace({ ...pace, tempoBpm })}
        onDone={() => undefined}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Half as fast" disabled={pace.tempoBpm < 40} onPress={() => scale(0.5)} />
        <Button label="Twice as fast" disabled={pace.tempoBpm > 200} onPress={() => scale(2)} />
        <Button label="The one a beat earlier" onPress={() => shift(-1)} />
        <Button label="A beat later" onPress={() => shift(1)} />
      </View>
      <DrawnToSteps share={share} onShare={onShare} />
      <Toggle
        label="Each bead plays its own hit"
        words="What was played is heard again as it was. Otherwise any take of the thing answers, another each time."
        value={ownHits}
        onChange={onOwnHits}
      />
      {Math.abs(pace.tempoBpm - kitBpm) > 0.005 && (
        <Toggle
          label={`The kit takes this tempo, ${pace.tempoBpm} BPM`}
          words={`Otherwise it keeps its ${kitBpm} BPM, and the groove is played at that.`}
          value={takesTempo}
          onChange={onTakesTempo}
        />
      )}
    </View>
  )
} // prettier-ignore

function wordsOf({ tempoBpm, stepsPerBeat, swing }: Pace): string {
  const feel = stepsPerBeat === 3 || stepsPerBeat === 6 ? ', in triplets' : swing > 0.5 ? `, swung ${(100 * swing).toFixed(0)} %` : ''
  return `It goes at ${tempoBpm} beats a minute${feel}.`
}
