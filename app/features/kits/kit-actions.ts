import { createKit } from '@heliaster/core/kit'
import type { AudioHash, Kit, KitId } from '@heliaster/core/kit'
import { router } from 'expo-router'

import { keepAudio } from '../../audio/audio-files'
import { shipWork } from '../../audio/workers'
import { kits } from '../../stores/documents'
import { makeId } from '../../stores/make-id'
import { chooseFiles } from '../../ui/choose-files'
import { notify } from '../../ui/notices'

const allKits = () => Object.values(kits.store.getState().entries).map((entry) => entry.doc)

/** The name, or the name with a number when it is taken. */
function freeName(name: string): string {
  const taken = new Set(allKits().map((kit) => kit.name))
  let candidate = name
  for (let n = 2; taken.has(candidate); n++) candidate = `${name} ${n}`
  return candidate
}

export async function createEmptyKit(): Promise<Kit> {
  const kit = createKit(makeId, freeName('New kit'))
  await kits.create(kit)
  return kit
}

export async function duplicateKit(kit: Kit): Promise<void> {
  const name = freeName(`${kit.name} copy`)
  await kits.create({ ...kit, id: makeId<KitId>('kit'), name })
  notify(`“${name}” is a kit of its own now.`)
}

export function renameKit(kit: Kit, name: string): void {
  if (name.trim()) kits.edit(kit.id, [{ type: 'setKit', fields: { name: name.trim().slice(0, 120) } }])
}

export async function deleteKit(kit: Kit): Promise<void> {
  const bringBack = await kits.hide(kit.id)
  notify(`“${kit.name}” is deleted.`, { label: 'Undo', run: () => void bringBack() })
}

/** Opens a bundle as a kit. One that is already here comes in beside it, never over it. */
export async function openBundleFile(): Promise<void> {
  const [file] = await chooseFiles('.zip', false)
  if (!file) return
  const result = await shipWork().open(await file.arrayBuffer())
  if (!result.ok) {
    notify(result.message)
    return
  }
  const { kit, audio, missing } = result.bundle
  for (const [hash, bytes] of audio) await keepAudio(hash as AudioHash, kit.audio[hash]?.name ?? hash, new Blob([new Uint8Array(bytes)]))
  const isKnown = kit.id in kits.store.getState().entries
  const opened = isKnown ? { ...kit, id: makeId<KitId>('kit'), name: freeName(kit.name) } : kit
  await kits.create(opened)
  notify(missing.length > 0 ? missing.join(' ') : `“${opened.name}” is open, as it was.`)
  router.navigate(`/kit/${opened.id}/board`)
}
