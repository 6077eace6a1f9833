import type { LineKind } from '@heliaster/core/ties'

interface TieLook {
  readonly label: string
  /** What a line of this kind says, for who is about to draw one. */
  readonly draw: string
  readonly colour: 'coral' | 'kelp' | 'waterInk' | 'ink'
  /** Kinds are told apart by their strokes, not by colour alone. */
  readonly dash?: string
  readonly hasHead: boolean
}

export const TIE_LOOKS: Readonly<Record<LineKind, TieLook>> = {
  choke: {
    label: 'Silences',
    draw: 'Drag from a pad to the one that it silences, or tap both. Tap one twice, and it silences its own earlier strikes.',
    colour: 'coral',
    dash: '1 5',
    hasHead: true,
  },
  chokeGroup: {
    label: 'Silence each other',
    draw: 'Drag from a pad to another, or tap both: they come into one choke group.',
    colour: 'coral',
    dash: '8 5',
    hasHead: false,
  },
  alsoStrike: {
    label: 'Strikes along',
    draw: 'Drag from a pad to the one that it strikes along, or tap both.',
    colour: 'kelp',
    hasHead: true,
  },
  takeTurns: {
    label: 'Take turns',
    draw: 'Drag from a pad to another, or tap both: they answer as one, each in its turn.',
    colour: 'waterInk',
    dash: '12 4 2 4',
    hasHead: false,
  },
  openings: {
    label: 'Opens to',
    draw: 'Drag from the more closed pad to the more open one, or tap both: a controller, as a pedal, chooses between them.',
    colour: 'waterInk',
    dash: '3 4',
    hasHead: false,
  },
  limit: {
    label: 'Share a limit',
    draw: 'Drag from a pad to another, or tap both: together they sound only so many strikes, and do not silence each other.',
    colour: 'ink',
    dash: '2 3 8 3',
    hasHead: false,
  },
}
