const NAMES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B']

/** A MIDI note by name, middle C (60) as C4. */
export function noteName(note: number): string {
  return `${NAMES[note % 12]}${Math.floor(note / 12) - 1}`
}

/** The note nearest to a frequency and how far off it is, in cents. */
export function nearestNote(hz: number, a4Hz = 440): { note: number; cents: number } {
  const exact = 69 + 12 * Math.log2(hz / a4Hz)
  const note = Math.round(exact)
  return { note, cents: Math.round((exact - note) * 100) }
}
