import { playedGroove } from '@heliaster/core/groove/rhythm'
import type { Pace, PlayedStrike } from '@heliaster/core/groove/rhythm'
import { levelResponse } from '@heliaster/core/kit'
import type { Clip, GrooveId, KitEdit, Pad, Source, TurnId } from '@heliaster/core/kit'
import { velocityBelow } from '@heliaster/core/place'

import { makeId } from '../../../documents/make-id'
import { clipOfHit } from '../hits/hit-clip'
import type { CutHit } from '../bench/use-source-cut'

export interface RhythmChoice {
  readonly pace: Pace
  /** How far strikes go to the steps, 0..1. */
  readonly share: number
  /** Whether each bead asks for the very hit that it stands for; otherwise any take of its thing answers. */
  readonly ownHits: boolean
  readonly takesTempo: boolean
}

/** What was struck: hits that are one thing each, by their places, and the pads that they became. */
export interface Struck {
  readonly hits: readonly CutHit[]
  readonly things: readonly (readonly number[])[]
  readonly pads: readonly Pad[]
}

/** The groove that was played on the pads that its hits became; the kit takes its tempo where that is wanted. */
export function rhythmEdits(source: Source, struck: Struck, grooveId: GrooveId, choice: RhythmChoice): KitEdit[] {
  const { pace, share, ownHits, takesTempo } = choice
  const strikes = playedOn(source, struck).map(({ turn, ...strike }) => (ownHits && turn ? { ...strike, turn } : strike))
  const groove = playedGroove(makeId, source.name.slice(0, 120), strikes, pace, share)
  return [
    ...(takesTempo ? [{ type: 'setKit' as const, fields: { tempoBpm: pace.tempoBpm } }] : []),
    { type: 'putGroove', groove: { ...groove, id: grooveId } },
  ]
}

/** Where on a pad a hit lies. */
interface Cell {
  readonly place: number
  readonly turn: TurnId
  readonly clip: Clip
}

/**
 * Which pad each hit became, when its clip begins, the velocity that plays it as loud and the turn that it is. A hit that its
 * pad has no room for is struck as the one that is as loud as it.
 */
export function playedOn(source: Source, { hits, things, pads }: Struck): PlayedStrike[] {
  const strikes = pads.flatMap((pad) => {
    const cells = cellsOf(pad)
    const cellOf = (at: number) => cells.get(hits[at]?.marker.id as string)
    const members = (things.find((thing) => thing.some(cellOf)) ?? []).filter((at) => hits[at].hit)
    const takes = members.map((at) => takeOf(source, hits[at], cellOf(at)))
    const velocityOf = velocitiesOn(pad, takes)
    return takes.map((take) => ({
      padId: pad.id,
      seconds: take.seconds,
      velocity: velocityOf(take),
      ...(take.cell ? { turn: take.cell.turn } : {}),
    }))
  })
  return strikes.sort((a, b) => a.seconds - b.seconds)
}

function cellsOf(pad: Pad): Map<string, Cell> {
  const cells = new Map<string, Cell>()
  pad.bands.forEach(({ turns }, place) => {
    for (const { id, clips } of turns)
      for (const clip of Object.values(clips))
        if (typeof clip === 'object' && clip.fromHit) cells.set(clip.fromHit.markerId, { place, turn: id, clip })
  })
  return cells
}

interface Take {
  readonly seconds: number
  readonly loudnessDb: number
  /** By how much its pad raises it, for velocity to lower again. */
  readonly raisedDb: number
  readonly cell: Cell | undefined
}

function takeOf(source: Source, { marker, hit }: CutHit, cell: Cell | undefined): Take {
  const clip = clipOfHit(source, marker, hit!)
  const raisedDb = (cell?.clip ?? clip).gainDb - clip.gainDb
  return { seconds: clip.startFrame / source.info.sampleRateHz, loudnessDb: hit!.loudnessDb + clip.gainDb, raisedDb, cell }
}

/** Levels this near are the same. */
const SAME_DB = 0.05

/** The velocity that plays a take as loud as it was: what its pad raised it by lower, else by its place among those of its band. */
function velocitiesOn(pad: Pad, takes: readonly Take[]): (take: Take) => number {
  const there = takes.filter(({ cell }) => cell)
  const rangeDb = levelResponse(pad.own.responses ?? [])?.amount ?? 0
  const loudest = Math.max(...there.map(({ loudnessDb }) => loudnessDb))
  const isAsLoud =
    rangeDb > 0 && there.every(({ loudnessDb, raisedDb }) => raisedDb >= 0 && (raisedDb > 0 || loudest - loudnessDb < SAME_DB))
  const away = (one: Take, take: Take) => Math.abs(one.loudnessDb - take.loudnessDb)
  return (take) => {
    const near = take.cell ? take : there.reduce((best, one) => (away(one, take) < away(best, take) ? one : best))
    const { place } = near.cell!
    const from = pad.bands[place]!.fromVelocity
    const to = (pad.bands[place + 1]?.fromVelocity ?? 128) - 1
    const within = (velocity: number) => Math.min(to, Math.max(from, velocity))
    if (isAsLoud) return within(velocityBelow(near.raisedDb + near.loudnessDb - take.loudnessDb, rangeDb))
    const levels = there.filter(({ cell }) => cell!.place === place).map(({ loudnessDb }) => loudnessDb)
    return pad.bands.length === 1 ? belowLoudest(take.loudnessDb, levels) : amongOthers(take.loudnessDb, levels, from, to)
  }
}

function belowLoudest(loudnessDb: number, levels: readonly number[]): number {
  const below = Math.min(0, Math.max(-40, loudnessDb - Math.max(...levels)))
  return Math.max(1, Math.round(127 * 10 ** (below / 40)))
}

/** Where in the velocities of a band a hit of it stands, by how loud it is among the others; the louder the higher. */
function amongOthers(loudnessDb: number, levels: readonly number[], from: number, to: number): number {
  const [least, most] = [Math.min(...levels), Math.max(...levels)]
  const share = most - least < 0.5 ? 0.5 : Math.min(1, Math.max(0, (loudnessDb - least) / (most - least)))
  return Math.round(from + (to - from) * share)
}
