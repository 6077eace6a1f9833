/** How a pad answers strikes, as choices on screen. */
export const MODES = [
  { value: 'oneShot', text: 'One-shot' },
  { value: 'hold', text: 'Hold' },
  { value: 'loopUntilLetGo', text: 'Loop until let go' },
  { value: 'loopUntilStruckAgain', text: 'Loop until struck again' },
  { value: 'silencer', text: 'Only silences' },
] as const

export const PICKS = [
  { value: 'cycle', text: 'Cycle' },
  { value: 'random', text: 'Random' },
  { value: 'shuffle', text: 'Shuffle' },
] as const
