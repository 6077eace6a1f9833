const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto' })
const date = new Intl.DateTimeFormat('en', { day: 'numeric', month: 'long', year: 'numeric' })
const MINUTE_MS = 60_000
const STEPS = [
  { unit: 'minute', ms: MINUTE_MS, until: 60 },
  { unit: 'hour', ms: 60 * MINUTE_MS, until: 24 },
  { unit: 'day', ms: 24 * 60 * MINUTE_MS, until: 14 },
] as const

/** When something was changed, as one says it: a while ago, or on a day; nothing where that is not known. Milliseconds since 1970. */
export function changedWords(atMs: number, nowMs: number): string {
  if (atMs <= 0) return ''
  const agoMs = Math.max(0, nowMs - atMs)
  if (agoMs < MINUTE_MS) return 'changed just now'
  const step = STEPS.find(({ ms, until }) => agoMs < until * ms)
  return step ? `changed ${relative.format(-Math.floor(agoMs / step.ms), step.unit)}` : `changed on ${date.format(atMs)}`
}
