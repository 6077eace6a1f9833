import type { Audio } from '../audio/audio'
import type { EventId, MakeId, Performance, PlayedEvent } from '../kit'
import { isHeard, strikesOf } from './edits'
import { filmSecondsOf } from './timecode'

type Picture = NonNullable<Performance['picture']>

/** The performances of one film, each a line of its own, in the order in which they are heard in it. */
export function linesOf(all: readonly Performance[], film: string): Performance[] {
  const at = (one: Performance) => filmSecondsOf(one) ?? 0
  return all.filter(({ picture }) => picture?.film === film).sort((a, b) => at(a) - at(b) || a.playedAt - b.playedAt)
}

export interface FilmMark {
  readonly seconds: number
  readonly name: string
}

/** The marks of a film, from all its lines, each once and in its order. */
export function marksOf(lines: readonly Performance[]): FilmMark[] {
  const marks = new Map(
    lines.flatMap(({ picture }) => (picture?.marks ?? []).map((mark) => [`${mark.seconds} ${mark.name}`, mark] as const)),
  )
  return [...marks.values()].sort((a, b) => a.seconds - b.seconds)
}

/** A picture with one mark more, or without one; in their order. */
export function withMark(picture: Picture, mark: FilmMark): Picture {
  const others = (picture.marks ?? []).filter(({ seconds, name }) => seconds !== mark.seconds || name !== mark.name)
  return { ...picture, marks: [...others, mark].sort((a, b) => a.seconds - b.seconds) }
}

export function withoutMark(picture: Picture, mark: FilmMark): Picture {
  const { marks: _marks, ...rest } = picture
  const marks = (picture.marks ?? []).filter(({ seconds, name }) => seconds !== mark.seconds || name !== mark.name)
  return marks.length > 0 ? { ...rest, marks } : rest
}

/** A pass played to a film: where it lies in it is known from one frame of the performance and the second of the film that it is. */
export function laidOnFilm(pass: Performance, picture: Picture, at: { readonly frame: number; readonly filmSeconds: number }): Performance {
  const { marks: _marks, ...rest } = picture
  return { ...pass, picture: { ...rest, offsetSeconds: at.filmSeconds - at.frame / pass.sampleRateHz } }
}

/**
 * A pass with what was struck while the film still stood on its first picture, in [sinceFrame, filmFrame), struck on that picture;
 * what lets go of it comes as much later.
 */
export function fromFirstPicture(pass: Performance, sinceFrame: number, filmFrame: number): Performance {
  const later = new Map<EventId, number>()
  for (const { strike, letGo } of strikesOf(pass)) {
    if (strike.frame < sinceFrame || strike.frame >= filmFrame) continue
    later.set(strike.id, filmFrame)
    if (letGo) later.set(letGo.id, Math.max(later.get(letGo.id) ?? 0, letGo.frame + filmFrame - strike.frame))
  }
  if (later.size === 0) return pass
  const events = pass.events.map((event) => ({ ...event, frame: later.get(event.id) ?? event.frame })).sort((a, b) => a.frame - b.frame)
  return { ...pass, events, edited: true }
}

/**
 * A line with a stretch of it played anew: its strikes between two seconds of the film go, those of the pass come in their place,
 * as they lie in the film. What of the pass lies outside stays out. Both are laid on one film and have one rate.
 */
export function punchedIn(
  makeId: MakeId,
  given: Performance,
  pass: Performance,
  { fromSeconds, toSeconds }: { readonly fromSeconds: number; readonly toSeconds: number },
): Partial<Performance> {
  const early = Math.ceil((given.picture!.offsetSeconds - Math.max(fromSeconds, pass.picture!.offsetSeconds)) * given.sampleRateHz)
  const line = early > 0 ? begunEarlier(given, early) : given
  const rate = line.sampleRateHz
  const secondsOf = (of: Performance, frame: number) => of.picture!.offsetSeconds + frame / of.sampleRateHz
  const isWithin = (of: Performance, frame: number) => secondsOf(of, frame) >= fromSeconds && secondsOf(of, frame) < toSeconds
  const gone = new Set<EventId>()
  for (const { strike, letGo } of strikesOf(line)) {
    if (!isWithin(line, strike.frame)) continue
    gone.add(strike.id)
    if (letGo && strikesOf(line).every((held) => held.letGo !== letGo || isWithin(line, held.strike.frame))) gone.add(letGo.id)
  }
  const frameOf = (frame: number) => Math.max(0, Math.round((secondsOf(pass, frame) - line.picture!.offsetSeconds) * rate))
  const more = strikesOf(pass).flatMap(({ strike, letGo }): PlayedEvent[] => {
    if (!isHeard(pass, strike) || !isWithin(pass, strike.frame)) return []
    return [strike, ...(letGo ? [letGo] : [])]
  })
  // What lets go of several strikes is there once.
  const added = [...new Map(more.map((event) => [event.id, event])).values()].map((event): PlayedEvent => ({ ...event, id: makeId<EventId>('event'), frame: frameOf(event.frame) })) // prettier-ignore
  const events = [...line.events.filter(({ id }) => !gone.has(id)), ...added].sort((a, b) => a.frame - b.frame)
  const frames = added.flatMap((event) => (event.type === 'strike' ? [event.frame] : []))
  return {
    ...(line === given ? {} : { segments: line.segments, standing: line.standing, picture: line.picture! }),
    events,
    edited: true,
    fromFrame: Math.min(line.fromFrame, ...frames),
    toFrame: Math.max(line.toFrame, ...frames.map((frame) => frame + 1)),
  }
}

/** The same performance with so many frames more before it, in which nothing is played; it lies in its film as before. */
function begunEarlier(line: Performance, frames: number): Performance {
  const { standing, segments, picture, sampleRateHz } = line
  return {
    ...line,
    events: line.events.map((event) => ({ ...event, frame: event.frame + frames })),
    fromFrame: line.fromFrame + frames,
    toFrame: line.toFrame + frames,
    segments: segments.map((segment, i) => (i === 0 ? segment : { ...segment, frame: segment.frame + frames })),
    standing: {
      ...standing,
      pads: standing.pads.map((pad) => (pad.lastFrame === undefined ? pad : { ...pad, lastFrame: pad.lastFrame + frames })),
    },
    picture: { ...picture!, offsetSeconds: picture!.offsetSeconds - frames / sampleRateHz },
  }
}

export interface LineSound {
  readonly audio: Audio
  /** Where it begins in the film, s. */
  readonly filmSeconds: number
}

/** Lines of one film as one sound, from where the first of them begins in it; all of one rate, in two channels. */
export function mixedLines(lines: readonly LineSound[]): LineSound {
  const filmSeconds = Math.min(...lines.map((line) => line.filmSeconds))
  const { sampleRateHz } = lines[0]!.audio
  const at = (line: LineSound) => Math.round((line.filmSeconds - filmSeconds) * sampleRateHz)
  const frames = Math.max(...lines.map((line) => at(line) + line.audio.channels[0]!.length))
  const channels = [0, 1].map((side) => {
    const out = new Float32Array(frames)
    for (const line of lines) {
      const from = line.audio.channels[side] ?? line.audio.channels[0]!
      const begin = at(line)
      for (let i = 0; i < from.length; i++) out[begin + i]! += from[i]!
    }
    return out
  })
  return { filmSeconds, audio: { sampleRateHz, channels } }
}
