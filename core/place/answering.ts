import type { Kit, Pad, PadId } from '../kit'
import { broadFamily, padSettings } from '../kit'

/**
 * Which pad of a kit answers for each pad of another one: itself where it is there too, else the one of its name, else the
 * first that is not taken yet of its kind, then of its family. Nothing where none is like it.
 */
export function answering(played: Kit, heard: Kit): Map<PadId, PadId | undefined> {
  const wordOf = (kit: Kit, pad: Pad) => (padSettings(kit, pad).name ?? '').trim().toLocaleLowerCase()
  const kindOf = (kit: Kit, pad: Pad) => padSettings(kit, pad).family
  const rules: ((mine: Pad, theirs: Pad) => boolean)[] = [
    (mine, theirs) => mine.id === theirs.id,
    (mine, theirs) => wordOf(played, mine) !== '' && wordOf(played, mine) === wordOf(heard, theirs),
    (mine, theirs) => kindOf(played, mine) !== 'other' && kindOf(played, mine) === kindOf(heard, theirs),
    (mine, theirs) => kindOf(played, mine) !== 'other' && broadFamily(kindOf(played, mine)) === broadFamily(kindOf(heard, theirs)),
  ]
  const answers = new Map<PadId, PadId | undefined>(played.pads.map(({ id }) => [id, undefined]))
  const taken = new Set<PadId>()
  for (const isLike of rules)
    for (const pad of played.pads) {
      if (answers.get(pad.id)) continue
      const answer = heard.pads.find((other) => !taken.has(other.id) && isLike(pad, other))
      if (!answer) continue
      answers.set(pad.id, answer.id)
      taken.add(answer.id)
    }
  // Two hats of one kit are both heard on the only one of the other.
  for (const pad of played.pads)
    if (!answers.get(pad.id)) answers.set(pad.id, heard.pads.find((other) => rules.some((isLike) => isLike(pad, other)))?.id)
  return answers
}
