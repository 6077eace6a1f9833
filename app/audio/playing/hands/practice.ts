import { writeMessage } from '@heliaster/core/hands'
import type { HandMessage, ScriptStep } from '@heliaster/core/hands'

import { PRACTICE } from './hand-settings'
import { inputIsGone, takeMessage } from './hands'

/** Windows of one browser hear each other here: the practice controller may lie in one of its own. */
const CHANNEL = 'heliaster-practice'

/** Plays the open kit from practice controllers of this browser, whatever window they are in. Returns the way to stop. */
export function connectPractice(): () => void {
  if (typeof BroadcastChannel === 'undefined') return () => undefined
  const channel = new BroadcastChannel(CHANNEL)
  channel.onmessage = ({ data, timeStamp }: MessageEvent<unknown>) => {
    if (data === 'gone') inputIsGone(PRACTICE)
    else if (Array.isArray(data)) takeMessage(PRACTICE, Uint8Array.from(data as number[]), timeStamp)
  }
  return () => {
    channel.close()
    inputIsGone(PRACTICE)
  }
}

export interface Practice {
  /** Bytes of one message, as a device would send them. */
  send(...bytes: number[]): void
  tell(message: HandMessage): void
  /** Plays a script; a new one, or `stop`, takes its place. */
  run(steps: readonly ScriptStep[], onEnd?: () => void): void
  stop(): void
  /** All that it holds is let go, and it is heard no more. */
  close(): void
}

/** A controller without a device: what it says is heard wherever a kit is open in this browser. */
export function createPractice(): Practice {
  const channel = new BroadcastChannel(CHANNEL)
  let timers: ReturnType<typeof setTimeout>[] = []
  const tell = (message: HandMessage) => channel.postMessage(writeMessage(message))
  const stop = () => {
    timers.forEach(clearTimeout)
    timers = []
    channel.postMessage('gone')
  }
  return {
    send: (...bytes) => channel.postMessage(bytes),
    tell,
    run(steps, onEnd) {
      stop()
      timers = steps.map(({ atMs, message }) => setTimeout(() => tell(message), atMs))
      const lastMs = steps.reduce((last, { atMs }) => Math.max(last, atMs), 0)
      if (onEnd) timers.push(setTimeout(onEnd, lastMs))
    },
    stop,
    close() {
      stop()
      channel.close()
    },
  }
}
