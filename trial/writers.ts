import { createIds, createKit, createPad } from '@heliaster/core/kit'
import type { Kit, PadId } from '@heliaster/core/kit'

export const makeId = createIds(Math.random)
const PADS = 100

/** One who edits: pads are added to a kit, one batch after another, and what the server acknowledged is remembered. */
export class Writer {
  /** Every pad whose batch was acknowledged, by its kit. */
  readonly acknowledged: { kitId: string; padId: PadId }[] = []
  readonly milliseconds: number[] = []
  private kit: Kit | undefined
  private revision = 0
  private pads = 0
  private batchId = makeId<string>('batch')

  constructor(private readonly address: string) {}

  /** One try of one batch. Errors and time-outs leave it to be tried again, under the same id. */
  async write(): Promise<void> {
    if (!this.kit || this.pads >= PADS) return this.begin()
    const padId = `pad-${this.batchId}` as PadId
    const edits = [{ type: 'addPad', pad: { ...createPad(makeId, { name: 'Trial' }), id: padId }, index: 0 }]
    const from = performance.now()
    const answer = await this.send('POST', `kits/${this.kit.id}/edits`, { baseRevision: this.revision, batchId: this.batchId, edits })
    if (answer?.status === 409) this.revision = (answer.body as { error: { details: { revision: number } } }).error.details.revision
    if (answer?.status !== 200) return
    this.milliseconds.push(performance.now() - from)
    this.revision = (answer.body as { revision: number }).revision
    this.acknowledged.push({ kitId: this.kit.id, padId })
    this.pads++
    this.batchId = makeId('batch')
  }

  private async begin(): Promise<void> {
    const kit = createKit(makeId, 'Trial')
    const answer = await this.send('PUT', `kits/${kit.id}`, kit)
    if (answer?.status !== 201) return
    this.kit = kit
    this.revision = 1
    this.pads = 0
  }

  private async send(method: string, path: string, body: unknown) {
    try {
      const headers = { 'content-type': 'application/json' }
      const request = { method, headers, body: JSON.stringify(body), signal: AbortSignal.timeout(10_000) }
      const response = await fetch(`${this.address}/api/${path}`, request)
      return { status: response.status, body: (await response.json()) as unknown }
    } catch {
      return undefined
    }
  }
}

/** Of what was acknowledged, what the server no longer has, or has twice. */
export async function lostOf(address: string, writers: readonly Writer[]): Promise<number> {
  let lost = 0
  const docs = new Map<string, string[]>()
  for (const { kitId, padId } of writers.flatMap((writer) => writer.acknowledged)) {
    if (!docs.has(kitId)) {
      const { doc } = (await (await fetch(`${address}/api/kits/${kitId}`)).json()) as { doc: Kit }
      docs.set(
        kitId,
        doc.pads.map((pad) => pad.id),
      )
    }
    if (docs.get(kitId)!.filter((id) => id === padId).length !== 1) lost++
  }
  return lost
}
