import type { TableReading } from '@heliaster/core/ties'

/** How many spots and openings a drum has, and which cells no pad is for, in words. */
export function drumWords({ spots, openings, cells }: Pick<TableReading, 'spots' | 'openings' | 'cells'>): {
  count: string
  holes?: string
} {
  const count = [spots.length > 1 ? `${spots.length} spots` : '', openings.length > 1 ? `${openings.length} openings` : '']
  const holes = cells.flatMap((row, i) =>
    row.flatMap((cell, k) => (cell ? [] : [[spots[i], openings[k]].filter(Boolean).join(' ') || 'the plain one'])),
  )
  return {
    count: count.filter(Boolean).join(' and '),
    ...(holes.length > 0
      ? { holes: `${holes.length === 1 ? 'One is' : `${holes.length} are`} missing: ${holes.join(', ').toLowerCase()}.` }
      : {}),
  }
}
