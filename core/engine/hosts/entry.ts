/**
 * The one built file of the engine. Loaded as an audio worklet it registers its processors, as a worker it answers
 * drawing requests, and in Node it is imported for what it exports.
 */
import { serveDrawing } from './worker'
import { registerProcessors } from './worklet'

export * from '../index'

interface Host {
  registerProcessor?: unknown
  WorkerGlobalScope?: unknown
}

const host = globalThis as Host
if (typeof host.registerProcessor === 'function') registerProcessors()
else if (host.WorkerGlobalScope !== undefined) serveDrawing()
