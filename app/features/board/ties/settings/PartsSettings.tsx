import type { Kit, PadId } from '@heliaster/core/kit'
import { evenAgain, nameOf, onOtherPad, partSpans, splitPart, withBorder, withoutPart } from '@heliaster/core/ties'
import type { PartsTie } from '@heliaster/core/ties'
import { useState } from 'react'
import { View } from 'react-native'

import { hearClip } from '../../../../audio/engine/sound'
import { makeId } from '../../../../documents/make-id'
import { useSession } from '../../../../kit-view/session'
import { padName } from '../../../../kit-view/use-kit'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { notify } from '../../../../ui/layout/notices'
import { Text } from '../../../../ui/layout/Text'
import { PartsWave } from './PartsWave'
import { usePutTie } from './put-tie'

const STARTS = [
  { value: '0', text: 'At once' },
  { value: '0.25', text: 'Next quarter beat' },
  { value: '0.5', text: 'Next half beat' },
  { value: '1', text: 'Next beat' },
  { value: '2', text: 'Two beats' },
  { value: '4', text: 'Four beats' },
]

/** Which stretch of a recording lies on which pad: drawn on its wave, even until it is drawn. */
export function PartsSettings({ kit, tie }: { readonly kit: Kit; readonly tie: PartsTie }) {
  const { put, slide, end } = usePutTie(kit, tie)
  const [chosen, setChosen] = useState(0)
  const place = Math.min(chosen, tie.parts.length - 1)
  const spans = partSpans(tie)
  const rate = kit.audio[tie.clip.audio]?.sampleRateHz ?? 48000
  const sounding = useSoundingParts(tie)
  const seconds = (frame: number) => ((frame - tie.clip.startFrame) / rate).toFixed(3)
  const choose = (at: number) => {
    setChosen(at)
    hearClip({ ...tie.clip, ...spans[at]! }).catch((error: Error) => notify(error.message))
  }
  const span = spans[place]!
  const others = tie.parts.filter(({ pad }, i) => i !== place && pad === tie.parts[place]!.pad).length
  return (
    <>
      <PartsWave
        clip={tie.clip}
        spans={spans}
        sampleRateHz={rate}
        chosen={place}
        sounding={sounding}
        onChoose={choose}
        onBorder={(at, frame) => slide({ parts: withBorder(tie, at, frame).parts })}
        onDone={end}
      />
      <Text look="figures">{`Part ${place + 1} of ${tie.parts.length}: ${seconds(span.startFrame)} to ${seconds(span.endFrame)} s`}</Text>
      <Chips
        label="It lies on"
        options={kit.pads.map((pad) => ({ value: pad.id, text: padName(kit, pad) }))}
        value={tie.parts[place]!.pad}
        onChoose={(padId: PadId) => put({ parts: onOtherPad(tie, place, padId).parts })}
      />
      {others > 0 && (
        <Text
          look="small"
          tone="muted"
        >{`${others + 1} parts lie on ${nameOf(kit, tie.parts[place]!.pad)}; each strike sounds the next.`}</Text>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Part it in two" onPress={() => put({ parts: splitPart(makeId, tie, place).parts })} />
        <Button
          label="Join it to its neighbour"
          disabled={tie.parts.length < 2}
          onPress={() => put({ parts: withoutPart(tie, place).parts })}
        />
        <Button label="Even parts" onPress={() => put({ parts: evenAgain(tie).parts })} />
      </View>
      <Chips
        label="A strike begins"
        options={STARTS}
        value={`${tie.startsEveryBeats ?? 0}`}
        onChoose={(beats: string) => put({ startsEveryBeats: Number(beats) || undefined })}
      />
      <Text look="small" tone="muted">
        {tie.startsEveryBeats
          ? 'In step with the groove, or with the part that sounds; the first one at once.'
          : 'As soon as it is struck.'}
      </Text>
    </>
  )
}

/** The places of the parts that sound now: of each pad that is lit, the one that its strike came to. */
function useSoundingParts(tie: PartsTie): readonly number[] {
  const lit = useSession((state) => state.lit)
  const sounding = useSession((state) => state.sounding)
  const seen = new Map<PadId, number>()
  return tie.parts.flatMap(({ pad }, place) => {
    const turn = seen.get(pad) ?? 0
    seen.set(pad, turn + 1)
    return sounding.includes(pad) && lit[pad]?.turn === turn ? [place] : []
  })
}
