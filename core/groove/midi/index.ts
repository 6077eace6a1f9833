export { grooveOfMidi } from './groove-of-midi'
export type { MidiGroove, ReadGroove } from './groove-of-midi'
export { midiOfGroove } from './midi-of-groove'
export type { WrittenGroove } from './midi-of-groove'
