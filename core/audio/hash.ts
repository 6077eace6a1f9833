import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex } from '@noble/hashes/utils'

import type { AudioHash } from '../kit/ids'

/** The name of an audio file: SHA-256 of its bytes. */
export function hashAudio(bytes: Uint8Array): AudioHash {
  return bytesToHex(sha256(bytes)) as AudioHash
}

/** The same, for bytes that arrive in pieces. */
export function createAudioHasher(): { update(piece: Uint8Array): void; finish(): AudioHash } {
  const hasher = sha256.create()
  return { update: (piece) => void hasher.update(piece), finish: () => bytesToHex(hasher.digest()) as AudioHash }
}
