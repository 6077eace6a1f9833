import type { Source } from '@heliaster/core/kit'

import { sources } from '../documents'
import { audioPicture } from './audio-files'

/** Writes down the level of a recording once its picture is drawn, without holding anyone up. */
export function measureLater(source: Source): void {
  audioPicture(source.audio).then(
    ({ measured }) =>
      measured && sources.editMany([{ id: source.id, edits: [{ type: 'setAudio', audio: source.audio, info: source.info, measured }] }]),
    () => undefined, // the recording itself says what is wrong when it is opened
  )
}
