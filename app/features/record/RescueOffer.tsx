import { createSource } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { createStore } from 'zustand/vanilla'
import { useStore } from 'zustand'

import { measureLater } from '../../audio/files/measure-later'
import type { LeftTake } from '../../audio/recording/journal-files'
import { freeName, journalWork } from '../../audio/recording/recorder'
import { sources } from '../../documents'
import { makeId } from '../../documents/make-id'
import { device } from '../../documents'
import { Button } from '../../ui/controls/Button'
import { notify } from '../../ui/layout/notices'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { timeText } from './LiveWave'

const left = createStore<{ takes: readonly LeftTake[]; asked: boolean }>(() => ({ takes: [], asked: false }))

async function look(): Promise<void> {
  if (left.getState().asked) return
  left.setState({ asked: true })
  left.setState({
    takes: await journalWork()
      .left()
      .catch(() => []),
  })
}

const dropped = (name: string) => left.setState(({ takes }) => ({ takes: takes.filter((take) => take.name !== name) }))

async function keep(take: LeftTake): Promise<void> {
  const name = freeName('Rescued')
  const { hash, info } = await journalWork().keepLeft(take.name, name)
  const here = Object.values(sources.store.getState().entries).find(({ doc }) => doc.audio === hash)
  if (!here) {
    const source = createSource(makeId, hash, info, name, { addedAt: take.endedAt, origin: 'recorded' })
    void sources.create(source).then(() => journalWork().forget(take.name))
    device.filesKept()
    measureLater(source)
  } else await journalWork().forget(take.name)
  dropped(take.name)
  notify(here ? `It was on the list already, as “${here.doc.name}”.` : `“${name}” is on the list.`)
}

/** Offers recordings that were cut off when the page or the browser went away. */
export function RescueOffer() {
  const takes = useStore(left, (state) => state.takes)
  useEffect(() => void look(), [])
  return (
    <>
      {takes.map((take) => (
        <Offer key={take.name} take={take} />
      ))}
    </>
  )
}

function Offer({ take }: { readonly take: LeftTake }) {
  const palette = usePalette()
  const [state, setState] = useState<'open' | 'sure' | 'keeping'>('open')
  const [problem, setProblem] = useState<string>()
  const when = new Date(take.endedAt).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
  const rescue = () => {
    setState('keeping')
    keep(take).catch((error: Error) => {
      setState('open')
      setProblem(`It could not be put on the list (${error.message}). It stays safe on this device; free some room and try again.`)
    })
  }
  const forget = () => {
    if (state !== 'sure') return setState('sure')
    void journalWork().forget(take.name)
    dropped(take.name)
  }
  return (
    <View
      role="alert"
      style={{
        margin: 12,
        padding: 14,
        gap: 10,
        borderRadius: 10,
        borderWidth: 1,
        borderColor: palette.coral,
        backgroundColor: palette.surface,
      }}
    >
      <View>
        <Text look="strong">{`A recording of ${timeText(take.seconds)} was cut off`}</Text>
        <Text look="small" tone="muted">
          {problem ?? `${when}. It was being recorded when Heliaster was closed, and is on this device.`}
        </Text>
      </View>
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        <Button label="Keep it" kind="main" onPress={rescue} busy={state === 'keeping'} disabled={state === 'keeping'} />
        <Button label={state === 'sure' ? 'Delete for good' : 'Delete'} kind={state === 'sure' ? 'coral' : 'plain'} onPress={forget} />
      </View>
    </View>
  )
}
