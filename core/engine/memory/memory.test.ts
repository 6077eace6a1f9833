import { renderOffline, toScore } from '../offline'
import { StatusField } from '../program/layout'
import { createEngine } from '../state'
import { createMemory } from './memory'

test('before an engine has run, and while none plays, no groove stands on any beat', () => {
  const memory = createMemory(false)
  const beats = () => [memory.status[StatusField.grooveBeat], memory.status[StatusField.songBeat]]
  expect([beats(), memory.status[StatusField.frame]]).toEqual([[-1, -1], 0])
  renderOffline(createEngine(memory, 48000), toScore([]), 256)
  expect([beats(), memory.status[StatusField.frame]]).toEqual([[-1, -1], 256])
})
