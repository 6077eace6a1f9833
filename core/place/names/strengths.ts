import type { NamedFile } from './types'
import { strengthOf } from './words'

/** What is one thing struck harder is louder by so much at least, dB, */
const LOUDER_DB = 3
/** and apart by no more in where its energy balances, in its length and in its pitch, octaves. */
const APART = { centreHz: 0.6, frames: 1, pitchHz: 0.08 } as const
/** Of so many drums it is heard. */
const MOST = 0.65

/**
 * Of which drums words beside their names say how hard they were struck, as far as it is heard: what differs in them alone differs in
 * loudness and hardly in anything else. Of a few drums among many only words that are known for it are believed. `drums` and `words` are
 * what each file has; an empty text where its name says nothing. Drums of several words, each with the answer.
 */
export function strengthsOf(files: readonly NamedFile[], drums: readonly string[], words: readonly string[]): Map<string, boolean> {
  const groups = new Map<string, Map<string, NamedFile[]>>()
  files.forEach((file, i) => {
    if (drums[i] === '' || words[i] === '') return
    const own = groups.get(drums[i]!) ?? new Map<string, NamedFile[]>()
    own.set(words[i]!, [...(own.get(words[i]!) ?? []), file])
    groups.set(drums[i]!, own)
  })
  const several = [...groups].filter(([, own]) => own.size > 1)
  const heard = new Map(several.map(([drum, own]) => [drum, isOneDrum([...own.values()])]))
  const areMost = [...heard.values()].filter(Boolean).length >= MOST * heard.size
  const areKnown = (own: ReadonlyMap<string, unknown>) => [...own.keys()].every((word) => strengthOf(word) !== undefined)
  return new Map(several.map(([drum, own]) => [drum, heard.get(drum)! && (areMost || areKnown(own))]))
}

/** Files of one drum, those of each word together: louder and softer, and otherwise alike. */
function isOneDrum(words: readonly (readonly NamedFile[])[]): boolean {
  const loudness = words.map((files) => mean(files, (file) => file.loudnessDb))
  if (!(rangeOf(loudness) >= LOUDER_DB)) return false
  const octaves = (of: keyof typeof APART) => words.map((files) => mean(files, (file) => (file[of] ? Math.log2(file[of]) : undefined)))
  return (['centreHz', 'frames', 'pitchHz'] as const).every((of) => !(rangeOf(octaves(of)) > APART[of]))
}

/** Of what is known; NaN where nothing is. */
function mean(files: readonly NamedFile[], of: (file: NamedFile) => number | undefined): number {
  const known = files.map(of).filter((value) => value !== undefined && Number.isFinite(value)) as number[]
  return known.reduce((sum, value) => sum + value, 0) / known.length
}

function rangeOf(values: readonly number[]): number {
  const known = values.filter(Number.isFinite)
  return known.length < values.length ? NaN : Math.max(...known) - Math.min(...known)
}
