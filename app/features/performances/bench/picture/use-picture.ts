import type { Performance, PictureRate } from '@heliaster/core/kit'
import { filmSecondsOf, linesOf, marksOf } from '@heliaster/core/performance'
import type { FilmMark } from '@heliaster/core/performance'
import { useMemo, useState } from 'react'
import { useStore } from 'zustand'

import { performances } from '../../../../documents'
import { chooseFiles } from '../../../../ui/device/choose-files'
import type { PerformanceEdits } from '../use-performance-edits'
import { films, putFilm } from './films'

type PictureOf = NonNullable<Performance['picture']>

const USUAL_RATE: PictureRate = '25'

export interface Pictured {
  /** The film, once it was chosen on this device. */
  readonly film?: { readonly name: string; readonly url: string }
  /** Where the film stands while it does not run, s. */
  readonly seconds: number
  readonly onSeconds: (seconds: number) => void
  /** How long the film is, s; 0 until it is known. */
  readonly lengthSeconds: number
  readonly onLength: (seconds: number) => void
  /** How the performance lies on it; as it would by itself where nobody has laid it yet. */
  readonly picture: PictureOf
  readonly set: (fields: Partial<PictureOf>) => void
  readonly choose: () => Promise<void>
  /** All that was played to the same film, this one among them; and the marks of the film. */
  readonly lines: readonly Performance[]
  readonly marks: readonly FilmMark[]
  /** Whether a pass is played to it now. */
  readonly isPassing: boolean
  readonly setPassing: (isPassing: boolean) => void
}

/** The film that a performance runs with, and all that lies against it. */
export function usePicture(performance: Performance, { edit }: Pick<PerformanceEdits, 'edit'>): Pictured {
  const [isPassing, setPassing] = useState(false)
  const [seconds, setSeconds] = useState(() => filmSecondsOf(performance) ?? 0)
  const [lengthSeconds, setLength] = useState(0)
  const entries = useStore(performances.store, (state) => state.entries)
  const { fromFrame, sampleRateHz } = performance
  const picture = performance.picture ?? { rate: USUAL_RATE, startPictures: 0, offsetSeconds: -fromFrame / sampleRateHz }
  const film = useStore(films, (chosen) => (picture.film === undefined ? undefined : chosen[picture.film]))
  const lines = useMemo(() => {
    const others = Object.values(entries).flatMap(({ doc }) => (doc.id === performance.id ? [] : [doc]))
    return picture.film === undefined ? [] : linesOf([...others, performance], picture.film)
  }, [entries, performance, picture.film])
  const set = (fields: Partial<PictureOf>) => {
    edit({ picture: { ...picture, ...fields } })
    const { rate = picture.rate, startPictures = picture.startPictures } = fields
    if (rate === picture.rate && startPictures === picture.startPictures) return
    // How a film counts is the same for all its lines.
    for (const { id, picture: other } of lines)
      if (other && id !== performance.id)
        performances.edit(id, [{ type: 'setPerformance', fields: { picture: { ...other, rate, startPictures } } }])
  }
  const choose = async () => {
    const [file] = await chooseFiles('video/*', false)
    if (!file) return
    const { name } = putFilm(file)
    setLength(0)
    if (picture.film === name) return
    const [known] = linesOf(Object.values(entries).map(({ doc }) => doc), name) // prettier-ignore
    const counting = known?.picture && { rate: known.picture.rate, startPictures: known.picture.startPictures }
    edit({ picture: { ...picture, ...counting, film: name.slice(0, 255) } })
  }
  return {
    ...(film ? { film } : {}),
    seconds,
    onSeconds: setSeconds,
    lengthSeconds,
    onLength: setLength,
    picture,
    set,
    choose,
    lines,
    marks: marksOf(lines),
    isPassing,
    setPassing,
  }
}
