/** @jest-environment node */
import { createKit, createPad } from '@heliaster/core/kit'
import type { KitEdit } from '@heliaster/core/kit'
import { aKit, anImpulse, asFirstKit, testIds } from '@heliaster/core/kit/testing'

import { IDBFactory } from 'fake-indexeddb'

import { openLocalDb } from './local-db'
import { settle, World } from './testing/a-world'
import { kitsOf, onServer, plain, quiet, refusedOn, tabDb } from './testing/looks'
import type { Tab } from './testing/a-world'

const rename = (name: string): KitEdit => ({ type: 'setKit', fields: { name } })

async function withKit(tabs = 1) {
  const world = new World(5)
  const browser = world.aBrowser()
  const open: Tab[] = []
  for (let i = 0; i < tabs; i++) open.push(await world.aTab(browser))
  const kit = aKit([{ bands: [[anImpulse()], [anImpulse()]] }, { bands: [] }]).kit
  await open[0].device.kits.create(kit)
  await world.clock.pass(8000)
  return { world, browser, kit, open }
}

test('a change that cannot be written is said not to be kept, is written later, and only then is called kept', async () => {
  const { world, kit, open: [tab], browser } = await withKit() // prettier-ignore
  world.faults.storage = 1
  browser.online = false
  tab.device.kits.edit(kit.id, [rename('Only here')])
  await world.clock.pass(3000)
  expect(tab.device.saveState.getState()).toMatchObject({ unkept: 1, failure: expect.stringContaining('Quota') })
  expect(kitsOf(tab)[kit.id].name).toBe('Only here')
  world.faults.storage = 0
  await world.clock.pass(11_000)
  expect(tab.device.saveState.getState()).toMatchObject({ unkept: 0, waiting: 1 })
  world.kill(tab)
  const again = await world.aTab(browser)
  expect(kitsOf(again)[kit.id].name).toBe('Only here')
})

test('nothing is called saved from the moment of an edit until the server has it', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const called: string[] = []
  tab.device.saveState.subscribe(({ state, waiting }) =>
    called.push(world.server.batches.has(tab.made[tab.made.length - 1]) ? 'had' : `${state} ${waiting}`),
  )
  for (let i = 0; i < 5; i++) {
    tab.device.kits.edit(kit.id, [rename(`n${i}`)])
    expect(tab.device.saveState.getState().state).not.toBe('saved')
    await world.clock.pass(50)
    tab.device.kits.edit(kit.id, [{ type: 'setKit', fields: { tempoBpm: 80 + i } }])
    expect(tab.device.saveState.getState().state).not.toBe('saved')
    await world.clock.pass(2000)
    expect(tab.device.saveState.getState().state).toBe('saved')
  }
  expect(called.filter((state) => state.startsWith('saved'))).toEqual([])
})

test('what cannot be written on the device is sent to the server all the same', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  world.faults.storage = 1
  tab.device.kits.edit(kit.id, [rename('One')])
  tab.device.kits.edit(kit.id, [{ type: 'setKit', fields: { tempoBpm: 77 } }])
  await world.clock.pass(9000)
  expect(onServer(world)[kit.id]).toMatchObject({ name: 'One', tempoBpm: 77 })
})

test('two tabs of one browser come to the same, and one of them alone sends', async () => {
  const { world, kit, open: [one, other] } = await withKit(2) // prettier-ignore
  for (let i = 0; i < 12; i++) {
    one.device.kits.edit(kit.id, [{ type: 'addPad', pad: createPad(testIds(i), { name: `a${i}` }), index: 0 }])
    other.device.kits.edit(kit.id, [{ type: 'setKit', fields: { tempoBpm: 60 + i } }])
    await world.clock.pass(300)
  }
  await world.clock.pass(8000)
  expect(plain(kitsOf(one)[kit.id])).toEqual(onServer(world)[kit.id])
  expect(plain(kitsOf(other)[kit.id])).toEqual(onServer(world)[kit.id])
  expect(kitsOf(one)[kit.id].pads).toHaveLength(14)
  expect(world.requests.filter(({ path }) => path === '/api/changes')).toHaveLength(1)
  for (const tab of [one, other]) expect(tab.device.saveState.getState()).toMatchObject({ state: 'saved', waiting: 0 })
})

