/** How often it is looked whether something moves again. */
const STILL_MS = 50

/**
 * Calls `draw` for each picture of the screen while it says that something moved, and twenty times a second while nothing
 * does: a picture that is asked for is made, even where nothing in it has changed. Returns the way to end it.
 */
export function whileMoving(draw: () => boolean): () => void {
  let frame = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  const next = () => {
    if (draw()) frame = requestAnimationFrame(next)
    else timer = setTimeout(next, STILL_MS)
  }
  frame = requestAnimationFrame(next)
  return () => {
    cancelAnimationFrame(frame)
    clearTimeout(timer)
  }
}
