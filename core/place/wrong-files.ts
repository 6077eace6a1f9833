import { unlikeness } from '../alike/portrait'
import type { Portrait } from '../alike/portrait'
import type { NamePlan, PlannedPad, PlannedTurn } from './name-plan'
import type { Likeness } from './names/types'

/** A file that its name puts where its sound does not belong. */
export interface WrongFile {
  readonly file: number
  /** Exchanged with `other`; of the strike that `other` heard; or of the thing that `other` is. */
  readonly kind: 'exchanged' | 'otherStrike' | 'otherThing'
  readonly other: number
}

/**
 * A strike is heard alike by its microphones. It is suspect where it is so by less than this share of what is usual in its
 * band, or so many times further from alike.
 */
const SUSPECT_SHARE = 0.7
const SUSPECT_TIMES = 2.5
/** Another strike fits if it comes this near to what is usual. */
const FITS_SHARE = 0.85
const FITS_TIMES = 1.6
/** Hairs by which all strikes differ. */
const HAIR = 0.02
const CLEARLY_BETTER = 0.05

const isSuspect = (own: number, usual: number) => own < SUSPECT_SHARE * usual || 1 - own > SUSPECT_TIMES * (1 - usual) + HAIR
const fits = (heard: number, usual: number, own: number) =>
  heard >= FITS_SHARE * usual && 1 - heard <= FITS_TIMES * (1 - usual) + HAIR && heard >= own + CLEARLY_BETTER

interface Strip {
  readonly microphone: string
  readonly turns: readonly PlannedTurn[]
}

/** The turns of a band that a microphone and the first one both heard. */
function stripsOf(pad: PlannedPad): Strip[] {
  const [first, ...others] = pad.microphones
  return pad.bands.flatMap(({ turns }) =>
    others.map((microphone) => ({ microphone, turns: turns.filter(({ files }) => files.has(first) && files.has(microphone)) })),
  )
}

/** The pairs of files that are one strike by their names, to be listened to first. */
export function pairsOfStrikes({ pads }: NamePlan): [number, number][] {
  return pads.flatMap((pad) =>
    stripsOf(pad).flatMap(({ microphone, turns }) => turns.map(({ files }): [number, number] => [files.get(pad.microphones[0])!, files.get(microphone)!])),
  )
} // prettier-ignore

/** What is to be listened to besides, where strikes do not sound like one: each suspect with all others of its band. */
export function pairsOfSuspects({ pads }: NamePlan, likeness: Likeness): [number, number][] {
  return pads.flatMap((pad) => {
    const [first] = pad.microphones
    return stripsOf(pad).flatMap(({ microphone, turns }) => {
      const { suspects } = suspectsOf(pad, microphone, turns, likeness)
      return suspects.flatMap((suspect) =>
        turns
          .filter((turn) => turn !== suspect)
          .flatMap((turn): [number, number][] => [
            [suspect.files.get(first)!, turn.files.get(microphone)!],
            [turn.files.get(first)!, suspect.files.get(microphone)!],
          ]),
      )
    })
  })
}

function suspectsOf(pad: PlannedPad, microphone: string, turns: readonly PlannedTurn[], likeness: Likeness) {
  const [first] = pad.microphones
  const own = turns.map(({ files }) => likeness(files.get(first)!, files.get(microphone)!) ?? NaN)
  const sorted = own.filter(Number.isFinite).sort((a, b) => a - b)
  const usual = sorted[sorted.length >> 1] ?? NaN
  return { usual, suspects: turns.filter((_, i) => isSuspect(own[i], usual)) }
}

/**
 * Files that belong elsewhere by their sound: two that were exchanged, a take that another strike made, one of another
 * thing. `likeness` is what was heard of the pairs above, `portraits` what is known of each file by its place.
 */
export function wrongFiles(plan: NamePlan, likeness: Likeness, portraits: readonly (Portrait | undefined)[] = []): WrongFile[] {
  const wrong = new Map<number, WrongFile>()
  for (const one of ofOtherThings(plan, portraits)) wrong.set(one.file, one)
  for (const pad of plan.pads) for (const one of ofOtherStrikes(pad, likeness)) if (!wrong.has(one.file)) wrong.set(one.file, one)
  return [...wrong.values()].filter(({ file, kind, other }) => kind !== 'exchanged' || file < other || !wrong.has(other))
} // prettier-ignore

/** Where all other microphones of a strike disagree with the first, it is the first one's file that is wrong. */
function ofOtherStrikes(pad: PlannedPad, likeness: Likeness): WrongFile[] {
  const [first] = pad.microphones
  return pad.bands.flatMap((band) => {
    const strips = stripsOf({ ...pad, bands: [band] })
    const found = strips.flatMap((strip) => inStrip(pad, strip, likeness))
    return band.turns.flatMap(({ files }) => {
      const of = found.filter(({ file }) => [...files.values()].includes(file))
      const heard = strips.filter(({ turns }) => turns.some((turn) => turn.files === files)).length
      if (heard < 2 || of.length < heard) return of
      const there = band.turns.find((turn) => [...turn.files.values()].includes(of[0].other))?.files
      const [mine, theirs] = [files.get(first)!, there?.get(first)]
      if (theirs === undefined) return of
      return [
        {
          file: mine,
          kind: of[0].kind,
          other: of[0].kind === 'exchanged' ? theirs : ([...there!.values()].find((file) => file !== theirs) ?? theirs),
        },
      ]
    })
  })
}