test('a frozen tab loses its part: another one sends after five seconds, and nothing is sent twice when it wakes', async () => {
  const { world, kit, open: [leading, other] } = await withKit(2) // prettier-ignore
  leading.frozen = true
  other.device.kits.edit(kit.id, [rename('By the other')])
  await world.clock.pass(4000)
  expect(onServer(world)[kit.id]!.name).not.toBe('By the other')
  await world.clock.pass(4000)
  expect(onServer(world)[kit.id]!.name).toBe('By the other')
  leading.frozen = false
  await world.clock.pass(8000)
  const revision = [...world.server.docs.values()][0]!.revision
  expect(plain(kitsOf(leading)[kit.id])).toEqual(onServer(world)[kit.id])
  expect(revision).toBe(2)
})

test('edits that go on and on do not put sending off', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const before = world.requests.length
  for (let i = 0; i < 20; i++) {
    tab.device.kits.edit(kit.id, [{ type: 'setKit', fields: { tempoBpm: 60 + i } }])
    await world.clock.pass(300)
  }
  expect(world.requests.slice(before).filter(({ method }) => method === 'POST').length).toBeGreaterThan(8)
})

test('a visible page sends within five seconds of the return of the server, however long it was away', async () => {
  const { world, kit, open: [tab], browser } = await withKit() // prettier-ignore
  browser.online = false
  tab.device.kits.edit(kit.id, [rename('Away')])
  await world.clock.pass(300_000)
  expect(tab.device.saveState.getState()).toMatchObject({ state: 'away', waiting: 1 })
  browser.online = true
  await world.clock.pass(5000)
  expect(onServer(world)[kit.id]!.name).toBe('Away')
  expect(tab.device.saveState.getState()).toMatchObject({ state: 'saved', waiting: 0 })
})

test('a second device sees changes, new kits and deletions within a second', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const second = await world.aTab(world.aBrowser())
  await world.clock.pass(2000)
  expect(plain(kitsOf(second))).toEqual(onServer(world))
  tab.device.kits.edit(kit.id, [rename('Renamed')])
  await world.clock.pass(1000)
  expect(kitsOf(second)[kit.id].name).toBe('Renamed')
  const bringBack = await tab.device.kits.hide(kit.id)
  await world.clock.pass(1000)
  expect(kitsOf(second)).toEqual({})
  await bringBack()
  await world.clock.pass(1000)
  expect(kitsOf(second)[kit.id].name).toBe('Renamed')
})

test('documents that nobody has opened are fetched only when the first screen stands; one that is opened, at once', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const other = createKit(testIds(9), 'Other')
  await tab.device.kits.create(other)
  await world.clock.pass(8000)
  let stand = () => {}
  const second = await world.aTab(world.aBrowser(), () => new Promise((resolve) => (stand = resolve)))
  await world.clock.pass(8000)
  expect(kitsOf(second)).toEqual({})
  await second.device.fetchDocument('kit', other.id)
  expect(Object.keys(kitsOf(second))).toEqual([other.id])
  stand()
  await world.clock.pass(1000)
  expect(Object.keys(kitsOf(second)).sort()).toEqual([kit.id, other.id].sort())
})

test('of many kits that are not here some come at once and the others by and by; what is opened and what is changed does not wait', async () => {
  const { world, open: [tab] } = await withKit() // prettier-ignore
  const others = Array.from({ length: 30 }, (_, i) => createKit(testIds(20 + i), `Kit ${i}`))
  for (const other of others) await tab.device.kits.create(other)
  await world.clock.pass(20_000)
  const browser = world.aBrowser()
  const second = await world.aTab(browser)
  await world.clock.pass(1000)
  const here = (one: Tab) => Object.keys(kitsOf(one)).length
  const asked = () => world.requests.filter(({ method, path }) => method === 'GET' && path.startsWith('/api/kits/')).length
  expect([here(second), Object.keys(second.device.kits.store.getState().elsewhere).length, second.device.saveState.getState().listed]).toEqual([12, 19, true])
  const [away] = Object.keys(second.device.kits.store.getState().elsewhere)
  await second.device.fetchDocument('kit', away)
  expect(here(second)).toBe(13)
  const last = Object.keys(second.device.kits.store.getState().elsewhere).at(-1)!
  await tab.device.kits.edit(last as never, [rename('Moved')])
  await world.clock.pass(2000)
  expect([kitsOf(second)[last].name, here(second) < 20]).toEqual(['Moved', true])
  browser.online = false
  await world.clock.pass(10_000)
  expect(here(second)).toBeLessThan(31)
  browser.online = true
  await world.clock.pass(20_000)
  expect([here(second), second.device.kits.store.getState().elsewhere]).toEqual([31, {}])
  const before = asked()
  await world.clock.pass(20_000)
  expect(asked()).toBe(before)
  const third = await world.aTab(world.aBrowser())
  await world.clock.pass(1000)
  await third.device.fetchAll('kit')
  expect(here(third)).toBe(31)
}) // prettier-ignore

