import type { Summary } from '@heliaster/core/audio'

/** The part of a recording that is seen, and how much quiet sound is raised. Frames of the file. */
export interface View {
  readonly start: number
  readonly end: number
  readonly gain: number
}

const FEWEST_FRAMES = 64

/** Quiet recordings are raised so that they can be seen. */
export function gainFor({ levels }: Summary): number {
  const top = levels[levels.length - 1]
  const peak = Math.max(1e-4, ...top.high, ...top.low.map((value) => -value))
  return Math.min(64, Math.max(1, 0.92 / peak))
}

export function wholeView(frames: number): View {
  return { start: 0, end: frames, gain: 1 }
}

/** Zooms by a factor (below 1 is closer) round a place that stays where it is. */
export function zoomed(view: View, factor: number, at: number, frames: number): View {
  const length = Math.min(frames, Math.max(FEWEST_FRAMES, (view.end - view.start) * factor))
  const share = (at - view.start) / (view.end - view.start)
  return held({ ...view, start: at - share * length, end: at + (1 - share) * length }, frames)
}

export function panned(view: View, byFrames: number, frames: number): View {
  return held({ ...view, start: view.start + byFrames, end: view.end + byFrames }, frames)
}

/** Shows a stretch with some room on both sides. */
export function focused(view: View, start: number, end: number, frames: number): View {
  const room = (end - start) * 0.25 + 200
  return held({ ...view, start: start - room, end: end + room }, frames)
}

function held(view: View, frames: number): View {
  const length = Math.min(frames, view.end - view.start)
  const start = Math.min(frames - length, Math.max(0, view.start))
  return { ...view, start, end: start + length }
}

export function frameAt(view: View, x: number, width: number): number {
  return view.start + (x / width) * (view.end - view.start)
}

export function xOf(view: View, frame: number, width: number): number {
  return ((frame - view.start) / (view.end - view.start)) * width
}
