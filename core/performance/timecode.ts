import type { Performance, PictureRate } from '../kit'

interface Counting {
  /** Pictures that the timecode counts in a second, and those that there really are: a second number over a second one. */
  readonly counted: number
  readonly over: number
  readonly under: number
  /** Numbers that are left out at the start of each minute but every tenth. */
  readonly dropped: number
}

const whole = (counted: number): Counting => ({ counted, over: counted, under: 1, dropped: 0 })
const slowed = (counted: number, dropped = 0): Counting => ({ counted, over: counted * 1000, under: 1001, dropped })
const COUNTINGS: Readonly<Record<PictureRate, Counting>> = {
  '23.976': slowed(24),
  '24': whole(24),
  '25': whole(25),
  '29.97': slowed(30),
  '29.97 drop': slowed(30, 2),
  '30': whole(30),
  '50': whole(50),
  '59.94': slowed(60),
  '59.94 drop': slowed(60, 4),
  '60': whole(60),
}

/** Seconds that a number of pictures takes. */
export function secondsOfPictures(rate: PictureRate, pictures: number): number {
  const { over, under } = COUNTINGS[rate]
  return (pictures * under) / over
}

/** The picture that is seen at a time, s; a time that is on its beginning but for rounding counts as on it. */
export function pictureAt(rate: PictureRate, seconds: number): number {
  const { over, under } = COUNTINGS[rate]
  return Math.floor((seconds * over) / under + 1e-6)
}

/** A number of pictures since midnight as hours:minutes:seconds:pictures; a day begins anew. Drop frame has a semicolon. */
export function timecodeOf(rate: PictureRate, pictures: number): string {
  const { counted, dropped } = COUNTINGS[rate]
  const perTen = 600 * counted - 9 * dropped
  const day = 144 * perTen
  const here = ((pictures % day) + day) % day
  const tens = Math.floor(here / perTen)
  const rest = here - tens * perTen
  // The first minute of ten is whole; each of the others lacks the numbers that are dropped.
  const minute = rest < 60 * counted ? 0 : 1 + Math.floor((rest - 60 * counted) / (60 * counted - dropped))
  const number = here + dropped * (9 * tens + minute)
  const two = (value: number) => String(value).padStart(2, '0')
  const [seconds, frame] = [Math.floor(number / counted), number % counted]
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${dropped > 0 ? ';' : ':'}${two(frame)}`
}

/** Pictures since midnight of a timecode; nothing where it is none, or names a picture that is left out. */
export function picturesOf(rate: PictureRate, timecode: string): number | undefined {
  const parts = /^\s*(\d{1,2})[:;.](\d{1,2})[:;.](\d{1,2})[:;.](\d{1,2})\s*$/.exec(timecode)
  if (!parts) return undefined
  const [hours, minutes, seconds, frame] = parts.slice(1).map(Number)
  const { counted, dropped } = COUNTINGS[rate]
  if (hours > 23 || minutes > 59 || seconds > 59 || frame >= counted) return undefined
  if (dropped > 0 && seconds === 0 && frame < dropped && minutes % 10 !== 0) return undefined
  const all = 60 * hours + minutes
  return (60 * all + seconds) * counted + frame - dropped * (all - Math.floor(all / 10))
}

/** Where what is heard of a performance begins in its film: seconds from the film's first picture. Nothing without a film. */
export function filmSecondsOf({ picture, fromFrame, sampleRateHz }: Performance): number | undefined {
  return picture && picture.offsetSeconds + fromFrame / sampleRateHz
}

/** The same on the film's clock, s since midnight; for files that say when they begin. */
export function startSecondsOf(performance: Performance): number | undefined {
  const within = filmSecondsOf(performance)
  const { picture } = performance
  return picture && within !== undefined ? Math.max(0, secondsOfPictures(picture.rate, picture.startPictures) + within) : undefined
}

/** The timecode of the picture on which what is heard begins. */
export function startTimecodeOf(performance: Performance): string | undefined {
  const within = filmSecondsOf(performance)
  const { picture } = performance
  return picture && within !== undefined ? timecodeOf(picture.rate, picture.startPictures + pictureAt(picture.rate, within)) : undefined
}
