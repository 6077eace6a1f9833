import type { Performance, PerformanceId } from '@heliaster/core/kit'
import { startTimecodeOf } from '@heliaster/core/performance'
import { fileName } from '@heliaster/core/ship'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import { FILM, hearing, runFilm, stopHearing } from '../../../../audio/performances/hear'
import { resoundedWav } from '../../../../audio/performances/resound'
import { Button } from '../../../../ui/controls/Button'
import { Chip } from '../../../../ui/controls/Chip'
import { saveFile } from '../../../../ui/device/choose-files'
import { notify } from '../../../../ui/layout/notices'
import { Part } from '../../../../ui/layout/Part'
import { Row } from '../../../../ui/layout/Row'
import { Text } from '../../../../ui/layout/Text'
import { sentenceOf } from '../../use-resound'
import { soundOfLines } from './film-sound'
import type { Pictured } from './use-picture'

/** Lines that are not heard with the film, as long as the page lives. */
const still = createStore<{ readonly ids: ReadonlySet<PerformanceId> }>(() => ({ ids: new Set() }))

/** The lines of a film that are heard with it. */
export function useHeardLines(lines: readonly Performance[]): readonly Performance[] {
  const ids = useStore(still, (state) => state.ids)
  return lines.filter(({ id }) => !ids.has(id))
}

function toggle(id: PerformanceId): void {
  still.setState(({ ids }) => ({ ids: ids.has(id) ? new Set([...ids].filter((one) => one !== id)) : new Set([...ids, id]) }))
}

/** All that was played to one film: heard together, and taken out line by line. */
export function FilmLines({ performance, pictured }: { readonly performance: Performance; readonly pictured: Pictured }) {
  const { lines, seconds } = pictured
  const heard = useHeardLines(lines)
  const isRunning = useStore(hearing, ({ name }) => name === FILM)
  const [busy, setBusy] = useState<string>()
  if (lines.length < 2) return null
  const doing = async (what: string, act: () => Promise<unknown>) => {
    setBusy(what)
    await act().catch((error: unknown) => notify(sentenceOf(error)))
    setBusy(undefined)
  }
  const hear = () => doing('hear', async () => runFilm(seconds, await soundOfLines(heard)))
  const out = () =>
    doing('out', async () => {
      for (const line of lines) saveFile(`${fileName(line.name)}.wav`, await resoundedWav({ performance: line, on: { as: 'played' } }, 24), 'audio/wav') // prettier-ignore
    })
  return (
    <Part name="Lines of this film">
      <View role="list" aria-label="Lines of this film">
        {lines.map((line, i) => (
          <Row key={line.id} hasLine={i > 0}>
            <View style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 10, paddingVertical: 4 }}>
              <Chip role="checkbox" text={line.name} isChosen={heard.includes(line)} onPress={() => toggle(line.id)} />
              <Text look="small" tone="muted" numberOfLines={1} style={{ flex: 1 }}>
                {`${line.id === performance.id ? 'this one, ' : ''}${heard.includes(line) ? 'heard' : 'not heard'}`}
              </Text>
              <Text look="figures" tone="muted">
                {startTimecodeOf(line)}
              </Text>
            </View>
          </Row>
        ))}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={isRunning ? 'Stop the film' : 'Hear these lines from here'}
          icon={isRunning ? 'stop' : 'play'}
          busy={busy === 'hear'}
          onPress={() => (isRunning ? stopHearing() : void hear())}
        />
        <Button label="A WAV for each line" icon="download" busy={busy === 'out'} onPress={() => void out()} />
      </View>
    </Part>
  )
}
