import type { TakeReport } from './journal-work'

/** What the meter and the running picture read, frame by frame; never React state. */
export interface Live {
  /** Peaks of the pieces of the last minutes, newest last, and how long one lasts. */
  readonly peaks: number[]
  pieceSeconds: number
  hits: readonly number[]
  /** Peak of each channel now, and the highest of late. */
  now: readonly number[]
  held: number
  /** The highest since the input was opened, or since it was cleared. */
  highest: number
  clips: number
  clipsCleared: number
  seconds: number
}

const KEPT_PIECES = 4000
const FALL = 0.985

const empty = (): Live => ({
  peaks: [],
  pieceSeconds: 1024 / 48000,
  hits: [],
  now: [],
  held: 0,
  highest: 0,
  clips: 0,
  clipsCleared: 0,
  seconds: 0,
})

export const live: Live = empty()

export function clearLive(): void {
  Object.assign(live, empty())
}

/** Takes the clip mark and the highest level back, so that the next try is seen by itself. */
export function clearMarks(): void {
  live.clipsCleared = live.clips
  live.highest = 0
}

export function takeReport({ peaks, clips, pieceSeconds, seconds, hits }: TakeReport): void {
  const peak = Math.max(0, ...peaks)
  live.peaks.push(peak)
  if (live.peaks.length > 2 * KEPT_PIECES) live.peaks.splice(0, KEPT_PIECES)
  live.now = peaks
  live.held = Math.max(live.held * FALL, peak)
  live.highest = Math.max(live.highest, peak)
  live.clips = clips
  live.pieceSeconds = pieceSeconds
  live.seconds = seconds
  live.hits = hits
}

/** What the level so far asks for, before the first take. */
export function headroomAdvice(): string {
  const { highest, clips, clipsCleared } = live
  if (clips > clipsCleared) return 'Too loud: it clipped. Turn the input down or move away.'
  const db = 20 * Math.log10(Math.max(highest, 1e-6))
  if (db < -50) return 'Strike once as hard as you will, to see the level.'
  if (db < -30) return 'Quiet. Come closer or turn the input up.'
  if (db < -15) return 'Usable, with much room above.'
  if (db < -3) return 'A good level, with room for a harder strike.'
  return 'Nearly full. Leave some room for the hardest strike.'
}
