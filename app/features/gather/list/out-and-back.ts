import { audioFileEndings } from '@heliaster/core/decode'
import type { KitEdit, Source, SourceEdit } from '@heliaster/core/kit'
import { clipsOfPad } from '@heliaster/core/kit'

import { audioBytes } from '../../../audio/files/audio-files'
import { createImportPool } from '../../../audio/import/import-pool'
import type { TakenFile } from '../../../audio/import/import-work'
import { kits } from '../../../documents'
import { editSounds } from '../../../documents/library'
import { device } from '../../../documents'
import { chooseFiles, saveFile } from '../../../ui/device/choose-files'
import { notify } from '../../../ui/layout/notices'

/** Gives the file as it is to the person, for another program. */
export async function takeOut(source: Source): Promise<void> {
  try {
    saveFile(source.info.name, await audioBytes(source.audio), 'application/octet-stream')
  } catch (error) {
    notify(error instanceof Error ? error.message : String(error))
  }
}

/** Takes a changed version in the place of a sound's audio. Markers and clips keep their places in seconds. */
export async function takeBack(source: Source): Promise<void> {
  const [file] = await chooseFiles(audioFileEndings.join(','), false)
  if (!file) return
  const pool = createImportPool()
  const taken = await pool.take(file)
  pool.close()
  if (!taken.ok) return notify(`${file.name}: ${taken.reason}`)
  if (taken.hash === source.audio) return notify('This file is the same, bit for bit. Nothing was changed.')
  device.filesKept()
  const isComplete = await kitsAreHere()
  const count = exchange(source, taken)
  const where = count > 0 ? ` ${count} ${count === 1 ? 'clip' : 'clips'} on pads now read it.` : ''
  const but = isComplete ? '' : ' Kits that are only on the server could not be reached, and keep the version before.'
  notify(`“${source.name}” has its changed version.${where}${shorterBy(source, taken)}${but}`)
}

/** Brings all kits here, since any of them may use the sound. Returns whether they are. */
async function kitsAreHere(): Promise<boolean> {
  await device.fetchAll('kit').catch(() => undefined)
  return Object.keys(kits.store.getState().elsewhere).length === 0
}

function shorterBy(source: Source, { info }: TakenFile): string {
  const seconds = source.info.frames / source.info.sampleRateHz - info.frames / info.sampleRateHz
  if (Math.abs(seconds) < 0.001) return ''
  const much = `${Math.abs(seconds).toFixed(seconds < 1 ? 3 : 1)} s`
  return seconds > 0
    ? ` It is ${much} shorter: clips that reached beyond its end now stop there.`
    : ` It is ${much} longer; clips keep their places from its beginning.`
}

/** One step: the sound and every kit that uses it. Returns how many clips it touched. */
function exchange(source: Source, { hash, info, measured }: TakenFile): number {
  const ratio = info.sampleRateHz / source.info.sampleRateHz
  const place = (frame: number) => Math.min(Math.max(0, info.frames - 1), Math.round(frame * ratio))
  const markers = source.markers.map((marker) => ({
    ...marker,
    frame: place(marker.frame),
    ...(marker.endFrame === undefined ? {} : { endFrame: place(marker.endFrame) }),
  }))
  const edits: SourceEdit[] = [
    { type: 'setAudio', audio: hash, info, measured },
    ...(ratio !== 1 && markers.length > 0 ? [{ type: 'putMarkers' as const, markers }] : []),
  ]
  const users = Object.values(kits.store.getState().entries).flatMap(({ doc }) => {
    const clips = doc.pads.flatMap(clipsOfPad).filter((clip) => clip.audio === source.audio).length
    return clips > 0 ? [{ id: doc.id, clips }] : []
  })
  const edit: KitEdit = { type: 'replaceAudio', from: source.audio, to: hash, info }
  editSounds([{ id: source.id, edits }], users.map(({ id }) => ({ id, edits: [edit] }))) // prettier-ignore
  return users.reduce((sum, user) => sum + user.clips, 0)
}
