import { createStore } from 'zustand/vanilla'

/** The sheets that are open, the one on top last, and how much of a phone's top they leave to what is being said. */
export const openSheets = createStore<{ readonly sheets: readonly object[]; readonly leftPx: number }>(() => ({ sheets: [], leftPx: 0 }))

/** Puts a sheet on top; gives the way to take it off again. */
export function putOnTop(sheet: object): () => void {
  openSheets.setState(({ sheets }) => ({ sheets: [...sheets, sheet] }))
  return () => openSheets.setState(({ sheets }) => ({ sheets: sheets.filter((one) => one !== sheet) }))
}

export const isOnTop = (sheet: object): boolean => openSheets.getState().sheets.at(-1) === sheet
