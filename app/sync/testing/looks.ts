import { openLocalDb } from '../local-db'
import type { Tab, World } from './a-world'

export const kitsOf = (tab: Tab) =>
  Object.fromEntries(Object.entries(tab.device.kits.store.getState().entries).map(([id, entry]) => [id, entry.doc]))
export const onServer = (world: World) =>
  Object.fromEntries([...world.server.docs.values()].filter((held) => !held.hidden).map((held) => [held.doc.id, held.doc]))
export const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value))
export async function quiet(world: World): Promise<void> {
  Object.assign(world.faults, { storage: 0, reading: 0, lost: 0 })
  world.server.isOlder = false
  for (const browser of world.browsers) browser.online = true
  for (const tab of world.tabs) tab.frozen = false
  await world.clock.pass(40_000)
}

/** The batches whose edits are kept aside on a device. */
export async function refusedOn(tab: Tab): Promise<(string | undefined)[]> {
  return (await (await tabDb(tab)).getAll('refused')).map((one) => one.batchId)
}
export const tabDb = (tab: Tab) => openLocalDb(tab.browser.factory)

/** What is in the outbox although nothing waits: its answer is known and cannot be written yet. */
export async function waitingOn(tab: Tab): Promise<string[]> {
  if (tab.device.shelf.state().failure === undefined) return []
  return (await (await tabDb(tab)).getAll('outbox')).map((one) => one.batchId)
}
