/** A screen that does not say so is taken to stand after this time. */
const LATEST_MS = 3000

let stands: () => void
/** Until then nothing is fetched that the first screen does not show: it would come in its way. */
const firstScreen = new Promise<void>((resolve) => (stands = resolve))

/** The first screen can be used. */
export function screenStands(): void {
  stands()
}

/** What waits for the first screen waits no longer than this. */
export function untilFirstScreen(): Promise<void> {
  let timer: ReturnType<typeof setTimeout>
  const latest = new Promise<void>((resolve) => (timer = setTimeout(resolve, LATEST_MS)))
  return Promise.race([firstScreen, latest]).finally(() => clearTimeout(timer))
}
