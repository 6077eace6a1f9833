import { audioInUse } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { castPadEdits, velocitiesToCast } from '@heliaster/core/ship'
import type { KeptStrike } from '@heliaster/core/ship'
import { useState } from 'react'
import { View } from 'react-native'

import { audioBytes } from '../../../audio/files/audio-files'
import { keepMade } from '../../../audio/import/import'
import { shipWork } from '../../../audio/workers/workers'
import { kits } from '../../../documents'
import { makeId } from '../../../documents/make-id'
import { padName } from '../../../kit-view/use-kit'
import { counted } from './counted'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Toggle } from '../../../ui/controls/Toggle'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

const COUNTS = [
  { value: 'bands', text: 'One for each band' },
  { value: '1', text: '1' },
  { value: '4', text: '4' },
  { value: '8', text: '8' },
  { value: '16', text: '16' },
] as const
type Count = (typeof COUNTS)[number]['value']

/** A pad as it sounds, rendered into new clips on a new pad. */
export function CastPart({ kit, pad }: Props) {
  const [isOpen, setOpen] = useState(false)
  return (
    <View style={{ flexDirection: 'row' }}>
      <Button label="Cast it on a new pad" icon="content-copy" onPress={() => setOpen(true)} />
      {isOpen && <CastSheet kit={kit} pad={pad} onClose={() => setOpen(false)} />}
    </View>
  )
}

type State = { readonly kind: 'asks' } | { readonly kind: 'works' } | { readonly kind: 'done' | 'failed'; readonly words: string }

function CastSheet({ kit, pad, onClose }: Props & { readonly onClose: () => void }) {
  const [count, setCount] = useState<Count>('bands')
  const [withEffects, setWithEffects] = useState(false)
  const [state, setState] = useState<State>({ kind: 'asks' })
  const velocities = velocitiesToCast(pad, count === 'bands' ? 'bands' : Number(count))
  const cast = async () => {
    setState({ kind: 'works' })
    try {
      setState({ kind: 'done', words: await castOnNewPad(kit, pad, velocities, withEffects) })
    } catch (error) {
      setState({ kind: 'failed', words: `Nothing was cast: ${error instanceof Error ? error.message : String(error)}` })
    }
  }
  return (
    <Sheet
      title={`Cast ${padName(kit, pad)}`}
      isOpen
      onClose={onClose}
      actions={
        state.kind === 'done' ? (
          <Button label="Done" kind="main" onPress={onClose} />
        ) : (
          <Button label={state.kind === 'works' ? 'Casting ...' : 'Cast'} kind="main" disabled={state.kind === 'works'} onPress={() => void cast()} />
        )
      }
    >
      <View style={{ gap: 14 }}>
        <Text tone="muted">Its strikes as they sound now become clips of a new pad beside it, with all turns. This pad stays as it is.</Text>
        <Chips label="Velocities" options={COUNTS} value={count} onChoose={setCount} />
        <Toggle label="With effects of its buses and what it sends" value={withEffects} onChange={setWithEffects} />
        <Text look="small" tone={state.kind === 'failed' ? 'coral' : 'muted'}>
          {state.kind === 'done' || state.kind === 'failed' ? state.words : `Struck at ${velocities.join(', ')}. The whole kit's own effects are not cast: the new pad passes them as this one does.`}
        </Text>
      </View>
    </Sheet>
  )
} // prettier-ignore

/** Casts, keeps the files and puts the pad in, as one step to undo; says what was made. */
async function castOnNewPad(kit: Kit, pad: Pad, velocities: readonly number[], withEffects: boolean): Promise<string> {
  const own = { ...kit, pads: kit.pads.filter(({ id }) => id === pad.id || id === pad.leansOn), ties: [], grooves: [] }
  const lacking = await shipWork().lacking(audioInUse(own))
  for (const hash of lacking) await shipWork().bring(hash, await audioBytes(hash))
  const strikes = await shipWork().cast(kit, pad.id, { velocities, withEffects })
  if (strikes.length === 0) throw new Error('this pad has no clips. Put some on it first.')
  const kept: KeptStrike[] = []
  for (const { velocity, turn, audio } of strikes) {
    const source = await keepMade(audio, `${padName(kit, pad)} ${velocity}${strikes.some((other) => other.turn > 0) ? ` turn ${turn + 1}` : ''}`)
    kept.push({ velocity, audio: source.audio, info: source.info })
  }
  kits.edit(kit.id, castPadEdits(makeId, kit, pad, kept))
  return `${counted(kept.length, 'strike')} cast on a new pad, "${padName(kit, pad)}, cast". Undo takes the pad out again; the files stay in Gather.`
} // prettier-ignore
