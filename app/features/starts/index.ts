export { BeginPad, begunPads } from './BeginPad'
export { KeepStart, StartChips } from './StartChips'
export { useStarts } from './use-starts'
