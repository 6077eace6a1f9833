import { freeGrooveName, grooveBeats } from '@heliaster/core/groove'
import type { MidiGroove } from '@heliaster/core/groove/midi'
import { padById } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { playAlone } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { midiWork } from '../../../kit-view/midi-work'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { chooseFiles, saveFile } from '../../../ui/device/choose-files'
import { notify } from '../../../ui/layout/notices'
import { Part } from '../../../ui/layout/Part'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

interface Props {
  readonly hands: BeadHands
  readonly onClose: () => void
}

/** A MIDI file as a groove of this kit, and the groove or the song as a MIDI file. */
export function MidiSheet({ hands, onClose }: Props) {
  return (
    <Sheet title="MIDI file in or out" isOpen onClose={onClose}>
      <In hands={hands} onClose={onClose} />
      <Out hands={hands} />
    </Sheet>
  )
}

/** A file is read first; what comes of it is said before it is taken. */
function In({ hands: { kit }, onClose }: Props) {
  const [read, setRead] = useState<MidiGroove>()
  const [wrong, setWrong] = useState<string>()
  const [withTempo, setWithTempo] = useState(true)
  const open = async () => {
    const [file] = await chooseFiles('.mid,.midi,audio/midi', false)
    if (!file) return
    const { grooveOfMidi } = await midiWork()
    const name = freeGrooveName(kit, file.name.replace(/\.midi?$/i, '').slice(0, 100) || 'Groove')
    const result = grooveOfMidi(makeId, kit, new Uint8Array(await file.arrayBuffer()), name)
    setRead(result.ok ? result.read : undefined)
    setWrong(result.ok ? undefined : result.message)
  }
  const take = (from: MidiGroove) => {
    const tempo = withTempo && from.tempoBpm !== undefined ? [{ type: 'setKit' as const, fields: { tempoBpm: from.tempoBpm } }] : []
    editKit(kit.id, [{ type: 'putGroove', groove: from.groove }, ...tempo])
    playAlone(from.groove.id)
    notify(`“${from.groove.name}” is a groove of this kit now.`)
    onClose()
  }
  return (
    <Part name="In">
      <Button label="Choose a MIDI file" icon="folder-open-outline" onPress={() => void open()} style={{ alignSelf: 'flex-start' }} />
      {wrong && <Text tone="coral">{wrong}</Text>}
      {read && (
        <>
          <Text>{wordsOf(read)}</Text>
          {read.tempoBpm !== undefined && read.tempoBpm !== kit.tempoBpm && (
            <Toggle label={`Its tempo too, ${read.tempoBpm} BPM`} value={withTempo} onChange={setWithTempo} />
          )}
          <Button label={`Take “${read.groove.name}”`} kind="main" onPress={() => take(read)} style={{ alignSelf: 'flex-start' }} />
        </>
      )}
    </Part>
  )
}

function wordsOf({ groove, strikes, without, beyond }: MidiGroove): string {
  const notes = without.map(({ note, words }) => (words ? `${note} (${words})` : String(note)))
  return [
    `${strikes === 1 ? '1 strike' : `${strikes} strikes`} on ${groove.strings.length === 1 ? '1 pad' : `${groove.strings.length} pads`}, ${grooveBeats(groove)} beats of ${groove.stepsPerBeat}.`,
    notes.length > 0 ? `No pad answers ${notes.length === 1 ? 'note' : 'notes'} ${notes.join(', ')}: left out.` : '',
    beyond > 0 ? `${beyond} strikes lie beyond 1024 steps: left out.` : '',
  ].filter(Boolean).join(' ') // prettier-ignore
}

/** So many laps as they sound, with chance and conditions drawn. */
function Out({ hands: { kit, groove } }: Pick<Props, 'hands'>) {
  const most = Math.max(1, ...groove.strings.flatMap(({ beads }) => beads.map(({ when }) => when?.laps?.of ?? 1)))
  const [laps, setLaps] = useState(most)
  const write = async (what: typeof groove.id | 'song', beats: number, name: string) => {
    const { midiOfGroove } = await midiWork()
    const { bytes, without } = midiOfGroove(kit, what, beats, name)
    saveFile(`${kit.name}, ${name}.mid`, bytes, 'audio/midi')
    const names = without.map((padId) => padById(kit, padId)).map((pad) => (pad ? padName(kit, pad) : 'a pad that is gone'))
    if (names.length > 0) notify(`No note strikes ${names.join(', ')}: these strikes are not in the file. Give the pads notes under Hands.`)
  }
  const songBeats = kit.song.reduce((sum, section) => {
    const one = kit.grooves.find(({ id }) => id === section.groove)
    return sum + (one ? grooveBeats(one) * section.laps : 0)
  }, 0)
  const isKept = kit.grooves.some(({ id }) => id === groove.id)
  return (
    <Part name="Out">
      <Slider label="Laps" value={laps} min={1} max={64} step={1} power={2} unit="" onSlide={setLaps} onDone={() => undefined} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={`Save “${groove.name || 'Groove'}”`}
          icon="download"
          disabled={!isKept}
          onPress={() => void write(groove.id, laps * grooveBeats(groove), groove.name || 'Groove')}
        />
        {songBeats > 0 && <Button label="Save the song" icon="download" onPress={() => void write('song', songBeats, 'Song')} />}
      </View>
      <Text look="small" tone="muted">
        Every strike as it sounds: swing, timing, chance, laps and repeats.
      </Text>
    </Part>
  )
}