function inStrip(pad: PlannedPad, { microphone, turns }: Strip, likeness: Likeness): WrongFile[] {
  const [first] = pad.microphones
  const { usual, suspects } = suspectsOf(pad, microphone, turns, likeness)
  return suspects.flatMap((suspect): WrongFile[] => {
    const mine = suspect.files.get(microphone)!
    const own = likeness(suspect.files.get(first)!, mine) ?? 0
    const best = bestOf(turns, suspect, (turn) => likeness(turn.files.get(first)!, mine))
    if (!best || !fits(best.fit, usual, own)) {
      // Nothing heard what this one did; then it may be the first microphone's file that another strike made.
      const back = bestOf(turns, suspect, (turn) => likeness(suspect.files.get(first)!, turn.files.get(microphone)!))
      if (!back || !fits(back.fit, usual, own)) return []
      return [{ file: suspect.files.get(first)!, kind: 'otherStrike', other: back.turn.files.get(microphone)! }]
    }
    const theirs = best.turn.files.get(microphone)!
    const back = likeness(suspect.files.get(first)!, theirs) ?? 0
    const isExchanged = suspects.includes(best.turn) && fits(back, usual, own)
    return [{ file: mine, kind: isExchanged ? 'exchanged' : 'otherStrike', other: isExchanged ? theirs : best.turn.files.get(first)! }]
  })
}

function bestOf(turns: readonly PlannedTurn[], but: PlannedTurn, heard: (turn: PlannedTurn) => number | undefined) {
  let best: { readonly turn: PlannedTurn; readonly fit: number } | undefined
  for (const turn of turns) {
    const fit = turn === but ? undefined : heard(turn)
    if (fit !== undefined && (!best || fit > best.fit)) best = { turn, fit }
  }
  return best
}

/** A file is of another thing that is much more unlike its own than another pad's, dB. */
const UNLIKE_OWN = 4
const LIKE_OTHER_SHARE = 0.55

function ofOtherThings({ pads }: NamePlan, portraits: readonly (Portrait | undefined)[]): WrongFile[] {
  const filesOf = pads.map((pad) => pad.bands.flatMap(({ turns }) => turns.flatMap(({ files }) => [...files].map(([microphone, file]) => ({ microphone, file }))))) // prettier-ignore
  const nearest = (to: Portrait, among: readonly { readonly file: number }[], but: number) => {
    let best = { file: -1, unlike: Infinity }
    for (const { file } of among) {
      const portrait = portraits[file]
      const unlike = file === but || !portrait ? Infinity : unlikeness(to, portrait)
      if (unlike < best.unlike) best = { file, unlike }
    }
    return best
  }
  return filesOf.flatMap((own, p) =>
    own.flatMap(({ microphone, file }): WrongFile[] => {
      const portrait = portraits[file]
      if (!portrait) return []
      const alike = nearest(portrait, own.filter((one) => one.microphone === microphone), file) // prettier-ignore
      if (!Number.isFinite(alike.unlike) || alike.unlike < UNLIKE_OWN) return []
      const other = nearest(portrait, filesOf.flatMap((files, i) => (i === p ? [] : files)), file) // prettier-ignore
      return other.unlike < LIKE_OTHER_SHARE * alike.unlike ? [{ file, kind: 'otherThing', other: other.file }] : []
    }),
  )
}

/** The plan with what is wrong put right: exchanged files change places, others are left out with their reason. */
export function putRight(plan: NamePlan, wrong: readonly WrongFile[], names: readonly string[]): NamePlan {
  const swaps = new Map(wrong.flatMap(({ file, kind, other }) => (kind === 'exchanged' ? [[file, other], [other, file]] as const : []))) // prettier-ignore
  const out = new Map(wrong.filter(({ kind }) => kind !== 'exchanged').map((one) => [one.file, one]))
  const pads = plan.pads.map((pad) => ({
    ...pad,
    bands: pad.bands.map((band) => ({
      ...band,
      turns: band.turns
        .map((turn) => ({ ...turn, files: new Map([...turn.files].filter(([, file]) => !out.has(file)).map(([microphone, file]) => [microphone, swaps.get(file) ?? file])) }))
        .filter(({ files }) => files.size > 0),
    })).filter(({ turns }) => turns.length > 0),
  })).filter(({ bands }) => bands.length > 0) // prettier-ignore
  const unplaced = [...out.values()].map((one) => ({ file: one.file, reason: wrongWords(one, names) }))
  return { pads, unplaced: [...plan.unplaced, ...unplaced].sort((a, b) => a.file - b.file) }
}

/** Why a file is wrong, in a sentence. */
export function wrongWords({ kind, other }: WrongFile, names: readonly string[]): string {
  if (kind === 'exchanged') return `It seems exchanged with “${names[other]}”: each sounds like the other’s strike.`
  if (kind === 'otherStrike') return `It sounds like the strike of “${names[other]}”, not like the one its name says.`
  return `It sounds like “${names[other]}”, and like nothing else on its pad.`
}
