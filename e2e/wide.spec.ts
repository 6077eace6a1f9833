import { KIT_VERSION } from '@heliaster/core/kit'
import { expect, test } from '@playwright/test'

import { narrow, newKit, openDemo, openOwnDemo, pad, saved, wavWithStrikes } from './helpers'

test('files are imported many at once, with a reason for each that fails', async ({ page }) => {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  const good = wavWithStrikes(2, [0.2, 0.8, 1.4])
  await chooser.setFiles([
    { name: 'pontoon.wav', mimeType: 'audio/wav', buffer: good },
    { name: 'pontoon again.wav', mimeType: 'audio/wav', buffer: good },
    { name: 'cut off.wav', mimeType: 'audio/wav', buffer: good.subarray(0, 20_000) },
    { name: 'nothing.wav', mimeType: 'audio/wav', buffer: Buffer.alloc(0) },
    { name: 'really a zip.wav', mimeType: 'audio/wav', buffer: Buffer.from('PK\u0003\u0004 and so on') },
  ])
  await expect(page.getByText('2 imported, 1 was here already, 2 could not be read')).toBeVisible()
  await expect(page.getByText('This file is empty (0 bytes).', { exact: false })).toBeVisible()
  await expect(page.getByText('This is a zip file', { exact: false })).toBeVisible()
  await expect(page.getByText('The file ends early', { exact: false })).toBeVisible()
  await narrow(page, 'pontoon')
  await page.getByRole('button', { name: 'Cut pontoon', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Send 3 hits to pads' })).toBeEnabled()
})

test('the whole chain by keyboard: cut, name, pin, send, play, choke, undo', async ({ page }) => {
  await newKit(page)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Import files' }).click()])
  await chooser.setFiles([{ name: 'gangway.wav', mimeType: 'audio/wav', buffer: wavWithStrikes(3, [0.3, 0.9, 1.5, 2.1]) }])
  // Found by its name, so that what comes from elsewhere meanwhile moves no other row to its place.
  await page.getByRole('textbox', { name: 'Find by name' }).fill('gangway')
  await expect(page.getByRole('button', { name: /^Cut / })).toHaveCount(1)
  await page.getByRole('button', { name: 'Cut gangway' }).press('Enter')
  await expect(page.getByRole('button', { name: 'Send 4 hits to pads' })).toBeEnabled()
  const line = page.getByRole('slider', { name: 'Water line' })
  await line.focus()
  for (let i = 0; i < 8; i++) await page.keyboard.press('PageUp')
  await expect(page.getByText('No hit stands out of the water', { exact: false })).toBeVisible()
  for (let i = 0; i < 8; i++) await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: 'Send 4 hits to pads' })).toBeEnabled()
  await line.blur()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Home') // pin the first
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await expect(page.getByRole('switch', { name: 'Pin the marker' })).toBeChecked()
  await page.keyboard.press('Escape')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Delete') // remove the second
  await expect(page.getByRole('button', { name: 'Send 3 hits to pads' })).toBeEnabled()
  await page.getByRole('button', { name: 'Send 3 hits to pads' }).press('Enter')
  await page.getByRole('button', { name: 'Send to the Board' }).press('Enter')
  await expect(page.getByText('3 pads are on the Board.')).toBeVisible()
  await page.locator('body').press('KeyX')
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeVisible()
  await page.getByRole('radio', { name: 'Playing', exact: true }).click()
  await page.getByRole('radiogroup', { name: 'Choke group' }).getByText('New group').click()
  await expect(page.getByText('Alone in its group', { exact: false })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Alone in its group', { exact: false })).toHaveCount(0)
  await saved(page)
})

test('edits go on while the server is away, survive a reload and arrive later', async ({ page, context }) => {
  await newKit(page)
  await saved(page)
  await context.route('**/api/**', (route) => route.abort())
  await page.getByRole('link', { name: 'Board' }).click()
  await page.getByRole('button', { name: 'Add pad' }).click()
  await expect(page.getByRole('button', { name: /Kept on this device, \d+ to send/ })).toBeVisible()
  await expect(pad(page, 'Pad 1')).toBeVisible()
  await page.reload()
  await expect(pad(page, 'Pad 1')).toBeVisible()
  await context.unroute('**/api/**')
  await page.reload()
  await saved(page)
  const id = /kit\/([^/]+)/.exec(page.url())![1]
  const onServer = (await (await page.request.get(`/api/kits/${id}`)).json()) as { doc: { pads: unknown[] } }
  expect(onServer.doc.pads).toHaveLength(1)
})

