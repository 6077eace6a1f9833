import type { GrooveId, Kit } from '@heliaster/core/kit'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { grooveState, playSong } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Toggle } from '../../../ui/controls/Toggle'
import { Part } from '../../../ui/layout/Part'
import { Row } from '../../../ui/layout/Row'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

type Song = Kit['song']
const MOST_SECTIONS = 1024

/** The order in which the grooves play as a song, each so many laps; begun anew when it is over. */
export function SongPart({ hands: { kit, groove } }: { readonly hands: BeadHands }) {
  const isSong = useStore(grooveState, (state) => state.isSong)
  const { song } = kit
  const put = (changed: Song) => editKit(kit.id, [{ type: 'setKit', fields: { song: changed } }])
  const laps = (place: number, by: number) => put(song.map((one, i) => (i === place ? { ...one, laps: Math.min(1024, Math.max(1, one.laps + by)) } : one)))
  const add = () => put([...song, { id: makeId('section'), groove: groove.id, laps: 1 }])
  const move = (place: number, way: number) => {
    const changed = [...song]
    changed.splice(place + way, 0, ...changed.splice(place, 1))
    put(changed)
  }
  const nameOf = (id: GrooveId) => kit.grooves.find((one) => one.id === id)?.name || 'Groove'
  const isKept = kit.grooves.some(({ id }) => id === groove.id)
  return (
    <Part name="Song">
      {song.length === 0 && (
        <Text look="small" tone="muted">
          Grooves one after the other, each as often as you say.
        </Text>
      )}
      <View role="list">
        {song.map((section, place) => (
          <Row key={section.id} hasLine={place > 0}>
            <Text numberOfLines={1} style={{ flex: 1 }}>
              {nameOf(section.groove)}
            </Text>
            <IconButton name="minus" label={`One lap less of ${nameOf(section.groove)}, place ${place + 1}`} disabled={section.laps <= 1} onPress={() => laps(place, -1)} />
            <Text look="figures" style={{ minWidth: 56, textAlign: 'center' }}>
              {section.laps === 1 ? '1 lap' : `${section.laps} laps`}
            </Text>
            <IconButton name="plus" label={`One lap more of ${nameOf(section.groove)}, place ${place + 1}`} onPress={() => laps(place, 1)} />
            <IconButton name="chevron-up" label={`${nameOf(section.groove)}, place ${place + 1}, earlier`} disabled={place === 0} onPress={() => move(place, -1)} />
            <IconButton name="close" label={`Take ${nameOf(section.groove)}, place ${place + 1}, out of the song`} onPress={() => put(song.filter((_, i) => i !== place))} />
          </Row>
        ))}
      </View>
      <Button label={`Add “${groove.name || 'Groove'}”`} icon="plus" disabled={!isKept || song.length >= MOST_SECTIONS} onPress={add} style={{ alignSelf: 'flex-start' }} />
      {song.length > 0 && <Toggle label="Play the song" words="Instead of the groove that is seen, round and round." value={isSong} onChange={playSong} />}
    </Part>
  )
} // prettier-ignore
