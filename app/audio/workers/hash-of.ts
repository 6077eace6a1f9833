import { hashAudio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'

/** The name of a file, by the browser's own digest where it is given (secure pages only), several times as quick, else by ours; both are SHA-256. */
export async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<AudioHash> {
  if (!globalThis.crypto?.subtle) return hashAudio(bytes)
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('') as AudioHash
}
