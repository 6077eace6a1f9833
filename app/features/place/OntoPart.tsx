import { bandsOfRay } from '@heliaster/core/kit'
import type { Pad, Ray } from '@heliaster/core/kit'

import { padName } from '../../kit-view/use-kit'
import { useKit } from '../../kit-view'
import { Chips } from '../../ui/controls/Chips'
import { Text } from '../../ui/layout/Text'
import { canStay } from './place-files'
import type { Placing } from './use-placing'

/** What files do to a pad that they go onto: what is on it goes or stays, and what would be silent then. */
export function OntoPart({ onto, placing: { way, stays, setStays, placing, plan } }: { readonly onto: Pad; readonly placing: Placing }) {
  const kit = useKit()
  if (!kit || !placing) return null
  const silenced = raysSilenced(onto, placing.pads[0])
  return (
    <>
      {onto.bands.length > 0 && canStay(way, onto) && (
        <Chips
          label="What is on it already"
          options={[
            { value: 'goes', text: 'Is replaced' },
            { value: 'stays', text: 'Stays, with these besides' },
          ]}
          value={stays ? 'stays' : 'goes'}
          onChoose={(what) => setStays(what === 'stays')}
        />
      )}
      {placing.pads.length > 0 && !(stays && canStay(way, onto)) && (
        <Text look="small">{`The clips of ${padName(kit, onto)} are replaced; all its settings stay.`}</Text>
      )}
      {silenced.length > 0 && (
        <Text look="small" tone="coral">
          {`${silenced.join(', ')} ${silenced.length === 1 ? 'gets' : 'get'} no clip from these and ${silenced.length === 1 ? 'is' : 'are'} silent then.`}
        </Text>
      )}
      {way === 'names' && plan.pads.length > 1 && (
        <Text
          look="small"
          tone="coral"
        >{`The names speak of ${plan.pads.length} pads; only ${plan.pads[0].name} goes onto this one.`}</Text>
      )}
    </>
  )
}

/** Rays that sound now and would have no clip. */
function raysSilenced(before: Pad, after: Pad | undefined): string[] {
  const sounds = (pad: Pad, ray: Ray) =>
    bandsOfRay(pad, ray).some((band) => band.turns.some((turn) => turn.clips[ray.id] && turn.clips[ray.id] !== 'intendedSilence'))
  if (!after) return []
  return after.rays
    .filter((ray) => before.rays.some(({ id }) => id === ray.id) && sounds(before, ray) && !sounds(after, ray))
    .map(({ name }) => name)
}
