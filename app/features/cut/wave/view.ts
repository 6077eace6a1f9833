import type { Summary } from '@heliaster/core/audio'

/** The part of a recording that is seen, and how much quiet sound is raised. Frames of the file. */
export interface View {
  readonly start: number
  readonly end: number
  readonly gain: number
  /** Raised so that what is seen fills the height, whatever `gain` says. */
  readonly isAuto?: boolean
}

const FEWEST_FRAMES = 64

/** Quiet recordings are raised so that they can be seen. */
export function gainFor({ levels }: Summary): number {
  const top = levels[levels.length - 1]
  return Math.min(64, gainToFill(top.low, top.high))
}

const MOST_GAIN = 1000

/** What raises lowest and highest samples so that they fill the height. */
export function gainToFill(low: Float32Array, high: Float32Array): number {
  let peak = 0.92 / MOST_GAIN
  for (let i = 0; i < low.length; i++) peak = Math.max(peak, high[i], -low[i])
  return Math.max(1, 0.92 / peak)
}

/** The next height of the wave: automatic, as recorded, then twice as tall each time. */
export function nextHeight(view: View): View {
  if (view.isAuto) return { ...view, isAuto: false, gain: 1 }
  return view.gain >= 32 ? { ...view, isAuto: true } : { ...view, gain: 2 ** (Math.floor(Math.log2(view.gain) + 1e-6) + 1) }
}

export function taller(view: View, factor: number): View {
  return { ...view, isAuto: false, gain: Math.min(MOST_GAIN, Math.max(1, view.gain * factor)) }
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
