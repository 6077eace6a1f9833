import type { Source } from '@heliaster/core/kit'

import { sources } from '../../documents'
import { audioPicture } from './audio-files'

/** Writes down what is measured of a sound once its picture is drawn. */
export async function measureNow(source: Source): Promise<void> {
  try {
    const { measured } = await audioPicture(source.audio)
    if (measured) sources.editMany([{ id: source.id, edits: [{ type: 'setAudio', audio: source.audio, info: source.info, measured }] }])
  } catch {
    // The sound itself says what is wrong when it is opened.
  }
}

/** The same without holding anyone up. */
export function measureLater(source: Source): void {
  void measureNow(source)
}