test('of two kits of one name it is said that the other was made elsewhere where that has just been, and not where it was on the list', async () => {
  const { world, open: [tab] } = await withKit() // prettier-ignore
  await tab.device.kits.create(createKit(testIds(9), 'Keel'))
  await world.clock.pass(8000)
  let stand = () => {}
  const second = await world.aTab(world.aBrowser(), () => new Promise((resolve) => (stand = resolve)))
  await second.device.kits.create(createKit(testIds(10), 'Keel'))
  await world.clock.pass(8000)
  await tab.device.kits.create(createKit(testIds(11), 'Rudder'))
  await world.clock.pass(2000)
  stand()
  await world.clock.pass(2000)
  expect(Object.values(kitsOf(second)).filter(({ name }) => name === 'Keel')).toHaveLength(2)
  expect(second.said).toEqual([])
  await tab.device.kits.create(createKit(testIds(12), 'Keel'))
  await world.clock.pass(2000)
  expect(second.said).toEqual([expect.stringContaining('“Keel” was made elsewhere')])
})

test('what is still on its way is listed by then, and once it is here as that alone; what was taken off here is not', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  let stand = () => {}
  const browser = world.aBrowser()
  const second = await world.aTab(browser, () => new Promise((resolve) => (stand = resolve)))
  await world.clock.pass(500)
  const listed = ({ device }: Tab) => [device.kits.store.getState().elsewhere, device.kits.store.getState().entries].map(Object.keys)
  expect(listed(second)).toEqual([[kit.id], []])
  stand()
  await world.clock.pass(2000)
  expect(listed(second)).toEqual([[], [kit.id]])
  browser.online = false
  await second.device.kits.hide(kit.id)
  world.kill(second)
  await tab.device.kits.edit(kit.id, [rename('Newer')])
  await world.clock.pass(8000)
  browser.online = true
  const again = await world.aTab(browser, () => new Promise(() => undefined))
  await world.clock.pass(500)
  expect(listed(again)).toEqual([[], []])
})

test('a drag is made on the document of the moment, and overwrites nothing that came meanwhile', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const second = await world.aTab(world.aBrowser())
  await world.clock.pass(2000)
  const [pad] = kit.pads
  const drag = tab.device.kits.gesture(kit.id)
  const level = { points: [{ seconds: 1, value: 0, bend: 0 }] }
  const shape = (driveDb: number) => [{ type: 'setPad' as const, padId: pad.id, own: { values: { driveDb } } }]
  const both = { envelopes: { level }, values: { driveDb: 6 } }
  drag.set(shape(3))
  second.device.kits.edit(kit.id, [{ type: 'setPad', padId: pad.id, own: { envelopes: { level } } }])
  await world.clock.pass(2000)
  drag.set(shape(6))
  expect(kitsOf(tab)[kit.id].pads[0].own).toMatchObject(both)
  drag.end()
  await world.clock.pass(4000)
  for (const one of [tab, second]) expect(kitsOf(one)[kit.id].pads[0].own).toMatchObject(both)
  tab.device.kits.undo(kit.id)
  await world.clock.pass(4000)
  for (const one of [tab, second]) expect(kitsOf(one)[kit.id].pads[0].own).toEqual({ ...pad.own, envelopes: { level } })
})

