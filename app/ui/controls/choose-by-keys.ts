/** What the elements let Enter alone press; boxes and switches of the browser know Space themselves. */
const CHOSEN: readonly (string | null)[] = ['radio', 'checkbox', 'switch']
const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }

/**
 * Space chooses what has the focus, as Enter does, and arrows go from one of a few to the next, round and round: what they
 * come to is not chosen yet, since choosing may do something. Nobody else hears a key that did so. Returns the way to stop.
 */
export function chooseByKeys(): () => void {
  const onKey = (event: KeyboardEvent) => {
    const at = event.target
    if (!(at instanceof HTMLElement) || at instanceof HTMLInputElement || event.ctrlKey || event.metaKey || event.altKey) return
    const isTaken = event.key === ' ' ? choose(at, event.repeat) : go(at, STEPS[event.key])
    if (!isTaken) return
    event.preventDefault()
    event.stopPropagation()
  }
  window.addEventListener('keydown', onKey, { capture: true })
  return () => window.removeEventListener('keydown', onKey, { capture: true })
}

function choose(at: HTMLElement, isRepeat: boolean): boolean {
  if (!CHOSEN.includes(at.getAttribute('role'))) return false
  if (!isRepeat) at.click()
  return true
}

function go(at: HTMLElement, step: number | undefined): boolean {
  const group = at.closest('[role=radiogroup]')
  if (step === undefined || !group || at.getAttribute('role') !== 'radio') return false
  const radios = Array.from(group.querySelectorAll<HTMLElement>('[role=radio]'))
  radios[(radios.indexOf(at) + step + radios.length) % radios.length]!.focus()
  return true
}
