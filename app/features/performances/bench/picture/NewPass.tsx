import type { Kit, Performance } from '@heliaster/core/kit'
import { fromFirstPicture, laidOnFilm, punchedIn, strikesOf } from '@heliaster/core/performance'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sound } from '../../../../audio/engine/sound'
import { FILM, hearing, runFilm, stopHearing } from '../../../../audio/performances/hear'
import { passageToKeep } from '../../../../audio/performances/keep'
import { lookToEnd } from '../../../../audio/performances/remembering'
import { performances } from '../../../../documents'
import { makeId } from '../../../../documents/make-id'
import { PadFace } from '../../../../kit-view/PadFace'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { notify } from '../../../../ui/layout/notices'
import { Part } from '../../../../ui/layout/Part'
import { Text } from '../../../../ui/layout/Text'
import { useIsWide } from '../../../../ui/layout/use-is-wide'
import { sentenceOf } from '../../use-resound'
import type { PerformanceEdits } from '../use-performance-edits'
import { useHeardLines } from './FilmLines'
import { soundOfLines } from './film-sound'
import type { Pictured } from './use-picture'

interface Props extends Pick<PerformanceEdits, 'edit'> {
  readonly kit: Kit
  readonly performance: Performance
  readonly pictured: Pictured
}

const WHERE = [
  { value: 'line', text: 'A line of its own' },
  { value: 'here', text: 'Into this line, in place of what is there' },
] as const
type Where = (typeof WHERE)[number]['value']

interface Begun {
  /** The film's first, and that from which on it is played to; until then the film stands. */
  readonly frame: number
  readonly sinceFrame: number
  readonly filmSeconds: number
  readonly atMs: number
}

/** Playing to the film once more: it runs from where it stands with the lines that are heard, and what is played becomes a pass. */
export function NewPass({ kit, performance, pictured, edit }: Props) {
  const isWide = useIsWide()
  const { seconds, lines } = pictured
  const heard = useHeardLines(lines)
  const [where, setWhere] = useState<Where>('line')
  const [busy, setBusy] = useState(false)
  const [begun, setBegun] = useState<Begun>()
  const isRunning = useStore(hearing, ({ name }) => name === FILM) && begun !== undefined
  useEffect(() => stopHearing, [])
  const begin = async () => {
    setBusy(true)
    try {
      const against = await soundOfLines(heard)
      const sinceFrame = sound.getState().player?.frameNow() ?? 0
      const frame = runFilm(seconds, against)
      if (frame === undefined) notify('No sound can be made here: tap once anywhere and try again.')
      else {
        setBegun({ frame, sinceFrame, filmSeconds: seconds, atMs: Date.now() })
        pictured.setPassing(true)
      }
    } catch (error) {
      notify(sentenceOf(error))
    }
    setBusy(false)
  }
  const finish = async () => {
    const { player } = sound.getState()
    if (!begun || !player) return
    const filmSeconds = hearing.getState().seconds
    stopHearing()
    setBegun(undefined)
    pictured.setPassing(false)
    const toFrame = await lookToEnd(player)
    const words = await keepPass(kit, performance, pictured, { begun, toFrame, filmSeconds }, where === 'here' ? edit : undefined)
    notify(words)
  }
  return (
    <Part name="Play to the film">
      {isRunning ? (
        <>
          <Text look="small" role="status" tone="coral">
            The film runs, and what you play is kept: pads here, keys, or MIDI.
          </Text>
          <Button label="End the pass" kind="coral" icon="stop" onPress={() => void finish()} style={{ alignSelf: 'flex-start' }} />
          {!isWide && ( // on a wide screen they stand below in every place
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }}>
              {kit.pads.map((pad, index) => (
                <PadFace key={pad.id} kit={kit} pad={pad} index={index} size={72} />
              ))}
            </View>
          )}
        </>
      ) : (
        <>
          <Chips label="What is played becomes" options={WHERE} value={where} onChoose={setWhere} />
          <Button
            label="Play a pass from this picture"
            icon="play"
            busy={busy}
            disabled={kit.pads.length === 0}
            onPress={() => void begin()}
            style={{ alignSelf: 'flex-start' }}
          />
        </>
      )}
    </Part>
  )
}

/** Keeps what was played while the film ran. Returns what came of it, in words. */
async function keepPass(
  kit: Kit,
  line: Performance,
  { picture }: Pictured,
  { begun, toFrame, filmSeconds }: { readonly begun: Begun; readonly toFrame: number; readonly filmSeconds: number },
  edit: PerformanceEdits['edit'] | undefined,
): Promise<string> {
  const kept = await passageToKeep(kit, { fromFrame: begun.sinceFrame, toFrame: Math.max(toFrame, begun.frame + 1), fromMs: begun.atMs })
  if (typeof kept === 'string') return kept
  const filmFrame = kept.fromFrame + begun.frame - begun.sinceFrame
  const made = fromFirstPicture(kept, kept.fromFrame, filmFrame)
  const strikes = strikesOf(made).filter(({ strike }) => strike.frame >= filmFrame)
  const [first] = strikes
  if (!first) return 'Nothing was struck while the film ran, so nothing was kept.'
  const laid = laidOnFilm(made, picture, { frame: filmFrame, filmSeconds: begun.filmSeconds })
  const lastFrame = Math.max(...strikes.map(({ strike, letGo }) => letGo?.frame ?? strike.frame))
  const pass = { ...laid, fromFrame: first.strike.frame, toFrame: lastFrame + 1 }
  const count = `${strikes.length} ${strikes.length === 1 ? 'strike' : 'strikes'}`
  if (edit) {
    edit(punchedIn(makeId, { ...line, picture }, pass, { fromSeconds: begun.filmSeconds, toSeconds: filmSeconds }))
    return `${count} stand in this line now, in place of what was there.`
  }
  await performances.create(pass)
  return `Kept as “${pass.name}”, a line of its own with ${count}.`
}
