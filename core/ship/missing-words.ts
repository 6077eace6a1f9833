import type { AudioHash } from '../kit/ids'
import type { Kit } from '../kit/kit'

/** What is said of a file that a bundle does not hold whole. */
export function missingWords(kit: Kit, hash: AudioHash, isDamaged: boolean): string {
  return `The audio "${kit.audio[hash]?.name ?? hash.slice(0, 12)}" is ${isDamaged ? 'damaged in' : 'missing from'} this bundle; pads that use it are silent until it is imported again.`
}
