import { useEffect, useEffectEvent } from 'react'

import { openSheets } from './open-sheets'

/** Escape leaves what the page is about just now, as long as no sheet lies over it. */
export function useLeave(onLeave: () => void): void {
  const leave = useEffectEvent(onLeave)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented && openSheets.getState().sheets.length === 0) leave()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
