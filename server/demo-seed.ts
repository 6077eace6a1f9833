import { CHUNK_BYTES, kitKind, sourceKind } from '@heliaster/core/kit'
import { createDemo } from '@heliaster/demo'
import type { DataSource } from 'typeorm'

import { AudioRepository } from './audio/audio-repository'
import { DocumentRepository } from './documents/document-repository'
import { settingRows } from './rows'

/** Puts the boatyard in, once in the life of a database: what people delete of it stays deleted. */
export async function seedDemo(database: DataSource): Promise<boolean> {
  const settings = database.getRepository(settingRows)
  if (await settings.findOneBy({ name: 'demoSeeded' })) return false
  const demo = createDemo()
  const audio = new AudioRepository(database)
  for (const [hash, { name, bytes }] of demo.audio) {
    await audio.announce(hash, bytes.length, name)
    for (let place = 0; place * CHUNK_BYTES < bytes.length; place++)
      await audio.putChunk(hash, place, Buffer.from(bytes.subarray(place * CHUNK_BYTES, (place + 1) * CHUNK_BYTES)))
    const outcome = await audio.finish(hash)
    if (outcome.type !== 'ready') throw new Error(`The demo file ${name} was not stored: ${outcome.type}.`)
  }
  const sources = new DocumentRepository(database, sourceKind)
  for (const source of [...demo.sources].reverse()) await sources.create(source)
  await new DocumentRepository(database, kitKind).create(demo.kit)
  await settings.save({ name: 'demoSeeded', value: 'yes' })
  return true
}