test('a drag whose kit is deleted meanwhile puts nothing back, and what was meant is kept aside', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const second = await world.aTab(world.aBrowser())
  await world.clock.pass(2000)
  const drag = tab.device.kits.gesture(kit.id)
  drag.set([rename('Half')])
  await second.device.kits.hide(kit.id)
  await world.clock.pass(2000)
  drag.end()
  await world.clock.pass(2000)
  expect(kitsOf(tab)).toEqual({})
  expect(await refusedOn(tab)).toHaveLength(1)
  expect(tab.device.saveState.getState().refused).toBe(1)
})

test('an edit made while a newer version is on its way stays in sight', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const second = await world.aTab(world.aBrowser())
  await world.clock.pass(2000)
  for (let i = 0; i < 10; i++) {
    second.device.kits.edit(kit.id, [{ type: 'setKit', fields: { tempoBpm: 60 + i } }])
    await world.clock.pass(400 + 7 * i)
    tab.device.kits.edit(kit.id, [rename(`n${i}`)])
    for (let round = 0; round < 30; round++) {
      await settle(1)
      expect(kitsOf(tab)[kit.id].name).toBe(`n${i}`)
    }
  }
})

test('an answer that was lost after the batch was applied changes nothing twice', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  world.faults.lost = 0.5
  for (let i = 0; i < 10; i++) {
    tab.device.kits.edit(kit.id, [{ type: 'addPad', pad: createPad(testIds(50 + i), {}), index: 0 }])
    await world.clock.pass(500)
  }
  await quiet(world)
  expect(onServer(world)[kit.id]).toMatchObject({ pads: expect.objectContaining({ length: 12 }) })
  expect(plain(kitsOf(tab)[kit.id])).toEqual(onServer(world)[kit.id])
})

test('the same bundle opened on two devices becomes two kits, and neither loses what was made on it', async () => {
  const world = new World(3)
  const [one, other] = [await world.aTab(world.aBrowser()), await world.aTab(world.aBrowser())]
  const kit = createKit(testIds(9), 'From a bundle')
  for (const browser of world.browsers) browser.online = false
  await one.device.kits.create(kit)
  await other.device.kits.create(kit)
  one.device.kits.edit(kit.id, [rename('One')])
  other.device.kits.edit(kit.id, [rename('Other')])
  await world.clock.pass(1000)
  await quiet(world)
  const names = Object.values(onServer(world)).map((doc) => doc.name).sort() // prettier-ignore
  expect(names).toEqual(['One', 'Other'])
  for (const tab of [one, other]) expect(plain(kitsOf(tab))).toEqual(onServer(world))
})

test('a page that is newer than the server keeps its changes, says so, and sends them once the server has caught up', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  world.server.isOlder = true
  tab.device.kits.edit(kit.id, [rename('For later')])
  const made = createKit(testIds(4), 'Made meanwhile')
  await tab.device.kits.create(made)
  await world.clock.pass(9000)
  expect(tab.device.saveState.getState()).toMatchObject({ state: 'away', waiting: 2, refused: 0, why: expect.stringContaining('newer') })
  world.server.isOlder = false
  await world.clock.pass(6000)
  expect(onServer(world)[kit.id]!.name).toBe('For later')
  expect(onServer(world)[made.id]).toEqual(plain(made))
})

test('a page that is older than the server keeps its changes and says to reload; the newer one sends them, made on what is there', async () => {
  const { world, kit, open: [tab] } = await withKit() // prettier-ignore
  const old = { key: `kit:${kit.id}`, kind: 'kit' as const, docId: kit.id, type: 'edits' as const }
  await tab.device.shelf.write({ add: [{ ...old, batchId: 'batch-of-old', edits: [{ type: 'set', at: ['pads', kit.pads[0].id, 'own', 'shape', 'filter', 'resonance'], value: 1 }], version: 1 }] }) // prettier-ignore
  expect(world.server.answer('POST', `/api/kits/${kit.id}/edits`, { baseRevision: 1, batchId: 'batch-of-old', edits: [], version: 1 })).toMatchObject({ status: 409 }) // prettier-ignore
  await tab.device.kits.sync([kit.id])
  expect(kitsOf(tab)[kit.id].pads[0].own.values).toMatchObject({ filter1Damping: 2 - 1.95 })
  await world.clock.pass(9000)
  const [pad] = (onServer(world)[kit.id] as unknown as typeof kit).pads
  expect(pad.own.values).toMatchObject({ filter1Damping: 2 - 1.95 })
  expect(tab.device.saveState.getState()).toMatchObject({ state: 'saved', waiting: 0, refused: 0 })
})

