import type { Clip, Kit, MatterStep } from '@heliaster/core/kit'
import { View } from 'react-native'

import { showPart } from '../../../kit-view/shape-parts'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { madeStep } from '../matter/matter-edits'
import { nearBeats } from '../matter/step-words'

interface Props {
  readonly kit: Kit
  readonly clip: Clip
  readonly sampleRateHz: number
  readonly onClips: (change: (clip: Clip) => Clip) => void
  readonly onDone: () => void
}

/** The step by which a clip is as long as so many beats of its kit. */
const tempoStep = ({ process = [] }: Clip): MatterStep | undefined => process.find(({ kind, values, bypass }) => kind === 'time' && !bypass && (values.beats ?? 0) > 0) // prettier-ignore

/** Whether the slices follow the tempo of the kit: their attacks stay what they are, each in its time. */
export function InTempo({ kit, clip, sampleRateHz, onClips, onDone }: Props) {
  const step = tempoStep(clip)
  const beats = nearBeats((clip.endFrame - clip.startFrame) / sampleRateHz, kit.tempoBpm)
  const put = (change: (clip: Clip) => Clip) => {
    onClips(change)
    onDone()
  }
  const follow = () => put((one) => ({ ...one, process: [...(one.process ?? []).filter((other) => other !== tempoStep(one)), madeStep({ kind: 'time', values: { beats } })] })) // prettier-ignore
  const leave = () =>
    put(({ process = [], ...one }) => {
      const left = process.filter((other) => other !== tempoStep({ ...one, process }))
      return left.length > 0 ? { ...one, process: left } : one
    })
  return (
    <View style={{ gap: 6 }}>
      <Text look="small" tone="muted">
        {step
          ? `It lasts ${said(step.values.beats!)} whatever the kit's tempo is, and each attack stays as it was.`
          : `At ${kit.tempoBpm} beats a minute it is about ${said(beats)} long.`}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {step ? (
          <>
            <Button label="As long as recorded" onPress={leave} />
            <Button label="Other beats" onPress={() => showPart('matter')} />
          </>
        ) : (
          <Button label="Follow the kit's tempo" icon="metronome" onPress={follow} />
        )}
      </View>
    </View>
  )
}

const said = (beats: number) => `${beats} ${beats === 1 ? 'beat' : 'beats'}`
