import type { Audio } from '@heliaster/core/audio'
import { matchLoop, snapLoop } from '@heliaster/core/audio'
import type { LoopEnds } from '@heliaster/core/audio'
import type { Clip, PadSettings } from '@heliaster/core/kit'
import { useEffect, useEffectEvent, useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Slider } from '../../ui/controls/Slider'
import { Text } from '../../ui/layout/Text'
import { LoopStrip } from './LoopStrip'

type Loop = NonNullable<Clip['loop']>

const WAYS = [
  { value: 'off', text: 'Plays once' },
  { value: 'forward', text: 'Goes round' },
  { value: 'backAndForth', text: 'There and back' },
] as const
const UNTILS = [
  { value: 'end', text: 'To its end' },
  { value: 'letGo', text: 'Until let go' },
] as const

/** Ends are looked for so far away, and compared over so much to each side. */
const SNAP_SECONDS = 0.02
const MATCH_SECONDS = 0.1
const SPAN_SECONDS = 0.02
/** A new loop is the second half of the clip, with a fade of so much. */
const FIRST_FADE_SECONDS = 0.02

interface Props {
  readonly clip: Clip
  /** Whether what is set beside it is for this clip alone too; a loop always is. */
  readonly isAlone: boolean
  readonly sampleRateHz: number
  readonly mode: PadSettings['mode']
  /** Whether the pad's level envelope ends in silence. */
  readonly fallsSilent: boolean
  readonly audioOf: () => Promise<Audio>
  readonly onHearSeam: () => void
  readonly onSlide: (loop: Loop | undefined) => void
  readonly onDone: () => void
}

/** The stretch of a clip that goes round, and how. */
export function LoopControls({ clip, isAlone, sampleRateHz, mode, fallsSilent, audioOf, onHearSeam, onSlide, onDone }: Props) {
  const [words, setWords] = useState<string>()
  const samples = useSamples(audioOf, clip, clip.loop !== undefined)
  const { loop, startFrame, endFrame } = clip
  const length = endFrame - startFrame
  const put = (next: Loop | undefined) => {
    onSlide(next)
    onDone()
    setWords(undefined)
  }
  const choose = (way: 'off' | Loop['kind']) => {
    if (way === 'off') return put(undefined)
    const fresh: Loop = { startFrame: startFrame + Math.floor(length / 2), endFrame, kind: way, until: 'end', crossfadeSeconds: FIRST_FADE_SECONDS } // prettier-ignore
    put(loop ? { ...loop, kind: way } : fresh)
  }
  const inMs = (frame: number) => ((frame - startFrame) / sampleRateHz) * 1000
  const toFrame = (ms: number) => startFrame + Math.round((ms / 1000) * sampleRateHz)
  const lookFor = async (find: (channels: readonly Float32Array[], ends: LoopEnds) => LoopEnds, found: string) => {
    try {
      const { channels } = await audioOf()
      const ends = find(channels, loop!)
      const isSame = ends.startFrame === loop!.startFrame && ends.endFrame === loop!.endFrame
      put({ ...loop!, startFrame: Math.max(startFrame, ends.startFrame), endFrame: Math.min(endFrame, ends.endFrame) })
      setWords(isSame ? 'There is no better place nearby; the ends stay.' : found)
    } catch (error) {
      setWords(`The ends stay: ${(error as Error).message}`)
    }
  }
  const isHeld = mode === 'hold' || mode === 'loopUntilLetGo'
  return (
    <View style={{ gap: 8 }}>
      <Chips label={isAlone ? 'The clip' : 'The clip of this cell alone'} options={WAYS} value={loop?.kind ?? 'off'} onChoose={choose} />
      {loop && (
        <>
          <Chips label="Goes round" options={UNTILS} value={loop.until} onChoose={(until) => put({ ...loop, until })} />
          {loop.until === 'letGo' && !isHeld && (
            <Text look="small" tone="coral" role="status">
              Nothing lets go of this pad: it plays once. Choose Hold for it, or let it go round to its end.
            </Text>
          )}
          {loop.until === 'end' && mode === 'oneShot' && !fallsSilent && (
            <Text look="small" tone="coral" role="status">
              Nothing ends this strike: it goes round until it is stopped. Shape the level, or choose Hold for the pad.
            </Text>
          )}
          {samples && <LoopStrip samples={samples} sampleRateHz={sampleRateHz} clip={clip} loop={loop} onSlide={onSlide} onDone={onDone} />}
          <Slider
            label="Goes round from"
            value={inMs(loop.startFrame)}
            min={0}
            max={inMs(endFrame)}
            step={0.1}
            unit="ms"
            onSlide={(ms) => onSlide({ ...loop, startFrame: Math.min(toFrame(ms), loop.endFrame - 2) })}
            onDone={onDone}
          />
          <Slider
            label="Goes round at"
            value={inMs(loop.endFrame)}
            min={0}
            max={inMs(endFrame)}
            step={0.1}
            unit="ms"
            onSlide={(ms) => onSlide({ ...loop, endFrame: Math.min(endFrame, Math.max(toFrame(ms), loop.startFrame + 2)) })}
            onDone={onDone}
          />
          {loop.kind === 'forward' && (
            <Slider
              label="Fade at the seam"
              value={loop.crossfadeSeconds * 1000}
              min={0}
              max={500}
              step={0.1}
              power={2}
              unit="ms"
              neutral={0}
              onSlide={(ms) => onSlide({ ...loop, crossfadeSeconds: ms / 1000 })}
              onDone={onDone}
            />
          )}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Button label="Hear the seam" icon="volume-high" onPress={onHearSeam} />
            <Button
              label="Ends to zero crossings"
              onPress={() =>
                void lookFor((channels, ends) => snapLoop(channels, ends, SNAP_SECONDS * sampleRateHz), 'Both ends rise through zero.')
              }
            />
            <Button
              label="Find the best end"
              onPress={() =>
                void lookFor(
                  (channels, ends) => matchLoop(channels, ends, MATCH_SECONDS * sampleRateHz, SPAN_SECONDS * sampleRateHz),
                  'The end stands where the sound is most like its start.',
                )
              }
            />
          </View>
          {words && (
            <Text look="small" tone="muted" role="status">
              {words}
            </Text>
          )}
        </>
      )}
    </View>
  )
}

/** The first channel of a clip's file, once it is asked for; missing audio is named on the Board and in Ship. */
function useSamples(audioOf: Props['audioOf'], { audio }: Clip, isWanted: boolean): Float32Array | undefined {
  const [samples, setSamples] = useState<{ of: Clip['audio']; channel: Float32Array }>()
  const read = useEffectEvent(audioOf)
  useEffect(() => {
    if (!isWanted) return undefined
    let gone = false
    read().then(
      ({ channels }) => !gone && setSamples({ of: audio, channel: channels[0]! }),
      () => undefined,
    )
    return () => {
      gone = true
    }
  }, [audio, isWanted])
  return samples?.of === audio ? samples.channel : undefined
}
