// npm run second-engine: the golden renders in Firefox, in a worker and in worklets, against the bits of Node and Chromium.
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { basename, dirname, join } from 'node:path'

import { golden, goldenScores, SCORE_RATE_HZ } from '@heliaster/core/engine/testing'

import { renderInPage } from './render-in-page'

const PATIENCE_MS = 600_000
const tools = '../tools/install.mjs' as string
const { ensureProgram } = (await import(tools)) as { ensureProgram(paths: string[], debianPackage: string): string }
const builder = (await import('../tools/build-engine.mjs' as string)) as { buildEngine(): Promise<string> }
const engineFile = await builder.buildEngine()
const firefox = ensureProgram(['/usr/bin/firefox-esr'], 'firefox-esr')
const scores = goldenScores.map((make) => make())

/** Runs in the page: every score, one after another, and what came out or went wrong is told. */
async function run(names: readonly string[], rate: number): Promise<void> {
  const tell = (told: object) => fetch('/result', { method: 'POST', body: JSON.stringify(told) })
  for (const name of names) {
    Object.assign(window, { score_: async () => (await fetch(`/score/${name}`)).json() as unknown })
    await renderInPage({ name, rate }).then(
      (hashes) => tell({ name, hashes, isIsolated: crossOriginIsolated }),
      (error: Error) => tell({ name, error: `${error.message} ${error.stack}` }),
    )
  }
  await tell({ done: true })
}

const page = () =>
  `<!doctype html><title>golden</title><script type="module">globalThis.__name = (given) => given
${renderInPage.toString()}
${run.toString()}
run(${JSON.stringify(scores.map(({ name }) => name))}, ${SCORE_RATE_HZ})</script>`

interface Told {
  readonly name?: string
  readonly hashes?: Record<string, string>
  readonly isIsolated?: boolean
  readonly error?: string
  readonly done?: boolean
}

const failures: string[] = []
let finish = () => undefined as void
const finished = new Promise<void>((resolve) => (finish = resolve))

function take({ name, hashes, isIsolated, error, done }: Told): void {
  if (done) return finish()
  const wrong = error ?? Object.entries(hashes!).filter(([, hash]) => hash !== golden[name!]).map(([place]) => place).join(', ') // prettier-ignore
  if (!error && !isIsolated) failures.push('the page was not isolated')
  if (wrong) failures.push(`${name}: ${wrong}`)
  console.log(`${name}: ${wrong ? `other bits, or none: ${wrong}` : `the same bits in ${Object.keys(hashes!).join(', ')}`}`)
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const path = request.url ?? '/'
  const send = (type: string, body: string | Buffer) => {
    response.writeHead(200, {
      'content-type': type,
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-embedder-policy': 'require-corp',
    })
    response.end(body)
  }
  if (path === '/') return send('text/html', page())
  if (path === '/result') {
    const parts: Buffer[] = []
    for await (const part of request) parts.push(part as Buffer)
    take(JSON.parse(Buffer.concat(parts).toString()) as Told)
    return send('text/plain', '')
  }
  if (path.startsWith('/score/')) {
    const { audio, ...score } = scores.find(({ name }) => name === decodeURIComponent(path.slice(7)))!
    const plain = [...audio].map(([hash, one]) => [hash, { ...one, channels: one.channels.map((channel) => [...channel]) }])
    return send('application/json', JSON.stringify({ ...score, audio: plain }))
  }
  if (!path.startsWith('/engine/')) {
    response.writeHead(404)
    return void response.end()
  }
  send(path.endsWith('.json') ? 'application/json' : 'text/javascript', readFileSync(join(dirname(engineFile), basename(path))))
}

const server = createServer((request, response) => void answer(request, response))
await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
const profile = mkdtempSync(join(tmpdir(), 'heliaster-firefox-'))
const address = `http://localhost:${(server.address() as AddressInfo).port}/`
const browser = spawn(firefox, ['--headless', '--no-remote', '--profile', profile, address], { stdio: 'ignore' })
const ended = new Promise<void>((resolve) => browser.once('exit', () => resolve(void failures.push('Firefox ended before it was done.'))))
const late = setTimeout(() => {
  failures.push('Firefox was not done in ten minutes.')
  finish()
}, PATIENCE_MS)
await Promise.race([finished, ended])
clearTimeout(late)
browser.removeAllListeners('exit').kill()
await new Promise((gone) => (browser.exitCode === null ? browser.once('exit', gone) : gone(undefined)))
server.close()
rmSync(profile, { recursive: true, force: true, maxRetries: 5 })
for (const failure of failures) console.error(failure)
console.log(failures.length > 0 ? 'Firefox does not sound as Node and Chromium do.' : `Firefox sounds as Node and Chromium do, to the bit, in all ${scores.length} scores.`) // prettier-ignore
process.exit(failures.length > 0 ? 1 : 0)
