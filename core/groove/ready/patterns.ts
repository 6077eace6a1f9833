import type { Family } from '../../kit/families'
import type { Bead } from '../../kit/grooves'

/** A string of a ready groove: for pads of a family, a sign for each step: `.` is none, 1 to 9 is how strong. */
export interface ReadyString {
  readonly family: Family
  readonly steps: string
  /** More of single steps. */
  readonly more?: Readonly<Record<number, Partial<Omit<Bead, 'id' | 'step'>>>>
}

export interface ReadyPattern {
  readonly name: string
  readonly stepsPerBeat: number
  readonly swing?: number
  readonly isFill?: boolean
  readonly strings: readonly ReadyString[]
}

const half = { chance: 0.5 }

/** Grooves and fills of our own hand. */
export const readyPatterns: readonly ReadyPattern[] = [
  {
    name: 'Making way',
    stepsPerBeat: 4,
    strings: [
      { family: 'kick', steps: '8.....4.8.......', more: { 6: half } },
      { family: 'snare', steps: '....8.......8..2', more: { 15: half } },
      { family: 'hat', steps: '7.4.6.4.7.4.6.5.' },
    ],
  },
  {
    name: 'Slow swell',
    stepsPerBeat: 4,
    strings: [
      { family: 'kick', steps: '8......5..6.....' },
      { family: 'snare', steps: '........8.......' },
      { family: 'hat', steps: '6...4...6...4.2.', more: { 14: { repeats: { count: 2, steps: 2 } } } },
      { family: 'openHat', steps: '..............4.', more: { 14: { when: { laps: { of: 2, in: [2] } } } } },
    ],
  },
  {
    name: 'Engine room',
    stepsPerBeat: 4,
    strings: [
      { family: 'kick', steps: '8...8...8...8...' },
      { family: 'clap', steps: '....7.......7...' },
      { family: 'openHat', steps: '..6...6...6...6.' },
      { family: 'shaker', steps: '3.5.3.5.3.5.3.55', more: { 15: half } },
    ],
  },
  {
    name: 'Cross current',
    stepsPerBeat: 4,
    strings: [
      { family: 'kick', steps: '8..6..7...8..5..' },
      { family: 'snare', steps: '..2.8..2.2..8.2.', more: { 2: half, 7: half, 9: half } },
      { family: 'hat', steps: '6565656565656565' },
    ],
  },
  {
    name: 'Rolling deck',
    stepsPerBeat: 3,
    strings: [
      { family: 'kick', steps: '8....48.....' },
      { family: 'snare', steps: '...8.....8.2' },
      { family: 'hat', steps: '7.57.57.57.5' },
    ],
  },
  {
    name: 'Three waves',
    stepsPerBeat: 4,
    strings: [
      { family: 'kick', steps: '8.....5.....' },
      { family: 'snare', steps: '....6...7...' },
      { family: 'hat', steps: '6.3.5.3.5.3.' },
    ],
  },
  {
    name: 'Late tide',
    stepsPerBeat: 4,
    swing: 0.6,
    strings: [
      { family: 'kick', steps: '8..3......86....' },
      { family: 'snare', steps: '....7..2.2..8...', more: { 4: { offset: 0.12 }, 12: { offset: 0.12 } } },
      { family: 'hat', steps: '6.566.566.566.56' },
      { family: 'wood', steps: '......4.......3.', more: { 14: half } },
    ],
  },
  {
    name: 'Hull and keel',
    stepsPerBeat: 4,
    strings: [
      { family: 'lowTom', steps: '8..5..8...5.8...' },
      { family: 'midTom', steps: '..4..4..6..4..6.' },
      { family: 'kick', steps: '8.......8.......' },
      { family: 'bell', steps: '5...4...5...4...' },
    ],
  },
  {
    name: 'Roll ashore',
    stepsPerBeat: 4,
    isFill: true,
    strings: [
      { family: 'snare', steps: '3.4.5.6678899999' },
      { family: 'kick', steps: '8...........8...' },
    ],
  },
  {
    name: 'Down the ladder',
    stepsPerBeat: 4,
    isFill: true,
    strings: [
      { family: 'snare', steps: '87.7............' },
      { family: 'highTom', steps: '....87.7........' },
      { family: 'midTom', steps: '........87.7....' },
      { family: 'lowTom', steps: '............8878' },
    ],
  },
  {
    name: 'Splinter',
    stepsPerBeat: 4,
    isFill: true,
    strings: [
      { family: 'snare', steps: '8..8..8.', more: { 6: { repeats: { count: 6, steps: 2, rise: 0.4, draw: 0.3 } } } },
      { family: 'kick', steps: '.8..8..8' },
    ],
  },
]
