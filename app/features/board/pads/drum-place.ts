import { TOUCH } from '../../../ui/theme/theme'

/** Where the spots of a drum stand on its face, and how large they are, px. */
export interface SpotPlaces {
  readonly size: number
  readonly at: readonly { readonly x: number; readonly y: number }[]
}

const GAP = 4
/** A spot has its name under it. */
const NAME_PX = 18

/** So many spots on a face, in as many rows as let them be largest, each with room for its name. */
export function placeSpots(count: number, width: number, height: number): SpotPlaces {
  const sizeIn = (columns: number) => {
    const rows = Math.ceil(count / columns)
    return Math.floor(Math.min((width - (columns - 1) * GAP) / columns, (height - rows * NAME_PX - 2 * GAP) / rows))
  }
  let columns = 1
  for (let more = 2; more <= count; more++) if (sizeIn(more) > sizeIn(columns)) columns = more
  const [size, rows] = [sizeIn(columns), Math.ceil(count / columns)]
  const top = (height - rows * (size + NAME_PX)) / 2
  const at = Array.from({ length: count }, (_, i) => {
    const row = Math.floor(i / columns)
    const inRow = row === rows - 1 ? count - row * columns : columns // the last row stands in the middle
    const left = (width - inRow * size - (inRow - 1) * GAP) / 2
    return { x: left + (i - row * columns) * (size + GAP), y: top + row * (size + NAME_PX) }
  })
  return { size, at }
}

/** A face of the board: in which column and row it begins, and over how many columns it goes. */
export interface Place {
  readonly column: number
  readonly row: number
  readonly span: number
}

/** Faces in their order, row by row; one that finds no room in its row begins the next. */
export function inRows(spans: readonly number[], columns: number): { readonly places: readonly Place[]; readonly rows: number } {
  let [column, row] = [0, 0]
  const places = spans.map((wanted) => {
    const span = Math.min(wanted, columns)
    if (column + span > columns) [column, row] = [0, row + 1]
    const place = { column, row, span }
    column += span
    return place
  })
  return { places, rows: spans.length === 0 ? 0 : row + 1 }
}

/** Over how many columns the face of a drum goes, so that a finger still tells its spots apart. */
export function spanOf(spots: number, size: number, between: number, columns: number): number {
  for (let span = 1; span < columns; span++) if (placeSpots(spots, span * size + (span - 1) * between, size).size >= TOUCH) return span
  return columns
}
