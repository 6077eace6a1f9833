import { wasCoded } from '@heliaster/core/kit'
import type { Clip, Kit } from '@heliaster/core/kit'
import { beatsWithin } from '@heliaster/core/slices'
import { useState } from 'react'
import { View } from 'react-native'

import { decodedAudio } from '../../../audio/files/audio-files'
import { coreWork } from '../../../audio/workers/workers'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly clip: Clip
  readonly sampleRateHz: number
  readonly onFrames: (frames: readonly number[]) => void
}

const BEATS = [
  { beats: 1, text: 'On beats' },
  { beats: 0.5, text: 'On halves' },
  { beats: 0.25, text: 'On quarters' },
] as const

/** Where slices begin: at what is struck, or in time with the kit. */
export function SliceStart({ kit, clip, sampleRateHz, onFrames }: Props) {
  const [words, say] = useState<string>()
  const [isBusy, setBusy] = useState(false)
  const find = async () => {
    setBusy(true)
    try {
      const { audio } = await decodedAudio(clip.audio)
      const isCoded = wasCoded(kit.audio[clip.audio] ?? { name: '' })
      const frames = await coreWork().slicesAtStrikes(audio, { startFrame: clip.startFrame, endFrame: clip.endFrame }, isCoded)
      say(frames.length < 2 ? 'There is no second strike in it. Cut it on beats, or by hand.' : undefined)
      if (frames.length > 1) onFrames(frames)
    } catch {
      say('Its recording is not here, so that nothing can be found in it. Bring it back, or cut it on beats.')
    } finally {
      setBusy(false)
    }
  }
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button kind="main" label="At its strikes" busy={isBusy} onPress={() => void find()} />
        {BEATS.map(({ beats, text }) => (
          <Button key={text} label={text} onPress={() => onFrames(beatsWithin(clip, sampleRateHz, kit.tempoBpm, beats))} />
        ))}
      </View>
      {words && (
        <Text look="small" tone="coral" role="status">
          {words}
        </Text>
      )}
    </>
  )
}
