import { MOST_TILLERS, withNewTiller, withTiller } from '@heliaster/core/kit'
import type { Kit, Tiller } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { session, useSession } from '../../../kit-view/session'
import { TillerSlider } from '../../../kit-view/TillerSlider'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Toggle } from '../../../ui/controls/Toggle'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { TillerPanel } from './TillerPanel'

/** The kit's tillers: each a named control that moves as much of the kit as it is given. */
export function TillersPart({ kit }: { readonly kit: Kit }) {
  const showsTillers = useSession((state) => state.showsTillers)
  const [open, setOpen] = useState<string>()
  const put = (tillers: Tiller[]) => editKit(kit.id, [{ type: 'setKit', fields: { tillers } }])
  const add = () => {
    const tillers = withNewTiller(makeId, kit)
    put(tillers)
    setOpen(tillers[tillers.length - 1]!.id)
  }
  return (
    <View style={{ gap: 12, maxWidth: 560 }}>
      {kit.tillers.length === 0 ? (
        <Text tone="muted">A tiller is one control that moves anything of this kit: how dark all its drums are, how long, how dirty.</Text>
      ) : (
        <Toggle
          label="Tillers beside the pads"
          words="In every place, above the pads."
          value={showsTillers}
          onChange={(wanted) => session.setState({ showsTillers: wanted })}
        />
      )}
      {kit.tillers.map((tiller, place) => (
        <TillerRow
          key={tiller.id}
          kit={kit}
          tiller={tiller}
          place={place}
          isOpen={tiller.id === open}
          onOpen={() => setOpen(tiller.id === open ? undefined : tiller.id)}
          onChange={(change) => put(withTiller(kit, tiller.id, change))}
          onRemove={() => put(kit.tillers.filter((one) => one !== tiller))}
        />
      ))}
      <View style={{ flexDirection: 'row' }}>
        <Button label="Add a tiller" disabled={kit.tillers.length >= MOST_TILLERS} onPress={add} />
      </View>
    </View>
  )
}

interface RowProps {
  readonly kit: Kit
  readonly tiller: Tiller
  readonly place: number
  readonly isOpen: boolean
  readonly onOpen: () => void
  readonly onChange: (change: Partial<Tiller>) => void
  readonly onRemove: () => void
}

function TillerRow({ kit, tiller, place, isOpen, onOpen, onChange, onRemove }: RowProps) {
  const palette = usePalette()
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: palette.faint, paddingTop: 6, gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <View style={{ flex: 1 }}>
          <TillerSlider kit={kit} tiller={tiller} />
        </View>
        <IconButton
          name={isOpen ? 'chevron-up' : 'chevron-down'}
          label={isOpen ? `Close ${tiller.name}` : `What ${tiller.name} moves`}
          on={isOpen}
          onPress={onOpen}
        />
      </View>
      {isOpen && <TillerPanel kit={kit} tiller={tiller} place={place} onChange={onChange} onRemove={onRemove} />}
    </View>
  )
}
