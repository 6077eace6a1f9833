import type { Bead } from '../kit/grooves'

/** What a bead keeps where its pad has other cells: all but which of them it asks for. */
export function freeBead({ band: _band, turn: _turn, clip: _clip, ...bead }: Bead): Bead {
  return bead
}
