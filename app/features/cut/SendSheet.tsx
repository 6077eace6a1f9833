import type { PadId, Source } from '@heliaster/core/kit'
import { suggestBands } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../ui/Button'
import { Chips } from '../../ui/Chips'
import { notify } from '../../ui/notices'
import { Sheet } from '../../ui/Sheet'
import { Slider } from '../../ui/Slider'
import { Star } from '../../ui/Star'
import { Text } from '../../ui/Text'
import { editKit, useKit, useKitId } from '../shell'
import { session } from '../shell/session'
import { padName } from '../shell/use-kit'
import { padsToSend, sendEdits } from './send-hits'
import type { SendWay } from './send-hits'
import type { CutHit } from './use-source-cut'

const WAYS = [
  { value: 'pads', text: 'Each its own pad' },
  { value: 'turns', text: 'One pad, as turns' },
  { value: 'bands', text: 'One pad, by loudness' },
] as const
const WORDS: Record<SendWay, string> = {
  pads: 'Every kept hit becomes a pad.',
  turns: 'The hits are takes of one thing: each strike plays another.',
  bands: 'Soft hits answer soft strikes, loud ones loud; alike ones take turns.',
}

/** One question, with a picture of the answer, before anything moves. */
export function SendSheet({
  source,
  hits,
  onClose,
}: {
  readonly source: Source
  readonly hits: readonly CutHit[]
  readonly onClose: () => void
}) {
  const kit = useKit()
  const kitId = useKitId()
  const [way, setWay] = useState<SendWay>('pads')
  const [target, setTarget] = useState<PadId | 'new'>('new')
  const suggested = useMemo(() => suggestBands(hits.map(({ hit }) => hit!.loudnessDb)), [hits])
  const [bandCount, setBandCount] = useState(Math.max(1, suggested))
  const pads = useMemo(() => (kit ? padsToSend(kit, source, hits, way, bandCount) : []), [kit, source, hits, way, bandCount])
  if (!kit) return null
  const into = way === 'pads' ? undefined : kit.pads.find((pad) => pad.id === target)
  const send = () => {
    editKit(kitId, sendEdits(kit, source, pads, into))
    session.setState({ padId: into?.id ?? pads[0]?.id })
    notify(
      pads.length > 1 ? `${pads.length} pads are on the Board.` : `${hits.length} hits are on ${into ? padName(kit, into) : 'a new pad'}.`,
    )
    onClose()
    router.navigate(`/kit/${kitId}/board`)
  }
  const left = way === 'pads' ? hits.length - pads.length : 0
  return (
    <Sheet
      title={`Send ${hits.length} ${hits.length === 1 ? 'hit' : 'hits'} to pads`}
      isOpen
      onClose={onClose}
      actions={<Button label="Send to the Board" kind="main" disabled={pads.length === 0} onPress={send} />}
    >
      <Chips label="How" options={WAYS} value={way} onChoose={setWay} />
      <Text look="small" tone="muted">
        {WORDS[way]}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, justifyContent: 'center' }} aria-label="What will be made">
        {pads.slice(0, 24).map((pad) => (
          <Star key={pad.id} size={way === 'pads' ? 36 : 112} turns={pad.bands.map((band) => band.turns.length)} />
        ))}
        {pads.length > 24 && <Text tone="muted">and {pads.length - 24} more</Text>}
      </View>
      {way === 'bands' && (
        <Slider
          label="Bands"
          value={bandCount}
          min={1}
          max={Math.min(12, hits.length)}
          step={1}
          unit=""
          neutral={suggested}
          onSlide={setBandCount}
          onDone={() => undefined}
        />
      )}
      {way !== 'pads' && kit.pads.length > 0 && (
        <Chips
          label="Onto"
          options={[{ value: 'new', text: 'A new pad' }, ...kit.pads.map((pad) => ({ value: pad.id, text: padName(kit, pad) }))]}
          value={target}
          onChoose={setTarget}
        />
      )}
      {into && <Text look="small">The clips of {padName(kit, into)} are replaced; all its settings stay.</Text>}
      {left > 0 && (
        <Text look="small" tone="coral">
          A kit holds 128 pads: {left} hits find no place. Pass some, or send them as turns.
        </Text>
      )}
    </Sheet>
  )
}
