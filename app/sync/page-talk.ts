import type { Channel } from './lead'

/** What the pages of one browser tell each other. */
type Told =
  | { readonly type: 'changed'; readonly keys: readonly string[] }
  | { readonly type: 'state'; readonly away: boolean; readonly why?: string | undefined }

export interface HowItStands {
  readonly away: boolean
  readonly why?: string | undefined
}

interface Ears {
  /** Documents were changed and kept by another page, by their keys. */
  changed(keys: readonly string[]): void
  /** How the page that said it stands with the server. */
  stands(how: HowItStands): void
}

/** Talks with the other pages; without a channel there are none. */
export function pageTalk(channel: Channel | undefined, ears: Ears) {
  let isOver = false
  const tell = (told: Told) => channel?.postMessage(told)
  channel?.addEventListener('message', ({ data }) => {
    if (isOver) return
    const told = data as Told
    if (told.type === 'state') ears.stands(told)
    if (told.type === 'changed') ears.changed(told.keys)
  })
  return {
    tellChanged: (keys: readonly string[]): void => tell({ type: 'changed', keys }),
    tellState: ({ away, why }: HowItStands): void => tell({ type: 'state', away, why }),
    stop(): void {
      isOver = true
      channel?.close()
    },
  }
}
