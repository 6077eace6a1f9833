import type { Source, SourceId } from '@heliaster/core/kit'
import type { Virtualizer } from '@tanstack/react-virtual'

import { session } from '../../../kit-view/session'
import { favourSounds, judgeSound } from './sound-actions'
import type { RowActions } from './SourceRow'

interface ListKeys {
  readonly shown: readonly Source[]
  readonly chosenId: SourceId | undefined
  readonly rows: Virtualizer<HTMLElement, Element>
  readonly actions: RowActions
  readonly hearsOnSelect: boolean
}

interface KeyEvent {
  readonly key: string
  readonly target: unknown
  readonly ctrlKey: boolean
  readonly metaKey: boolean
  preventDefault(): void
  stopPropagation(): void
}

const PAGE = 8

/**
 * The list from the keyboard: arrows go from sound to sound and sound them, Space hears again, Enter opens Cut, + keeps,
 * - passes, * makes a favourite, F2 opens name and settings.
 */
export function useListKeys({ shown, chosenId, rows, actions, hearsOnSelect }: ListKeys): object {
  const onKeyDown = (event: KeyEvent) => {
    if (event.ctrlKey || event.metaKey) return
    const at = shown.findIndex((source) => source.id === chosenId)
    const chosen = shown[at]
    const go = (to: number) => {
      const index = Math.max(0, Math.min(shown.length - 1, to))
      rows.scrollToIndex(index, { align: 'auto' })
      session.setState({ sourceId: shown[index].id })
      if (hearsOnSelect) actions.hear(shown[index])
    }
    const onRow = (event.target as HTMLElement).getAttribute?.('role') === 'button' // buttons keep Enter and Space for themselves
    const ways: Record<string, (() => void) | undefined> = {
      ArrowDown: () => go(at + 1),
      ArrowUp: () => go(at < 0 ? 0 : at - 1),
      PageDown: () => go(at + PAGE),
      PageUp: () => go(at - PAGE),
      Home: () => go(0),
      End: () => go(shown.length - 1),
      Enter: chosen && !onRow ? () => actions.cut(chosen) : undefined,
      ' ': chosen && !onRow ? () => actions.hear(chosen) : undefined,
      '+': chosen && (() => judgeSound(chosen, chosen.verdict === 'keep' ? 'open' : 'keep')),
      '-': chosen && (() => judgeSound(chosen, chosen.verdict === 'pass' ? 'open' : 'pass')),
      '*': chosen && (() => favourSounds([chosen], !chosen.favourite)),
      F2: chosen && (() => actions.open(chosen)),
    }
    const way = ways[event.key]
    if (!way) return
    event.preventDefault()
    event.stopPropagation()
    way()
  }
  return { tabIndex: 0, role: 'group', onKeyDown }
}
