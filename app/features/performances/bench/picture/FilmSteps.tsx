import type { Performance } from '@heliaster/core/kit'
import { filmSecondsOf, pictureAt, secondsOfPictures, startTimecodeOf, timecodeOf } from '@heliaster/core/performance'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { FILM, hearing } from '../../../../audio/performances/hear'
import { Button, IconButton } from '../../../../ui/controls/Button'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import type { Pictured } from './use-picture'

interface Props {
  readonly performance: Performance
  readonly pictured: Pictured
}

/** The picture that is seen: where the film stands, or has come to while it runs. */
function usePictureSeen(performance: Performance, { seconds, picture }: Pictured): number {
  const from = filmSecondsOf(performance) ?? 0
  return useStore(hearing, (heard) => {
    const at = heard.name === FILM ? heard.seconds : heard.name === performance.id ? from + heard.seconds : seconds
    return pictureAt(picture.rate, Math.max(0, at))
  })
}

/** Where the film stands: gone to by hand, then picture by picture; and where in it the performance begins. */
export function FilmSteps({ performance, pictured }: Props) {
  const { seconds, onSeconds, lengthSeconds, picture, set } = pictured
  const { fromFrame, sampleRateHz } = performance
  const { rate, startPictures } = picture
  const seen = usePictureSeen(performance, pictured)
  const isStill = useStore(hearing, ({ name }) => name === undefined)
  const onPicture = (place: number) => onSeconds(Math.max(0, secondsOfPictures(rate, place)))
  const step = (by: number) => onPicture(pictureAt(rate, seconds) + by)
  const last = pictureAt(rate, lengthSeconds)
  return (
    <View style={{ gap: 8 }}>
      {lengthSeconds > 0 && isStill && (
        <Slider
          label="Place in the film"
          value={secondsOfPictures(rate, Math.min(last, seen))}
          min={0}
          max={secondsOfPictures(rate, Math.max(1, last))}
          step={secondsOfPictures(rate, 1)}
          format={(at) => at.toFixed(2)}
          unit="s"
          onSlide={(at) => onPicture(pictureAt(rate, at + secondsOfPictures(rate, 0.5)))}
          onDone={() => undefined}
        />
      )}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, flexWrap: 'wrap' }}>
        <IconButton name="chevron-left" label="A picture back" onPress={() => step(-1)} />
        <Text look="figures" role="timer" aria-label="Timecode" style={{ fontSize: 20 }}>
          {timecodeOf(rate, startPictures + seen)}
        </Text>
        <IconButton name="chevron-right" label="A picture on" onPress={() => step(1)} />
        <Button label="It begins on this picture" onPress={() => set({ offsetSeconds: seconds - fromFrame / sampleRateHz })} />
      </View>
      <Text look="small" tone="muted">
        {performance.picture ? `What is heard begins at ${startTimecodeOf(performance)}.` : 'Go to the picture on which it begins.'}
      </Text>
    </View>
  )
}
