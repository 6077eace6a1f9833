export { BeginPad } from './BeginPad'
export { begunPads } from './begun-pads'
export { KeepStart, StartChips } from './StartChips'
export { useStarts } from './use-starts'