test('what an older page has kept and not sent is taken over: its document held unsent edits, in the form of before', async () => {
  const world = new World(8)
  const kit = aKit([{ bands: [[anImpulse()]] }]).kit
  const pad = createPad(testIds(3), { name: 'Unsent' })
  const [before, after] = [kit, { ...kit, pads: [pad, { ...kit.pads[0], own: { ...kit.pads[0].own, values: { pan: 0.5 } } }] }].map(asFirstKit) // prettier-ignore
  world.server.answer('PUT', `/api/kits/${kit.id}?batch=batch-of-before`, plain(before))
  const unsent = [
    { type: 'addPad', pad: after.pads[0], index: 0 },
    { type: 'setPad', padId: kit.pads[0].id, own: { pan: 0.5 } },
    { type: 'set', at: ['pads', 'pad-gone', 'own', 'pan'], value: 1 },
  ]
  const browser = world.aBrowser()
  await anOlderDevice(browser.factory, {
    documents: [{ key: `kit:${kit.id}`, kind: 'kit', id: kit.id, doc: after, revision: 1, changedAt: 5, hidden: false }],
    outbox: unsent.map((edit, i) => ({ kind: 'kit', docId: kit.id, type: 'edits', batchId: `batch-older-${i}`, edits: [edit] })),
    refused: [{ kind: 'kit', docId: kit.id, reason: 'As it was.', edit: unsent[0], at: 1 }],
  })
  const tab = await world.aTab(browser)
  expect(kitsOf(tab)[kit.id].pads.map((one) => one.id)).toEqual([pad.id, kit.pads[0].id])
  await world.clock.pass(8000)
  expect(onServer(world)[kit.id]).toMatchObject({ pads: [{ id: pad.id }, { own: { values: { pan: 0.5 } } }] })
  expect(plain(kitsOf(tab))).toEqual(onServer(world))
  expect(tab.device.saveState.getState()).toMatchObject({ state: 'saved', waiting: 0, refused: 2 })
  const kept = await (await tabDb(tab)).getAll('refused')
  expect(kept.map(({ reason }) => reason).sort()).toEqual(['As it was.', 'The pad this change was made on is no longer there.'])
})

test('a page that an older one keeps from opening the store says so, and goes on when that one is closed', async () => {
  const factory = new IDBFactory()
  await anOlderDevice(factory, { documents: [], outbox: [], refused: [] })
  const older = await new Promise<IDBDatabase>((resolve) => {
    const request = factory.open('heliaster', 2)
    request.onsuccess = () => resolve(request.result)
  })
  const said: boolean[] = []
  const opening = openLocalDb(factory, (isBlocked) => said.push(isBlocked))
  while (said.length === 0) await settle(1)
  expect(said).toEqual([true])
  older.close()
  await opening
  expect(said).toEqual([true, false])
})

/** The store of a device as the second version of it was. */
function anOlderDevice(factory: IDBFactory, held: Record<'documents' | 'outbox' | 'refused', object[]>): Promise<void> {
  const request = factory.open('heliaster', 2)
  request.onupgradeneeded = () => {
    const db = request.result
    db.createObjectStore('documents', { keyPath: 'key' }).createIndex('kind', 'kind')
    db.createObjectStore('outbox', { keyPath: 'place', autoIncrement: true })
    db.createObjectStore('audio', { keyPath: 'hash' }).createIndex('uploaded', 'uploaded')
    db.createObjectStore('refused', { keyPath: 'place', autoIncrement: true })
    db.createObjectStore('pictures', { keyPath: 'key' })
  }
  return new Promise((resolve, reject) => {
    request.onerror = () => reject(request.error ?? new Error('not opened'))
    request.onsuccess = () => {
      const transaction = request.result.transaction(Object.keys(held), 'readwrite')
      for (const [name, rows] of Object.entries(held)) for (const row of rows) transaction.objectStore(name).add(plain(row))
      transaction.oncomplete = () => {
        request.result.close()
        resolve()
      }
    }
  })
}
