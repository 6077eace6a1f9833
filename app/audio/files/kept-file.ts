import type { AudioHash } from '@heliaster/core/kit'

import { localDb } from '../../sync/local-db'

/** A file that this device keeps; undefined where only the server has it. For the page and its workers. */
export async function keptFile(hash: AudioHash): Promise<Blob | undefined> {
  const kept = await (await localDb()).get('audio', hash)
  return kept && (kept.bytes instanceof Blob ? kept.bytes : new Blob([kept.bytes]))
}
