import type { EventId, Performance, PlayedStrike } from '@heliaster/core/kit'
import { movedBy } from '@heliaster/core/performance'

/** What is chosen on the strings, and what hands do to it: `onFields` follows a drag, `onDone` ends it. */
export interface StringsHands {
  readonly performance: Performance
  readonly chosen: ReadonlySet<EventId>
  readonly onChoose: (ids: ReadonlySet<EventId>) => void
  readonly onFields: (fields: Partial<Performance>) => void
  readonly onDone: () => void
  readonly onRemove: () => void
}

interface KeyEvent {
  readonly key: string
  readonly shiftKey: boolean
  readonly altKey: boolean
  readonly ctrlKey?: boolean
  readonly metaKey?: boolean
  readonly target?: unknown
  readonly currentTarget?: unknown
  preventDefault(): void
}

const WAYS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1 }
const STEP_SECONDS = 0.001

/** Arrow keys go from strike to strike, with Shift they choose both, with Alt they move what is chosen; Delete removes it. */
export function useStringsKeys({ performance, chosen, onChoose, onFields, onDone, onRemove }: StringsHands) {
  const strikes = performance.events.filter((event): event is PlayedStrike => event.type === 'strike')
  const step = (way: number, adds: boolean) => {
    const places = strikes.flatMap(({ id }, place) => (chosen.has(id) ? [place] : []))
    const from = way > 0 ? (places[places.length - 1] ?? -1) : (places[0] ?? strikes.length)
    const next = strikes[Math.min(strikes.length - 1, Math.max(0, from + way))]
    if (next) onChoose(new Set([...(adds ? chosen : []), next.id]))
  }
  return (event: KeyEvent) => {
    if (event.target !== event.currentTarget) return // an edge has keys of its own
    const way = WAYS[event.key]
    if (way !== undefined && event.altKey && chosen.size > 0) {
      event.preventDefault()
      onFields(movedBy(performance, chosen, way * Math.round((event.shiftKey ? 10 : 1) * STEP_SECONDS * performance.sampleRateHz)))
      onDone()
    } else if (way !== undefined) {
      event.preventDefault()
      step(way, event.shiftKey)
    } else if ((event.key === 'Delete' || event.key === 'Backspace') && chosen.size > 0) {
      event.preventDefault()
      onRemove()
    } else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault()
      onChoose(new Set(strikes.map(({ id }) => id)))
    }
  }
}
