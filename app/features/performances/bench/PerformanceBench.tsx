import type { EventId, Kit, Performance } from '@heliaster/core/kit'
import { withoutStrikes } from '@heliaster/core/performance'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'

import { Chip } from '../../../ui/controls/Chip'
import { Chips } from '../../../ui/controls/Chips'
import { Button, IconButton } from '../../../ui/controls/Button'
import { NameField } from '../../../ui/controls/NameField'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { deletePerformance } from '../delete-performance'
import { useResound } from '../use-resound'
import { heardStrikes, lengthWords, secondsOf, strikesWords, truthWords } from '../words'
import { GridPart } from './GridPart'
import { PadsPart } from './PadsPart'
import { PlayedStrings } from './PlayedStrings'
import { SoundsOnChoice, useSoundsOn } from './SoundsOnChoice'
import { StrikePart } from './StrikePart'
import { TakeOutPart } from './TakeOutPart'
import { FilmSteps } from './picture/FilmSteps'
import { FilmView } from './picture/FilmView'
import { PicturePart } from './picture/PicturePart'
import { usePicture } from './picture/use-picture'
import { usePerformanceEdits } from './use-performance-edits'

interface Props {
  readonly kit: Kit
  readonly performance: Performance
  /** Back to the list, where that is not seen beside it. */
  readonly onLeave?: () => void
}

const PARTS = [
  { value: 'strike', text: 'Strikes' },
  { value: 'grid', text: 'Grid' },
  { value: 'pads', text: 'Pads' },
  { value: 'picture', text: 'Picture' },
  { value: 'out', text: 'Take out' },
] as const

/** One performance: seen, heard, changed, taken away. */
export function PerformanceBench({ kit, performance, onLeave }: Props) {
  const isWide = useIsWide()
  const [chosen, setChosen] = useState<ReadonlySet<EventId>>(new Set())
  const [part, setPart] = useState<(typeof PARTS)[number]['value']>('strike')
  const [isLooping, setLooping] = useState(false)
  const { edit, slide, done } = usePerformanceEdits(performance.id)
  const sounds = useSoundsOn(kit)
  const { heard, busy, hear, stop } = useResound()
  const isHeard = heard === performance.id
  const pictured = usePicture(performance, { edit })
  /** On a phone the film and the pads alone are seen while a pass is played. */
  const isBare = pictured.isPassing && !isWide
  const hasFilm = part === 'picture' && pictured.film !== undefined
  const wanted = { performance, on: sounds.on }
  const play = () => void hear(performance.id, wanted, isLooping ? { loopSeconds: secondsOf(performance) } : {})
  const remove = () => {
    edit(withoutStrikes(performance, chosen))
    setChosen(new Set())
  }
  const shared = { kit, performance, edit, slide, done }
  const shown = {
    strike: <StrikePart {...shared} chosen={chosen} onRemove={remove} />,
    grid: <GridPart {...shared} />,
    pads: <PadsPart {...shared} />,
    picture: <PicturePart {...shared} pictured={pictured} />,
    out: <TakeOutPart kit={kit} wanted={wanted} chosen={chosen} />,
  }[part]
  return (
    <ScrollView contentContainerStyle={{ padding: isWide ? 24 : 16, gap: 14 }}>
      {!isBare && (
        <>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
            {onLeave && <IconButton name="arrow-left" label="All performances" onPress={onLeave} />}
            <View style={{ flex: 1, minWidth: 0 }}>
              <NameField label="Name of the performance" value={performance.name} onName={(name) => edit({ name })} />
            </View>
            <IconButton
              name="trash-can-outline"
              label="Delete this performance"
              onPress={() => void deletePerformance(performance, onLeave)}
            />
          </View>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, flexWrap: 'wrap' }}>
            <Button
              label={isHeard ? 'Stop' : 'Hear it'}
              kind={isHeard ? 'coral' : 'main'}
              icon={isHeard ? 'stop' : 'play'}
              busy={busy === performance.id}
              onPress={isHeard ? stop : play}
              style={{ minWidth: 128 }}
            />
            <Chip role="checkbox" text="Go round" isChosen={isLooping} onPress={() => setLooping(!isLooping)} />
            <Text look="small" tone="muted" style={{ flex: 1, minWidth: 120 }}>
              {`${strikesWords(heardStrikes(performance))} in ${lengthWords(secondsOf(performance))}`}
            </Text>
          </View>
          <SoundsOnChoice kit={kit} performance={performance} sounds={sounds} />
        </>
      )}
      <View style={{ flexDirection: isWide ? 'row' : 'column', gap: 16 }}>
        {hasFilm && (
          <View style={[{ gap: 10 }, isWide && { width: '38%', maxWidth: 420 }]}>
            <FilmView url={pictured.film!.url} performance={performance} {...pictured} />
            {!pictured.isPassing && <FilmSteps performance={performance} pictured={pictured} />}
          </View>
        )}
        {!isBare && (
          <View style={isWide ? { flex: 1, minWidth: 0 } : undefined}>
            <PlayedStrings
              {...{ kit, performance, chosen }}
              onChoose={setChosen}
              onFields={slide}
              onDone={done}
              onRemove={remove}
              isHeardNow={isHeard}
              marks={pictured.marks}
            />
          </View>
        )}
      </View>
      {!isBare && (
        <>
          <Text look="small" tone="muted">
            {sounds.on.as === 'played' ? truthWords(performance) : 'Sounds with the clips and settings of now.'}
          </Text>
          <Chips label="What to do" hideLabel isOneLine options={PARTS} value={part} onChoose={setPart} />
        </>
      )}
      {shown}
    </ScrollView>
  )
}
