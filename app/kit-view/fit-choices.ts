import type { Fit } from '@heliaster/core/ship'

/** What happens to files that would clip when they are written, in words. */
export const FIT_CHOICES: readonly { value: Fit; text: string }[] = [
  { value: 'together', text: 'Lower all together' },
  { value: 'each', text: 'Lower each that would' },
]
