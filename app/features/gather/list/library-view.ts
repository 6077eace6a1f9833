import type { Kit, Source, SourceId } from '@heliaster/core/kit'
import { broadFamily, clipsOfPad, families, familyWords, isOfFamily } from '@heliaster/core/kit'
import { compareNames } from '@heliaster/core/place'
import { z } from 'zod'

import { deviceSettings } from '../../../ui/device/device-settings'
import { endKin } from './kin'

export const sorts = [
  { value: 'added', text: 'Newest' },
  { value: 'name', text: 'Name' },
  { value: 'length', text: 'Length' },
  { value: 'loudness', text: 'Loudness' },
  { value: 'family', text: 'Family' },
  { value: 'heard', text: 'Heard last' },
] as const
export const kinds = [
  { value: 'all', text: 'All' },
  { value: 'recordings', text: 'Recordings' },
  { value: 'hits', text: 'Hits' },
  { value: 'favourites', text: 'Favourites' },
  { value: 'kept', text: 'Kept' },
  { value: 'passed', text: 'Passed' },
] as const
export type SortBy = (typeof sorts)[number]['value']
export type Only = (typeof kinds)[number]['value']

/** How the list of sounds is looked at. */
export interface LibraryView {
  readonly words: string
  /** This kit's sounds, or all there are; what is looked for by words is looked for among all. */
  readonly scope: 'kit' | 'all'
  readonly sort: SortBy
  readonly isReversed: boolean
  readonly only: Only
  readonly family?: Source['family']
  readonly tag?: string
  readonly hearsOnSelect: boolean
  /** Files are heard, and ticked, before they come in. */
  readonly hearsFirst: boolean
  /** Level of listening to sounds in the list, dB. */
  readonly hearDb: number
}

const KEY = 'heliaster-library'
const HEARD_KEY = 'heliaster-heard'
const MOST_HEARD = 200
const plain: LibraryView = {
  words: '',
  scope: 'kit',
  sort: 'added',
  isReversed: false,
  only: 'all',
  hearsOnSelect: true,
  hearsFirst: false,
  hearDb: 0,
}

const viewSchema = z.object({
  sort: z.enum(sorts.map((one) => one.value)),
  isReversed: z.boolean(),
  only: z.enum(kinds.map((one) => one.value)),
  family: z.enum(families).optional(),
  tag: z.string().optional(),
  hearsOnSelect: z.boolean(),
  hearsFirst: z.boolean(),
  hearDb: z.number().min(-60).max(24),
})
/** What was looked for is not kept: the next visit begins with all of the list. */
export const libraryView = deviceSettings(KEY, viewSchema, plain)

export function changeView(changes: Partial<LibraryView>): void {
  libraryView.setState(changes)
}

/** Nothing narrows the list any more. */
export function showAll(): void {
  changeView({ words: '', scope: 'all', only: 'all', family: undefined, tag: undefined })
  endKin()
}

const heardStore = deviceSettings(HEARD_KEY, z.object({ heard: z.record(z.string(), z.number()) }), {
  heard: {} as Record<string, number>,
})

/** Remembers which sounds were used last, on this device. */
export function noteHeard(id: SourceId): void {
  const heard = { ...heardStore.getState().heard, [id]: Date.now() }
  const names = Object.keys(heard)
  if (names.length > MOST_HEARD) delete heard[names.reduce((a, b) => (heard[a] < heard[b] ? a : b))]
  heardStore.setState({ heard })
}

/** Longer than this is a recording to be cut, shorter a hit. */
const LONG_SECONDS = 5
export const secondsOf = (source: Source) => source.info.frames / source.info.sampleRateHz
const isLong = (source: Source) => source.origin !== 'imported' || secondsOf(source) > LONG_SECONDS

/** The sounds that are asked for, in the order that is asked for. What is passed goes last, unless it is asked for. */
export function shownSounds(
  all: readonly Source[],
  view: LibraryView,
  heardAt: Readonly<Record<string, number>> = heardStore.getState().heard,
): Source[] {
  const order = ORDERS[view.sort]
  const way = view.isReversed ? -1 : 1
  return narrowed(all, view).sort((a, b) => {
    const passed = Number(a.verdict === 'pass') - Number(b.verdict === 'pass')
    return passed || way * order(a, b, heardAt) || compareNames(a.name, b.name)
  })
}

const texts = new WeakMap<Source, string>()

/** What a sound is found by; put together once. */
function textOf(source: Source): string {
  let text = texts.get(source)
  if (text === undefined)
    texts.set(
      source,
      (text = `${source.name} ${source.tags.join(' ')} ${familyWords(source.family)} ${broadFamily(source.family)}`.toLowerCase()),
    )
  return text
}

/** The sounds that are asked for, in no order. */
export function narrowed(all: readonly Source[], view: LibraryView): Source[] {
  const wanted = view.words.trim().toLowerCase().split(/\s+/).filter(Boolean) // prettier-ignore
  return all.filter((source) => {
    if (!wanted.every((word) => textOf(source).includes(word)) || !isOf(source, view.only)) return false
    return (!view.family || isOfFamily(source.family, view.family)) && (!view.tag || source.tags.includes(view.tag))
  })
}

function isOf(source: Source, only: Only): boolean {
  switch (only) {
    case 'all':
      return true
    case 'recordings':
      return isLong(source)
    case 'hits':
      return !isLong(source)
    case 'favourites':
      return source.favourite
    case 'kept':
      return source.verdict === 'keep'
    case 'passed':
      return source.verdict === 'pass'
  }
}

const ORDERS: Record<SortBy, (a: Source, b: Source, heardAt: Readonly<Record<string, number>>) => number> = {
  added: (a, b) => b.addedAt - a.addedAt,
  name: (a, b) => compareNames(a.name, b.name),
  length: (a, b) => secondsOf(b) - secondsOf(a),
  loudness: (a, b) => (b.measured?.loudnessDb ?? -300) - (a.measured?.loudnessDb ?? -300),
  family: (a, b) => families.indexOf(a.family) - families.indexOf(b.family),
  heard: (a, b, heardAt) => (heardAt[b.id] ?? 0) - (heardAt[a.id] ?? 0),
}

/** Whether the list is narrowed by more than words. */
export const isNarrowed = ({ only, family, tag }: LibraryView) => only !== 'all' || family !== undefined || tag !== undefined

export function tagsOf(all: readonly Source[]): string[] {
  return [...new Set(all.flatMap((source) => source.tags))].sort(compareNames)
}

/** The kits whose pads sound any of these, with how many clips of each. */
export function kitsUsing(kits: readonly Kit[], sounds: readonly Source[]): { readonly name: string; readonly clips: number }[] {
  const audio = new Set<string>(sounds.map((source) => source.audio))
  return kits.flatMap((kit) => {
    const clips = kit.pads.flatMap(clipsOfPad).filter((clip) => audio.has(clip.audio)).length
    return clips > 0 ? [{ name: kit.name, clips }] : []
  })
}

/** So many kits are named; of more it is said how many. */
const NAMED = 5

/** Names kits in a sentence. */
export function usersInWords(users: readonly { readonly name: string; readonly clips: number }[]): string {
  const named = users.slice(0, NAMED + 1).map(({ name, clips }) => `“${name}” (${clips} ${clips === 1 ? 'clip' : 'clips'})`)
  if (users.length > named.length) named.splice(NAMED, 1, `${users.length - NAMED} more kits`)
  return named.length < 2 ? named.join('') : `${named.slice(0, -1).join(', ')} and ${named[named.length - 1]}`
}