test('a change made elsewhere meanwhile is joined with one’s own', async ({ page, context }) => {
  await newKit(page)
  await saved(page)
  const id = /kit\/([^/]+)/.exec(page.url())![1]
  await context.route('**/api/**', (route) => route.abort())
  await page.getByRole('link', { name: 'Board' }).click()
  await page.getByRole('button', { name: 'Add pad' }).click()
  const { revision } = (await (await page.request.get(`/api/kits/${id}`)).json()) as { revision: number }
  const elsewhere = {
    baseRevision: revision,
    batchId: 'elsewhere-1',
    version: KIT_VERSION,
    edits: [{ type: 'setKit', fields: { name: 'Renamed elsewhere' } }],
  }
  expect((await page.request.post(`/api/kits/${id}/edits`, { data: elsewhere })).status()).toBe(200)
  await context.unroute('**/api/**')
  await page.evaluate(() => window.dispatchEvent(new Event('online')))
  await saved(page)
  await expect(page.getByText('Renamed elsewhere').last()).toBeVisible()
  await expect(pad(page, 'Pad 1')).toBeVisible()
})

test('a refused microphone says what to do, and the practice microphone still records', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL })
  const page = await context.newPage()
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('refused', 'NotAllowedError'))
  })
  await newKit(page)
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('The microphone was refused. Allow it')
  await page.getByText('Practice microphone', { exact: true }).click()
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText(/^([2-9]|\d\d) hits$/)).toBeVisible({ timeout: 25_000 })
  await page.getByRole('button', { name: 'Stop and cut' }).click()
  await expect(page.getByRole('button', { name: /^Send [1-9]/ })).toBeEnabled()
  await context.close()
})

test('a browser without AudioWorklet says so, and everything else works', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL })
  const page = await context.newPage()
  await page.addInitScript(() => Reflect.deleteProperty(window, 'AudioWorkletNode'))
  await openDemo(page, 'board')
  await expect(page.getByRole('alert')).toContainText('This browser has no AudioWorklet')
  await expect(pad(page, 'Hull thump')).toBeVisible()
  await context.close()
})

test('where memory cannot be shared, pads sound all the same', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await page.addInitScript(() => Object.defineProperty(window, 'crossOriginIsolated', { value: false }))
  await openDemo(page, 'board')
  await pad(page, 'Chain drop').click()
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Chain drop')
  // The cell that sounded is marked by its coral border, which only the engine's own log can bring.
  await expect
    .poll(async () => {
      await pad(page, 'Chain drop').click()
      return page
        .getByRole('button', { name: /^Hear band 1, turn/ })
        .evaluateAll((cells) => cells.map((cell) => getComputedStyle(cell).borderTopWidth))
    })
    .toContain('2px')
  await context.close()
})

test('the groove goes on in other places and follows an edit made there', async ({ page }) => {
  await openDemo(page, 'groove')
  await page.getByRole('button', { name: 'Play' }).click()
  await page.getByRole('link', { name: 'Board' }).click()
  // Chosen without being struck again: the groove alone lights its cells.
  await pad(page, 'Hatch tick').click()
  const litTurns = new Set<string>()
  const look = async () => {
    const lit = await page
      .getByRole('button', { name: /^Hear band 1, turn/ })
      .evaluateAll((cells) =>
        cells.filter((cell) => getComputedStyle(cell).borderTopWidth === '2px').map((cell) => cell.getAttribute('aria-label')),
      )
    for (const label of lit) if (label) litTurns.add(label)
    return litTurns.size
  }
  await expect.poll(look).toBeGreaterThan(2)
  await page.getByRole('button', { name: 'Remove pad' }).click()
  await expect(pad(page, 'Hatch tick')).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  litTurns.clear()
  await pad(page, 'Hatch tick').click()
  await expect.poll(look).toBeGreaterThan(1)
  await page.getByRole('link', { name: 'Groove' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible()
})

test('a MIDI input strikes pads and its wheel moves them; a bus is made, sends to a return, and is heard in both', async ({ page }) => {
  await page.addInitScript(() => {
    const input = { name: 'Dock pads', state: 'connected', onmidimessage: null as ((event: { data: Uint8Array }) => void) | null }
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve({ inputs: new Map([['one', input]]), onstatechange: null }) })
    Object.assign(window, { midi: (...bytes: number[]) => input.onmidimessage?.({ data: Uint8Array.from(bytes) }) })
  })
  const midi = (...bytes: number[]) =>
    page.evaluate((given) => (window as unknown as { midi(...bytes: number[]): void }).midi(...given), bytes)
  await openOwnDemo(page, 'board')
  await pad(page, 'Buoy bell').click()
  await page.getByRole('button', { name: 'Hands', exact: true }).click()
  await page.getByRole('switch', { name: 'Play from MIDI inputs' }).click()
  await expect(page.getByText('Listening to Dock pads.')).toBeVisible()
  await midi(0xb0, 1, 90)
  await expect(page.getByText('Heard last: wheel at 90, channel 1, Dock pads.')).toBeVisible()
  await page.getByRole('link', { name: 'Mix', exact: true }).click()
  await page.getByRole('button', { name: 'Add a bus' }).click()
  await page.getByRole('button', { name: 'Add a return' }).click()
  await page.getByRole('button', { name: 'Settings of Bus 1' }).click()
  await page.getByRole('button', { name: 'Return 1', exact: true }).click()
  await page.getByRole('link', { name: 'Board', exact: true }).click()
  await page.getByRole('radio', { name: 'Level', exact: true }).click()
  await page.getByRole('radio', { name: 'Bus 1', exact: true }).click()
  await page.getByRole('link', { name: 'Mix', exact: true }).click()
  const level = (name: string) => page.getByRole('slider', { name: `Level of ${name}`, exact: true }).getByTestId('level').evaluate((bar) => bar.getBoundingClientRect().width) // prettier-ignore
  await expect.poll(async () => (await level('Bus 1')) + (await level('Return 1'))).toBe(0) // what was heard before has faded
  await expect
    .poll(async () => {
      await midi(0x90, 44, 120)
      return Math.min(await level('Bus 1'), await level('Return 1'))
    })
    .toBeGreaterThan(20)
  await page.getByRole('link', { name: 'Board', exact: true }).click()
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Undo' }).first().click()
  await saved(page)
})

