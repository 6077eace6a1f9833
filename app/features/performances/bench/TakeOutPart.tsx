import type { EventId, Kit, PlayedStrike } from '@heliaster/core/kit'
import { padById } from '@heliaster/core/kit'
import { grooveOfPerformance } from '@heliaster/core/performance'
import type { Bits } from '@heliaster/core/performance'
import { freeGrooveName } from '@heliaster/core/groove'
import { fileName } from '@heliaster/core/ship'
import { useState } from 'react'
import { View } from 'react-native'

import { drawnStrikes, resoundedPads, resoundedWav } from '../../../audio/performances/resound'
import type { Wanted } from '../../../audio/performances/resound'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { midiWork } from '../../../kit-view/midi-work'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { saveFile } from '../../../ui/device/choose-files'
import { notify } from '../../../ui/layout/notices'
import { Text } from '../../../ui/layout/Text'
import { sentenceOf } from '../use-resound'

interface Props {
  readonly kit: Kit
  readonly wanted: Wanted
  readonly chosen: ReadonlySet<EventId>
}

const BITS = [
  { value: '24', text: '24 bit' },
  { value: '16', text: '16 bit' },
  { value: '32', text: '32 bit float, to the last sample' },
] as const

/** A performance as files: as audio in one or by pads, as MIDI, and one strike of it many times over. */
export function TakeOutPart({ kit, wanted, chosen }: Props) {
  const { performance, on } = wanted
  const [bits, setBits] = useState<(typeof BITS)[number]['value']>('24')
  const [busy, setBusy] = useState<string>()
  const name = fileName(performance.name)
  const named = on.as === 'kit' ? on.kit : kit
  const asBits = Number(bits) as Bits
  const out = async (what: string, make: () => Promise<void>) => {
    setBusy(what)
    try {
      await make()
    } catch (error) {
      notify(sentenceOf(error))
    } finally {
      setBusy(undefined)
    }
  }
  const wav = async () => saveFile(`${name}.wav`, await resoundedWav(wanted, asBits), 'audio/wav')
  const byPads = async () => saveFile(`${name} by pads.zip`, await resoundedPads(wanted, named, asBits), 'application/zip')
  const midi = async () => {
    const { midiOfPerformance } = await midiWork()
    const { bytes, without } = midiOfPerformance(performance, kit)
    saveFile(`${name}.mid`, bytes as BlobPart, 'audio/midi')
    const names = without.map((padId) => padById(kit, padId)).map((pad) => (pad ? padName(kit, pad) : 'a pad that is gone'))
    if (names.length > 0) notify(`No note strikes ${names.join(', ')}: these strikes are not in the file. Give the pads notes under Hands.`)
  }
  const asGroove = () => {
    const { groove, beyond } = grooveOfPerformance(makeId, performance, freeGrooveName(kit, performance.name))
    if (groove.strings.length === 0) return notify('No strike of it is heard: there is nothing to make a groove of.')
    editKit(kit.id, [{ type: 'putGroove', groove }])
    notify(`“${groove.name}” is a groove of the kit now, with its own timing.${beyond > 0 ? ` ${beyond} strikes lie beyond 1024 steps and are left out.` : ''}`) // prettier-ignore
  }
  const strike = performance.events.find((event): event is PlayedStrike => event.type === 'strike' && chosen.has(event.id))
  return (
    <View style={{ gap: 12, maxWidth: 620 }}>
      <Chips label="Samples" options={BITS} value={bits} onChoose={setBits} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="WAV" icon="download" busy={busy === 'wav'} onPress={() => void out('wav', wav)} />
        <Button label="A WAV for each pad" icon="download" busy={busy === 'pads'} onPress={() => void out('pads', byPads)} />
        <Button label="MIDI" icon="download" onPress={() => void out('MIDI', midi)} />
        <Button label="As a groove" icon="plus" onPress={asGroove} />
      </View>
      <Text look="small" tone="muted">
        Audio begins where it is heard from and rings out to its end; each strike is a marker in the file. Files by pads begin together.
      </Text>
      <Draws
        strike={strike}
        name={name}
        wanted={wanted}
        kit={kit}
        bits={asBits}
        busy={busy === 'draws'}
        out={(make) => void out('draws', make)}
      />
    </View>
  )
}

interface DrawsProps {
  readonly strike: PlayedStrike | undefined
  readonly name: string
  readonly wanted: Wanted
  readonly kit: Kit
  readonly bits: Bits
  readonly busy: boolean
  readonly out: (make: () => Promise<void>) => void
}

/** One strike as its pad plays it many times: no two alike, numbered. */
function Draws({ strike, wanted, kit, bits, busy, out }: DrawsProps) {
  const [count, setCount] = useState(8)
  const pad = strike && padById(kit, strike.padId)
  if (!strike || !pad)
    return (
      <Text look="small" tone="muted">
        Choose one strike above, and it can be taken out many times over, each with its own turn and chance.
      </Text>
    )
  const { velocity, note, padId } = strike
  const asked = { kit: wanted.on.as === 'kit' && wanted.on.kit.pads.some(({ id }) => id === padId) ? wanted.on.kit : kit, padId, velocity, note, count, sampleRateHz: wanted.performance.sampleRateHz } // prettier-ignore
  const title = `${fileName(padName(kit, pad))} ${velocity}`
  return (
    <View style={{ gap: 8 }}>
      <Slider
        label={`Times ${padName(kit, pad)}, strength ${velocity}`}
        spoken="Times"
        value={count}
        min={2}
        max={64}
        step={1}
        unit=""
        onSlide={setCount}
        onDone={() => undefined}
      />
      <Button
        label={`Take it out ${count} times`}
        icon="download"
        busy={busy}
        onPress={() => out(async () => saveFile(`${title} x${count}.zip`, await drawnStrikes(asked, title, bits), 'application/zip'))}
        style={{ alignSelf: 'flex-start' }}
      />
    </View>
  )
}
