import type { Kit } from '@heliaster/core/kit'

export function tieCount({ ties }: Kit): string {
  return ties.length === 0 ? 'No ties yet' : ties.length === 1 ? '1 tie' : `${ties.length} ties`
}
