import type { AudioHash } from '@heliaster/core/kit'

import { localDb } from '../../sync/local-db'
import type { Picture } from './picture'

/** Puts a file into this device's store, to be sent to the server; nothing when it is there already. Works in workers too. */
export async function storeAudio(hash: AudioHash, name: string, bytes: Blob): Promise<void> {
  const db = await localDb()
  if (await db.getKey('audio', hash)) return
  await db.put('audio', { hash, name, bytes, uploaded: 0 })
}

export async function storePicture(hash: AudioHash, picture: Picture): Promise<void> {
  await (await localDb()).put('pictures', { key: hash, ...picture })
}