test('the groove follows a MIDI clock and sends one: begun, at its tempo, stopped from there', async ({ page }) => {
  await page.addInitScript(() => {
    type Hear = ((event: { data: Uint8Array; timeStamp: number }) => void) | null
    const input = { name: 'Dock clock', state: 'connected', onmidimessage: null as Hear }
    const sent: [number, number][] = []
    const output = { name: 'Winch', state: 'connected', send: ([status]: number[], atMs: number) => void sent.push([status!, atMs]) }
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve({ inputs: new Map([['one', input]]), outputs: new Map([['two', output]]), onstatechange: null }) }) // prettier-ignore
    const say = (status: number, timeStamp: number) => input.onmidimessage?.({ data: Uint8Array.of(status), timeStamp })
    let timer = 0
    const begin = (bpm: number) => {
      const step = 60_000 / bpm / 24
      const from = performance.now()
      let pulse = 0
      say(0xfa, from)
      timer = window.setInterval(() => {
        for (; from + pulse * step <= performance.now(); pulse++) say(0xf8, from + pulse * step)
      }, 5)
    }
    const end = () => {
      clearInterval(timer)
      say(0xfc, performance.now())
    }
    Object.assign(window, { dock: { begin, end, sent } })
  })
  const dock = (what: 'begin' | 'end', bpm = 0) =>
    page.evaluate(([name, tempo]) => (window as unknown as { dock: Record<string, (bpm: number) => void> }).dock[name]!(tempo), [
      what,
      bpm,
    ] as const)
  const sent = () => page.evaluate(() => (window as unknown as { dock: { sent: [number, number][] } }).dock.sent)
  await openDemo(page, 'hands')
  await page.getByRole('radio', { name: 'Timing', exact: true }).click()
  await page.getByRole('button', { name: 'Use MIDI' }).click()
  await page.getByRole('radiogroup', { name: 'Follow the clock of' }).getByRole('radio', { name: 'Dock clock' }).click()
  await page.getByRole('checkbox', { name: 'Winch' }).click()
  await dock('begin', 140)
  await expect(page.getByText(/^The groove goes by Dock clock, at 1(39|40)[.]\d beats a minute[.]$/)).toBeVisible()
  await expect.poll(async () => (await sent()).filter(([status]) => status === 0xf8).length).toBeGreaterThan(100)
  await page.getByRole('link', { name: 'Groove' }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(page.getByText(/^Dock clock leads, at 1(39|40)/)).toBeVisible()
  await dock('end')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await expect.poll(async () => (await sent()).some(([status]) => status === 0xfc)).toBe(true)
  const all = await sent()
  // From its beginning, or where the page was late, from a position and on from there; nothing else before the first pulse.
  const opening = all
    .slice(
      0,
      all.findIndex(([status]) => status === 0xf8),
    )
    .map(([status]) => status)
  expect([[0xfa], [0xf2, 0xfb]]).toContainEqual(opening)
  // A kit at 92 beats a minute would send a pulse each 27 ms; led at 140 they come each 17.9 ms.
  const times = all.filter(([status]) => status === 0xf8).map(([, atMs]) => atMs)
  const steps = times.slice(1).map((atMs, i) => atMs - times[i]!).sort((a, b) => a - b) // prettier-ignore
  expect(Math.abs(steps[Math.floor(steps.length / 2)]! - 60_000 / 140 / 24)).toBeLessThan(0.6)
})
