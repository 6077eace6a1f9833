/** What a message of an input says, in the words of the MIDI 1.0 standard. Channels are 1..16, bend is -1..1, the rest 0..127. */
export type HandMessage =
  | { readonly type: 'noteOn' | 'noteOff'; readonly channel: number; readonly note: number; readonly velocity: number }
  | { readonly type: 'keyPressure'; readonly channel: number; readonly note: number; readonly pressure: number }
  | { readonly type: 'controller'; readonly channel: number; readonly number: number; readonly value: number }
  | { readonly type: 'pressure'; readonly channel: number; readonly pressure: number }
  | { readonly type: 'bend'; readonly channel: number; readonly bend: number }
  | { readonly type: 'allOff'; readonly channel: number }

/** Controllers from here on are modes of a channel; these end what sounds. */
const FIRST_MODE = 120
const MODES_THAT_END: readonly number[] = [120, 123, 124, 125, 126, 127]

/** A bend as MIDI counts it (-8192..8191), as the engine's control does: -1 to 1, and straight in the middle. */
export function bendShare(bend: number): number {
  return bend < 0 ? bend / 8192 : bend / 8191
}

/** The same from its 14 bits. */
export function bendOfBits(low: number, high: number): number {
  return bendShare(((high << 7) | low) - 8192)
}

/** Reads one whole message; nothing for what no pad is played by, and for bytes that are no message. */
export function readMessage(bytes: Uint8Array): HandMessage | undefined {
  const [status = 0, first, second] = bytes
  if (status < 0x80 || status >= 0xf0 || first === undefined || first > 127) return undefined
  const channel = (status & 15) + 1
  const kind = status >> 4
  if (kind === 13) return { type: 'pressure', channel, pressure: first }
  if (second === undefined || second > 127) return undefined
  switch (kind) {
    case 8:
      return { type: 'noteOff', channel, note: first, velocity: second }
    case 9: // a note that begins with no strength is the end of one
      return { type: second > 0 ? 'noteOn' : 'noteOff', channel, note: first, velocity: second }
    case 10:
      return { type: 'keyPressure', channel, note: first, pressure: second }
    case 11:
      if (first < FIRST_MODE) return { type: 'controller', channel, number: first, value: second }
      return MODES_THAT_END.includes(first) ? { type: 'allOff', channel } : undefined
    case 14:
      return { type: 'bend', channel, bend: bendOfBits(first, second) }
    default:
      return undefined
  }
}

/** The bytes of a message, for whoever sends one. */
export function writeMessage(message: HandMessage): number[] {
  const status = (kind: number) => (kind << 4) | (message.channel - 1)
  switch (message.type) {
    case 'noteOn':
      return [status(9), message.note, message.velocity]
    case 'noteOff':
      return [status(8), message.note, message.velocity]
    case 'keyPressure':
      return [status(10), message.note, message.pressure]
    case 'controller':
      return [status(11), message.number, message.value]
    case 'pressure':
      return [status(13), message.pressure]
    case 'bend': {
      const bits = 8192 + Math.round(message.bend * (message.bend < 0 ? 8192 : 8191))
      return [status(14), bits & 127, bits >> 7]
    }
    case 'allOff':
      return [status(11), 123, 0]
  }
}
