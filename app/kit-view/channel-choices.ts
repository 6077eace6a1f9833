import type { Clip } from '@heliaster/core/kit'

/** What a clip takes of a stereo file, in words. */
export const CHANNEL_CHOICES: readonly { value: Clip['channel']; text: string }[] = [
  { value: 'both', text: 'Both' },
  { value: 'mid', text: 'Mid' },
  { value: 'left', text: 'Left' },
  { value: 'right', text: 'Right' },
]
