import type { Source, SourceId } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { useStore } from 'zustand'

import { sources } from '../../../documents'
import { useOwnSounds } from '../../../kit-view/own-sounds'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import type { EffectProps } from './EffectPanel'

const MOST_SHOWN = 24

/** The impulse of a room: a recording of this kit, of a clap or a burst in a place. */
export function RoomImpulse({ kit, insert, onChange }: EffectProps) {
  const entries = useStore(sources.store, (state) => state.entries)
  const all = useMemo(() => Object.values(entries).map(({ doc }) => doc), [entries])
  const own = useOwnSounds(all).slice(0, MOST_SHOWN)
  const take = ({ audio, info }: Source) => onChange({ audio }, kit.audio[audio] ? [] : [{ type: 'putAudio', audio, info }])
  const missing = insert.audio !== undefined && !own.some(({ audio }) => audio === insert.audio)
  return (
    <>
      <Text look="small" tone="muted">
        {own.length === 0
          ? 'Record a clap or a balloon in a room, in Gather, and the kit can stand in that room.'
          : `The first sound of the file and what the room makes of it, at most 8 seconds.${missing ? ' The file that is used is not among these.' : ''}`}
      </Text>
      {own.length > 0 && (
        <Chips
          label="Recorded in"
          options={own.map(({ id, name }) => ({ value: id as string, text: name }))}
          value={own.find(({ audio }) => audio === insert.audio)?.id as string | undefined}
          onChoose={(id) => take(own.find((one) => one.id === (id as SourceId))!)}
        />
      )}
    </>
  )
}
