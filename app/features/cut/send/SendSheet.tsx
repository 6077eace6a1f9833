import type { Source } from '@heliaster/core/kit'

import { useKit, useKitId } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { CutHit } from '../bench/use-source-cut'
import { LeftOut, SendPicture, WayChoices, WhereTo } from './SendChoices'
import type { SendWay } from './send-hits'
import { useSending } from './use-sending'
import type { ToSend } from './use-sending'

const WAYS = [
  { value: 'pads', text: 'Each its own pad' },
  { value: 'turns', text: 'One pad, as turns' },
  { value: 'bands', text: 'One pad, by loudness' },
  { value: 'things', text: 'Alike hits together' },
  { value: 'rhythm', text: 'With its groove' },
] as const
const LOOP = { value: 'loop', text: 'As a loop' } as const
const WORDS: Record<SendWay, string> = {
  pads: 'Every kept hit becomes a pad.',
  turns: 'The hits are takes of one thing: each strike plays another.',
  loop: 'Each slice becomes a pad, and a groove plays them in their order at the tempo of the kit.',
  rhythm: 'Each thing that was struck becomes a pad, and what was played a groove on these pads.',
  things: 'Each thing that was struck becomes a pad: its hits take turns, in bands where soft and loud ones stand apart.',
  bands: 'Soft hits answer soft strikes, loud ones loud; alike ones take turns.',
}

interface Props {
  readonly source: Source
  readonly hits: readonly CutHit[]
  /** The way that is proposed. */
  readonly first?: SendWay
  readonly onHear: (item: CutHit) => void
  readonly onClose: () => void
}

/** One question, with a picture of the answer, before anything moves. */
export function SendSheet({ source, hits, ...others }: Props) {
  const kit = useKit()
  return kit ? <SendQuestion toSend={{ kit, source, hits }} {...others} /> : null
}

function SendQuestion({ toSend, first = 'pads', onHear, onClose }: Omit<Props, 'source' | 'hits'> & { readonly toSend: ToSend }) {
  const kitId = useKitId()
  const { source, hits } = toSend
  const sending = useSending(toSend, first, onClose)
  const { way, setWay, pads, hasGroove, send } = sending
  return (
    <Sheet
      title={`Send ${hits.length} ${hits.length === 1 ? 'hit' : 'hits'} to pads`}
      isOpen
      onClose={onClose}
      actions={
        <Button
          label={hasGroove ? 'Send, and open the groove' : 'Send to the Board'}
          kind="main"
          disabled={pads.length === 0}
          onPress={() => send(kitId)}
        />
      }
    >
      <Chips<SendWay> label="How" options={source.cut.grid?.kind === 'beats' ? [...WAYS, LOOP] : WAYS} value={way} onChoose={setWay} />
      <Text look="small" tone="muted">
        {WORDS[way]}
      </Text>
      <SendPicture toSend={toSend} sending={sending} onHear={onHear} />
      <WayChoices toSend={toSend} sending={sending} />
      <WhereTo toSend={toSend} sending={sending} />
      <LeftOut sending={sending} />
    </Sheet>
  )
}
