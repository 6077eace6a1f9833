import { useGrowing } from './use-growing'

/**
 * True from a moment after something is ready: what stands first is drawn by then. React's deferred value does the same only for
 * what is urgent: within what is deferred already it waits no second time.
 */
export function useMomentLater(isReady = true): boolean {
  return useGrowing(isReady ? 2 : 1, 1) === 2
}
