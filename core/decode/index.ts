export { readAudioFile } from './read-audio-file'
export type { AudioFile, AudioFileResult } from './read-audio-file'
export { audioFileEndings, endingOf, formatOf } from './format'
export type { AudioFormat } from './format'
