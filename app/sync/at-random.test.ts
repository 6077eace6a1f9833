/** @jest-environment node */
import { createKit, createPad, kitKind } from '@heliaster/core/kit'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { aKit, anImpulse, randomEdit, testIds } from '@heliaster/core/kit/testing'

import type { Gesture } from '../documents/gesture'
import { World } from './testing/a-world'
import type { Tab } from './testing/a-world'
import { kitsOf, onServer, plain, quiet, refusedOn, waitingOn } from './testing/looks'

/** A run of everything that can happen, by seeded chance; the seeds that failed once stay in the list below. */
async function run(seed: number): Promise<void> {
  const world = new World(seed)
  const { random } = world
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
  const browsers = [world.aBrowser(), world.aBrowser()]
  for (const browser of [browsers[0], browsers[0], browsers[1]]) await world.aTab(browser)
  const drags = new Map<Tab, { drag: Gesture<KitEdit>; id: string }>()
  const shownKept = new Set<string>()
  await world.tabs[0].device.kits.create(aKit([{ bands: [[anImpulse()], [anImpulse()]] }, { bands: [[anImpulse()]] }]).kit)
  await world.clock.pass(3000)

  /** What a person was told counts: kept on this device, saved on the server, or kept aside. */
  const listen = async () => {
    for (const tab of world.tabs) {
      const { unkept, waiting, state } = tab.device.saveState.getState()
      const isWritten = tab.device.shelf.state().unkept === 0
      if (unkept === 0 && isWritten) tab.made.forEach((batch) => shownKept.add(batch))
      if (!isWritten || waiting > 0 || state !== 'saved') continue
      const lost = tab.made.filter((batch) => !known(batch))
      if (lost.length > 0) expect([seed, [...(await aside(tab)), ...(await waitingOn(tab))]]).toEqual([seed, expect.arrayContaining(lost)])
    }
  }
  /** Hiding and bringing back have no batch on the server. */
  const hiding = new Set<string>()
  const known = (batch: string) => world.server.batches.has(batch) || hiding.has(batch)
  /** Kept aside on any device of the browser that made them: pages share the list. */
  const aside = async (tab: Tab) => refusedOn(tab)

  for (let step = 0; step < 45; step++) {
    const tab = any(world.tabs)
    const ids = Object.keys(kitsOf(tab))
    const id = any(ids)
    const actions: (() => unknown)[] = [
      ...Array.from(
        { length: 6 },
        () => () => id && tab.device.kits.edit(id, [randomEdit(tab.device.kits.store.getState().entries[id].doc, random)]),
      ),
      () => id && tab.device.kits.undo(id),
      () => id && tab.device.kits.redo(id),
      () => {
        if (!id || drags.has(tab)) return
        drags.set(tab, { drag: tab.device.kits.gesture(id), id })
      },
      () => {
        const drag = drags.get(tab)
        const doc = drag && tab.device.kits.store.getState().entries[drag.id]?.doc
        if (doc) drag.drag.set([randomEdit(doc, random)])
      },
      () => {
        drags.get(tab)?.drag.end()
        drags.delete(tab)
      },
      () =>
        void tab.device.kits.create({ ...createKit(testIds(Math.floor(random() * 1e9)), 'New'), pads: [createPad(testIds(step), {}, 40)] }),
      async () => {
        const from = tab.made.length
        if (ids.length > 1 && random() < 0.5) void tab.device.kits.hide(id)
        tab.made.slice(from).forEach((batch) => hiding.add(batch))
      },
      () => (tab.browser.online = random() < 0.7),
      () => (world.faults.lost = any([0, 0, 0.1, 0.4])),
      () => (world.faults.storage = any([0, 0, 0.2, 0.8])),
      () => (world.faults.reading = any([0, 0, 0.1, 0.5])),
      () => (world.server.isOlder = random() < 0.3),
      () => (tab.frozen = random() < 0.3),
      async () => {
        if (tab.device.shelf.state().unkept > 0) return // what was never called kept may go
        world.kill(tab)
        drags.delete(tab)
        await world.aTab(tab.browser)
      },
      () => world.clock.pass(random() * 9000),
    ]
    await any(actions)()
    await world.clock.pass(random() * 400)
    await listen()
  }
  drags.forEach(({ drag }) => drag.end())
  await quiet(world)
  await listen()
  for (const tab of world.tabs) {
    expect([seed, plain(kitsOf(tab))]).toEqual([seed, onServer(world)])
    expect([seed, tab.device.saveState.getState()]).toEqual([seed, expect.objectContaining({ state: 'saved', waiting: 0, unkept: 0 })])
  }
  const kept = (await Promise.all(world.browsers.map(async (browser) => aside([...browser.tabs][0])))).flat()
  const lost = [...shownKept].filter((batch) => !known(batch))
  expect([seed, kept]).toEqual([seed, expect.arrayContaining(lost)])
  for (const held of world.server.docs.values()) expect([seed, kitKind.fault(held.doc as unknown as Kit)]).toEqual([seed, undefined])
}

const SEEDS = Number(process.env.KEEPING_SEEDS ?? 40)
const FROM = Number(process.env.KEEPING_FROM ?? 1)
const failedOnce = [8, 47, 323, 661]

test('whatever happens to devices, tabs, storage and the way to the server, nothing that was called kept or saved is lost', async () => {
  for (const seed of [...failedOnce, ...Array.from({ length: SEEDS }, (_, i) => FROM + i)]) await run(seed)
}, 3_600_000)
