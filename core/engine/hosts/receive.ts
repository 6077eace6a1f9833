import { addEvent } from '../events'
import { addChunk, putReadingTable } from '../memory/memory'
import { EventField, StatusField } from '../program/layout'
import type { EngineState } from '../state'
import type { ToWorklet } from './messages'

/** Does what a page says that shares no memory. */
export function receive(engine: EngineState, message: ToWorklet): void {
  const { memory } = engine
  switch (message.type) {
    case 'chunk':
      if (message.samples) memory.chunks[message.chunk] = message.samples
      else makeChunk(engine, message.chunk, message.frames)
      break
    case 'samples':
      memory.chunks[message.chunk]?.set(message.samples, message.startFrame)
      break
    case 'table':
      putReadingTable(memory, message.table, message.numbers)
      break
    case 'arena':
      memory.arena.set(message.doubles, message.offset)
      break
    case 'tables':
      memory.directory.set(message.directory)
      memory.programTable.set(message.programTable)
      break
    case 'events':
      for (let at = 0; at < message.events.length; at += EventField.length) addEvent(engine, message.events, at)
      break
  }
}

/** Where the kernel's memory has no more room, samples lie beside it, and the plain form plays: slower, but the same. */
function makeChunk(engine: EngineState, chunk: number, frames: number): void {
  const { memory } = engine
  try {
    addChunk(memory, chunk, frames)
  } catch {
    memory.chunks[chunk] = new Float32Array(frames)
    engine.kernel = undefined
    memory.status[StatusField.hasKernel] = 0
  }
}
