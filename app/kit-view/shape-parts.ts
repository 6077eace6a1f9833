import { createStore } from 'zustand/vanilla'

/** What shapes a hit, part by part: the recipe at once, all else one step away. */
export const PARTS = [
  { value: 'recipe', text: 'Recipe' },
  { value: 'envelopes', text: 'Envelopes' },
  { value: 'clip', text: 'Clip' },
  { value: 'slices', text: 'Slices' },
  { value: 'matter', text: 'Matter' },
  { value: 'character', text: 'Character' },
  { value: 'filters', text: 'Filters' },
  { value: 'movers', text: 'Dynamics' },
] as const
export type PartName = (typeof PARTS)[number]['value']

/** The part that is looked at stays when another pad is struck. */
export const shownPart = createStore<{ part: PartName }>(() => ({ part: 'recipe' }))
export const showPart = (part: PartName) => shownPart.setState({ part })
