import { rememberStops } from '../kit-view/recent-strikes'

/** What is played is remembered from here on; the first screen stands without it. */
export function rememberPlaying(): void {
  void import('../audio/performances/remembering').then(({ startRemembering, onActs }) => {
    startRemembering()
    onActs(rememberStops)
  })
}
