/** What reads and writes MIDI files comes when it is asked for. */
export const midiWork = () => import('@heliaster/core/groove/midi')
