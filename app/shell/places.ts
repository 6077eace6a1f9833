export const places = [
  { path: 'gather', name: 'Gather' },
  { path: 'cut', name: 'Cut' },
  { path: 'board', name: 'Board' },
  { path: 'shape', name: 'Shape' },
  { path: 'groove', name: 'Groove' },
  { path: 'mix', name: 'Mix' },
  { path: 'ship', name: 'Ship' },
] as const
export type PlacePath = (typeof places)[number]['path']
