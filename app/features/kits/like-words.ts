import type { Kit } from '@heliaster/core/kit'

const many = (count: number, one: string, more = `${one}s`) => `${count} ${count === 1 ? one : more}`

/** What comes along where a kit is begun like another one. */
export function countWords({ pads, ties, buses, grooves, tempoBpm }: Kit): string {
  const own = ties.filter(({ kind }) => kind !== 'parts').length
  const what = [many(pads.length, 'pad'), own > 0 ? many(own, 'tie') : '', buses.length > 0 ? many(buses.length, 'bus', 'buses') : '', grooves.length > 0 ? many(grooves.length, 'groove') : ''] // prettier-ignore
  return `${what.filter(Boolean).join(', ')}, at ${Math.round(tempoBpm)} beats a minute.`
}
