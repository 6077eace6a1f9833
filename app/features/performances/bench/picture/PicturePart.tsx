import { pictureRates } from '@heliaster/core/kit'
import type { Kit, Performance, PictureRate } from '@heliaster/core/kit'
import { picturesOf, startTimecodeOf, timecodeOf } from '@heliaster/core/performance'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { WordField } from '../../../../ui/controls/WordField'
import { notify } from '../../../../ui/layout/notices'
import { Text } from '../../../../ui/layout/Text'
import type { PerformanceEdits } from '../use-performance-edits'
import { FilmLines } from './FilmLines'
import { FilmMarks } from './FilmMarks'
import { NewPass } from './NewPass'
import type { Pictured } from './use-picture'

interface Props extends PerformanceEdits {
  readonly kit: Kit
  readonly performance: Performance
  readonly pictured: Pictured
}

const RATES = pictureRates.map((rate) => ({ value: rate, text: rate }))

/** A film of one's own beside the performance: marked, and played to again. */
export function PicturePart({ kit, performance, pictured, edit }: Props) {
  const { film, picture, choose, isPassing } = pictured
  if (!film)
    return (
      <View style={{ gap: 12, maxWidth: 620 }}>
        <Text look="small" tone="muted">
          A film of yours runs with the performance, and what you take out says when it begins. The film stays on this device: it is never
          sent anywhere, and is chosen again when the page is loaded anew.
        </Text>
        <Button label="Choose a film" onPress={() => void choose()} style={{ alignSelf: 'flex-start' }} />
        {performance.picture && (
          <Text look="small">{`Heard from ${startTimecodeOf(performance)} of ${picture.film ? `“${picture.film}”` : 'its film'}.`}</Text>
        )}
      </View>
    )
  return (
    <View style={{ gap: 12, maxWidth: 720 }}>
      <NewPass kit={kit} performance={performance} pictured={pictured} edit={edit} />
      {!isPassing && (
        <>
          <FilmLines performance={performance} pictured={pictured} />
          <FilmMarks pictured={pictured} />
          <FilmCounting pictured={pictured} />
        </>
      )}
    </View>
  )
}

/** How the film counts its pictures, and which it is. */
function FilmCounting({ pictured }: Pick<Props, 'pictured'>) {
  const { picture, set, choose } = pictured
  const { rate, startPictures } = picture
  return (
    <>
      <Chips
        label="Pictures a second"
        isOneLine
        options={RATES}
        value={rate}
        onChoose={(next) => set({ rate: next, startPictures: anew(rate, next, startPictures) })}
      />
      <StartField
        key={`${rate} ${startPictures}`}
        rate={rate}
        startPictures={startPictures}
        onStart={(pictures) => set({ startPictures: pictures })}
      />
      <Button label="Another film" onPress={() => void choose()} style={{ alignSelf: 'flex-start' }} />
    </>
  )
}

/** The same timecode, as near as it can be, counted at another rate. */
function anew(from: PictureRate, to: PictureRate, pictures: number): number {
  const code = timecodeOf(from, pictures).replace(';', ':')
  return picturesOf(to, code) ?? picturesOf(to, code.replace(/\d\d$/, '00')) ?? 0
}

interface StartProps {
  readonly rate: PictureRate
  readonly startPictures: number
  readonly onStart: (pictures: number) => void
}

/** The timecode of the film's first picture, typed. */
function StartField({ rate, startPictures, onStart }: StartProps) {
  const [typed, setTyped] = useState(() => timecodeOf(rate, startPictures))
  const take = () => {
    const pictures = picturesOf(rate, typed)
    if (pictures !== undefined) return onStart(pictures)
    notify(`“${typed}” is no timecode at ${rate} pictures a second: hours:minutes:seconds:pictures, as 01:00:00:00.`)
    setTyped(timecodeOf(rate, startPictures))
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 8 }}>
      <View style={{ width: 200 }}>
        <WordField label="The film starts at" value={typed} onChange={setTyped} onEnter={take} />
      </View>
      <Button label="Set" disabled={typed === timecodeOf(rate, startPictures)} onPress={take} />
    </View>
  )
}
