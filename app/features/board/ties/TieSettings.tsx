import type { Kit, Tie } from '@heliaster/core/kit'

import { AlongSettings } from './settings/AlongSettings'
import { ChokeGroupSettings, ChokeSettings } from './settings/ChokeSettings'
import { PartsSettings } from './settings/PartsSettings'
import { LimitSettings, OpeningsSettings, TurnsSettings } from './settings/RowSettings'

/** Everything that can be set on one tie. */
export function TieSettings({ kit, tie }: { readonly kit: Kit; readonly tie: Tie }) {
  switch (tie.kind) {
    case 'choke':
      return <ChokeSettings kit={kit} tie={tie} />
    case 'chokeGroup':
      return <ChokeGroupSettings kit={kit} tie={tie} />
    case 'alsoStrike':
      return <AlongSettings kit={kit} tie={tie} />
    case 'limit':
      return <LimitSettings kit={kit} tie={tie} />
    case 'takeTurns':
      return <TurnsSettings kit={kit} tie={tie} />
    case 'openings':
      return <OpeningsSettings kit={kit} tie={tie} />
    case 'parts':
      return <PartsSettings kit={kit} tie={tie} />
    default:
      return null
  }
}
