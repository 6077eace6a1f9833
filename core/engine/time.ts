/** Longest run of frames rendered in one go. */
export const CHUNK_FRAMES = 128
/** Control-rate work happens every so many frames, counted from the engine's frame 0. */
export const GRID_FRAMES = 16
/** A frame that never comes. */
export const NEVER = 9007199254740991
/** The longest cell of a filter that nothing but its envelope moves, counted from the strike. */
export const LONG_CELL_FRAMES = 256
