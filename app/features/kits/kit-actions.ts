import { audioInUse, createKit, readKit } from '@heliaster/core/kit'
import type { Kit, KitId } from '@heliaster/core/kit'
import { missingWords } from '@heliaster/core/ship'
import { router } from 'expo-router'

import { keepAudio } from '../../audio/files/audio-files'
import { shipWork } from '../../audio/workers/workers'
import { kits } from '../../documents'
import { makeId } from '../../documents/make-id'
import { likeLater } from './like-kit-later'
import { chooseFiles } from '../../ui/device/choose-files'
import { notify } from '../../ui/layout/notices'

/** The name, or the name with a number when a kit has it, here or on the server. */
function freeName(name: string): string {
  const { entries, elsewhere } = kits.store.getState()
  const taken = new Set([...Object.values(entries).map(({ doc }) => doc.name), ...Object.values(elsewhere).map((kit) => kit.name)])
  let candidate = name
  for (let n = 2; taken.has(candidate); n++) candidate = `${name} ${n}`
  return candidate
}

export function createEmptyKit(): Kit {
  const kit = createKit(makeId, freeName('New kit'))
  void kits.create(kit)
  return kit
}

/** A kit with the pads, ties, mix and grooves of another one, and none of its sounds. */
export async function createKitLike(kit: Kit): Promise<Kit> {
  const { kitLike } = await likeLater()
  const made = kitLike(makeId, kit, freeName(`${kit.name} anew`))
  void kits.create(made)
  return made
}

export function duplicateKit(kit: Kit): void {
  const name = freeName(`${kit.name} copy`)
  void kits.create({ ...kit, id: makeId<KitId>('kit'), name })
  notify(`“${name}” is a kit of its own now.`)
}

export function renameKit(kit: Kit, name: string): void {
  if (name.trim()) kits.edit(kit.id, [{ type: 'setKit', fields: { name: name.trim().slice(0, 120) } }])
}

export async function deleteKit(kit: Kit): Promise<void> {
  const bringBack = await kits.hide(kit.id)
  notify(`“${kit.name}” is deleted.`, { label: 'Undo', run: () => void bringBack() })
}

/** Opens a kit that was saved as a file by itself, without its audio: what this device or the server has of it sounds. */
async function openKitFile(file: File): Promise<void> {
  const read = readKit(parsed(await file.text()))
  if (!read.ok) return notify(`${file.name}: ${read.message}`)
  openAs(read.value)
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

function openAs(kit: Kit): Kit {
  const { entries, elsewhere } = kits.store.getState()
  const isKnown = kit.id in entries || kit.id in elsewhere
  const opened = isKnown ? { ...kit, id: makeId<KitId>('kit'), name: freeName(kit.name) } : kit
  void kits.create(opened)
  router.navigate(`/kit/${opened.id}/board`)
  return opened
}

/** Opens a bundle as a kit. One that is already here comes in beside it, never over it. */
export async function openBundleFile(): Promise<void> {
  const [file] = await chooseFiles('.zip,.json', false)
  if (!file) return
  if (/[.]json$/i.test(file.name)) return openKitFile(file)
  const result = await shipWork().open(await file.arrayBuffer())
  if (!result.ok) {
    notify(result.message)
    return
  }
  const { kit, hashes } = result
  const missing = audioInUse(kit).flatMap((hash) => (hashes.includes(hash) ? [] : [missingWords(kit, hash, false)]))
  // File by file: a bundle may be larger than what a page can hold at once.
  for (const hash of hashes) {
    const bytes = await shipWork().take(hash)
    if (bytes) await keepAudio(hash, kit.audio[hash]?.name ?? hash, new Blob([bytes]))
    else missing.push(missingWords(kit, hash, true))
  }
  await shipWork().close()
  const opened = openAs(kit)
  notify(missing.length > 0 ? missing.join(' ') : `“${opened.name}” is open, as it was.`)
}
