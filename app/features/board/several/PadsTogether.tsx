import { padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { swapPads } from '@heliaster/core/place'
import { readPads } from '@heliaster/core/ties'
import { useMemo, useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { NameField } from '../../../ui/controls/NameField'
import { notify } from '../../../ui/layout/notices'
import { Text } from '../../../ui/layout/Text'
import { editKit } from '../../../kit-view'
import { notesInWords } from '../../../kit-view/note-name'
import { DrumOfNames } from '../pad/drum/DrumOfNames'
import { notesInRow } from './notes-in-row'
import { measureTuning, nearestOctave, octavesAway, tuneEdits } from './tune-to-notes'
import type { Tuning, Wanted } from './tune-to-notes'

const SWAPS = [
  { what: 'clips', label: 'Swap their clips' },
  { what: 'places', label: 'Swap their places' },
  { what: 'notes', label: 'Swap their notes' },
] as const

/** What only several pads can do: be gathered under a name, change with each other, be tuned as a row. */
export function PadsTogether({ kit, pads }: { readonly kit: Kit; readonly pads: readonly Pad[] }) {
  const [isBusy, setBusy] = useState(false)
  const [tuned, setTuned] = useState<string>()
  const [isDrum, setDrum] = useState(false)
  const reading = useMemo(() => readPads(kit, pads.map(({ id }) => id)), [kit, pads]) // prettier-ignore
  /** A tuning that goes so far that it is asked for. */
  const [far, setFar] = useState<Tuning>()
  const groups = [...new Set(pads.map((pad) => padSettings(kit, pad).group ?? ''))]
  const gather = (typed: string) => {
    const group = typed.trim().slice(0, 120)
    const edit = (pad: Pad): KitEdit => ({
      type: 'setPad',
      padId: pad.id,
      own: group ? { group } : {},
      ...(group ? {} : { clear: ['group'] }),
    })
    editKit(kit.id, pads.map(edit))
  }
  const giveNotes = (typed: string) => {
    const row = notesInRow(pads, typed)
    if (typeof row === 'string') return notify(row)
    editKit(kit.id, row.edits)
    if (row.words) notify(row.words)
  }
  const tuneBy = (wanted: readonly Wanted[], more: string) => {
    const { edits, words } = tuneEdits(wanted)
    editKit(kit.id, edits)
    setTuned([words, more].filter(Boolean).join(' '))
    setFar(undefined)
  }
  const tune = async () => {
    setBusy(true)
    try {
      const tuning = await measureTuning(kit, pads)
      if (octavesAway(tuning.wanted) === 0) tuneBy(tuning.wanted, tuning.words)
      else setFar(tuning)
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error))
    }
    setBusy(false)
  }
  return (
    <View style={{ gap: 10 }}>
      <NameField
        label={groups.length > 1 ? 'Group (mixed)' : 'Group'}
        value={groups.length > 1 ? '' : (groups[0] ?? '')}
        placeholder="Choose them as one by a name"
        onName={gather}
      />
      {pads.length > 1 && (
        <NameField
          label="A note each, from one on or of a range"
          value={notesInWords(pads.flatMap(({ notes }) => notes.slice(0, 1)))}
          placeholder="C2, or C2..B2"
          onName={giveNotes}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {pads.length === 2 &&
          SWAPS.map(({ what, label }) => (
            <Button key={what} label={label} onPress={() => editKit(kit.id, swapPads(kit, pads[0], pads[1], what))} />
          ))}
        {pads.length > 1 && <Button label="Tune each to its note" busy={isBusy} disabled={isBusy} onPress={() => void tune()} />}
        {reading && <Button label="One drum of these" onPress={() => setDrum(true)} />}
      </View>
      {isDrum && reading && <DrumOfNames kit={kit} reading={reading} onClose={() => setDrum(false)} />}
      {far && <FarTuning far={far} onTune={tuneBy} onLeave={() => setFar(undefined)} />}
      {tuned && (
        <Text look="small" role="status">
          {tuned}
        </Text>
      )}
    </View>
  )
}

/** Asks before sounds are moved by more than an octave. */
export function FarTuning({
  far,
  onTune,
  onLeave,
}: {
  readonly far: Tuning
  readonly onTune: (wanted: readonly Wanted[], more: string) => void
  readonly onLeave: () => void
}) {
  const octaves = octavesAway(far.wanted)
  const much = `${Math.abs(octaves) === 1 ? 'more than an octave' : `${Math.abs(octaves)} octaves`} ${octaves > 0 ? 'up' : 'down'}`
  return (
    <View style={{ gap: 8 }} role="status">
      <Text look="small">
        {`The notes lie ${much} from where these sounds are. In the nearest octave they keep their character and are the same notes by name.`}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="In the nearest octave" kind="main" onPress={() => onTune(nearestOctave(far.wanted), far.words)} />
        <Button label={`At the very notes, ${much}`} onPress={() => onTune(far.wanted, far.words)} />
        <Button label="Leave them" onPress={onLeave} />
      </View>
    </View>
  )
}
