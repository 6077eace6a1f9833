/** Fades that every cut gets, so that no clip clicks. */
export const EDGE_FADE_IN_SECONDS = 0.0005
export const EDGE_FADE_OUT_SECONDS = 0.005
