// The elements show pictures, and no films.
import type { Performance } from '@heliaster/core/kit'
import { filmSecondsOf } from '@heliaster/core/performance'
import { useEffect, useRef } from 'react'
import { View } from 'react-native'
import { unstable_createElement } from 'react-native-web'
import { useStore } from 'zustand'

import { FILM, hearing } from '../../../../audio/performances/hear'
import { notify } from '../../../../ui/layout/notices'
import { usePalette } from '../../../../ui/theme/theme'

interface Props {
  readonly url: string
  readonly performance: Performance
  /** Where the film stands while nothing is heard, s. */
  readonly seconds: number
  readonly onSeconds: (seconds: number) => void
  /** Told once how long the film is, s. */
  readonly onLength: (seconds: number) => void
}

/** So far the film may stand from the sound before it is put right: two pictures at 25 a second. */
const APART_SECONDS = 0.08

/** The film, still on one picture or running with the performance; its own sound is off, the performance is what is heard. */
export function FilmView({ url, performance, seconds, onSeconds, onLength }: Props) {
  const palette = usePalette()
  const video = useRef<HTMLVideoElement>(null)
  const isAlone = useStore(hearing, ({ name }) => name === FILM)
  const isRunning = useStore(hearing, ({ name }) => name === performance.id) || isAlone
  const from = isAlone ? 0 : (filmSecondsOf(performance) ?? 0)
  useEffect(() => {
    const film = video.current
    if (!film) return undefined
    if (!isRunning) {
      film.pause()
      film.currentTime = Math.max(0, seconds)
      return undefined
    }
    return runWith(film, from, onSeconds)
  }, [isRunning, seconds, from, onSeconds])
  return (
    <View style={{ borderRadius: 8, overflow: 'hidden', backgroundColor: palette.faint }}>
      {unstable_createElement('video', {
        ref: video,
        src: url,
        muted: true,
        playsInline: true,
        preload: 'auto',
        'aria-label': 'The film',
        onLoadedMetadata: ({ currentTarget }: { currentTarget: HTMLVideoElement }) => findLength(currentTarget, seconds, onLength),
        onError: () => notify('This browser cannot show this film. One in MP4 with H.264, or in WebM, can be shown.'),
        style: { width: '100%', maxHeight: 300, display: 'block' },
      })}
    </View>
  )
}

/** Films that a browser has recorded do not say how long they are until someone has gone to their end. */
const BEYOND_SECONDS = 1e9

function findLength(film: HTMLVideoElement, backTo: number, onLength: (seconds: number) => void): void {
  if (Number.isFinite(film.duration)) return onLength(film.duration)
  const found = () => {
    if (!Number.isFinite(film.duration)) return
    film.removeEventListener('durationchange', found)
    film.currentTime = backTo
    onLength(film.duration)
  }
  film.addEventListener('durationchange', found)
  film.currentTime = BEYOND_SECONDS
}

/** Lets a film run with what is heard, and puts it right where it has gone astray. Returns the way to stop. */
function runWith(film: HTMLVideoElement, from: number, onSeconds: (seconds: number) => void): () => void {
  const start = () => {
    film.currentTime = Math.max(0, from + hearing.getState().seconds)
    void film.play().catch(() => undefined) // a film that has ended, or is being put away
  }
  start()
  const stop = hearing.subscribe(({ name, seconds }) => {
    if (name === undefined) return
    const wanted = from + seconds
    if (wanted < 0) film.pause()
    else if (Math.abs(film.currentTime - wanted) > APART_SECONDS && !film.ended) film.currentTime = wanted
    else if (film.paused && !film.ended) start()
  })
  return () => {
    stop()
    film.pause()
    onSeconds(film.currentTime)
  }
}
