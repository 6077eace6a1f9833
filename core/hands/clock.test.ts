import fc from 'fast-check'

import { seeded } from '../kit/testing'
import { createClockFollower, PULSES_PER_BEAT, pulsesBetween, readClock, writeClock } from '.'
import type { ClockAct, ClockMessage } from '.'

test('what is written is read again; other messages are none of a clock', () => {
  const messages: ClockMessage[] = [{ type: 'pulse' }, { type: 'start' }, { type: 'continue' }, { type: 'stop' }, { type: 'position', beat: 37.25 }] // prettier-ignore
  for (const message of messages) expect(readClock(Uint8Array.from(writeClock(message)))).toEqual(message)
  expect(writeClock({ type: 'position', beat: 1e9 })).toEqual([0xf2, 127, 127])
  for (const bytes of [[], [0xf2], [0xf2, 3], [0xf2, 200, 1], [0x90, 36, 100], [0xfe]])
    expect(readClock(Uint8Array.from(bytes))).toBeUndefined()
})

/** Pulses of a clock that trembles by up to so many ms; the moments as they come, and as they are meant. */
function clockOf(bpm: number, pulses: number, trembleMs: number, random: () => number, fromMs = 1000) {
  const step = 60_000 / bpm / PULSES_PER_BEAT
  return Array.from({ length: pulses }, (_, i) => ({ meant: fromMs + i * step, came: fromMs + i * step + trembleMs * (2 * random() - 1) }))
}

test('a trembling clock is followed more truly than it comes; its tempo is known within a tenth of a percent', () => {
  let [off, came, worstTempo, count] = [0, 0, 0, 0]
  for (let seed = 1; seed <= 40; seed++) {
    const random = seeded(seed)
    const bpm = 50 + 180 * random()
    const follower = createClockFollower(() => 120)
    const pulses = clockOf(bpm, 24 * 24, 3, random)
    follower.take({ type: 'start' }, pulses[0]!.came - 5)
    pulses.forEach((pulse, i) => {
      const act = follower.take({ type: 'pulse' }, pulse.came)
      if (act?.type !== 'lead' || i < 96) return
      expect(act.beat).toBeCloseTo(i / PULSES_PER_BEAT, 9)
      off += Math.abs(act.atMs - pulse.meant)
      came += Math.abs(pulse.came - pulse.meant)
      worstTempo = Math.max(worstTempo, Math.abs(act.tempoBpm / bpm - 1))
      count++
    })
  }
  expect(count).toBeGreaterThan(1000)
  expect(off / came).toBeLessThan(0.35)
  expect(worstTempo).toBeLessThan(0.02)
})

test('it begins on the first pulse after a start, goes on from a position, and stops; pulses before that only tell the tempo', () => {
  const follower = createClockFollower(() => 100)
  const acts: ClockAct[] = []
  const take = (message: ClockMessage, atMs: number) => {
    const act = follower.take(message, atMs)
    if (act) acts.push(act)
  }
  for (const { came } of clockOf(120, 24, 0, () => 0)) take({ type: 'pulse' }, came)
  expect([acts, follower.isRunning()]).toEqual([[], false])
  expect(follower.tempoBpm()).toBeCloseTo(120, 6)
  take({ type: 'start' }, 1500)
  for (const { came } of clockOf(120, 7, 0, () => 0, 1500)) take({ type: 'pulse' }, came)
  expect(acts.map(({ type }) => type)).toEqual(['begin', 'lead'])
  expect(acts[0]).toMatchObject({ beat: 0 })
  expect(acts[1]).toMatchObject({ beat: 0.25 })
  take({ type: 'stop' }, 1650)
  take({ type: 'stop' }, 1660)
  take({ type: 'position', beat: 8 }, 1700)
  take({ type: 'continue' }, 1700)
  take({ type: 'pulse' }, 1720)
  expect(acts.slice(2).map(({ type }) => type)).toEqual(['stop', 'begin'])
  expect(acts[3]).toMatchObject({ beat: 8 })
})

test('a tempo that jumps is taken within a beat', () => {
  const follower = createClockFollower(() => 120)
  follower.take({ type: 'start' }, 999)
  const slow = clockOf(80, 100, 1, seeded(3))
  for (const { came } of slow) follower.take({ type: 'pulse' }, came)
  expect(follower.tempoBpm()! / 80).toBeCloseTo(1, 2)
  for (const { came } of clockOf(150, 24, 0.2, seeded(4), slow[99]!.meant + 1000 * 0.4 / 24)) follower.take({ type: 'pulse' }, came) // prettier-ignore
  expect(follower.tempoBpm()! / 150).toBeCloseTo(1, 1)
})

test('asked for in any pieces, each pulse is sent once', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 0.7, noNaN: true }), { minLength: 1, maxLength: 40 }), (pieces) => {
      let at = 0
      const sent: number[] = []
      for (const piece of pieces) {
        sent.push(...pulsesBetween(at, at + piece))
        at += piece
      }
      const numbers = sent.map((beat) => Math.round(beat * PULSES_PER_BEAT))
      expect(numbers).toEqual(Array.from({ length: numbers.length }, (_, i) => i + 1))
      expect(Math.abs(numbers.length - at * PULSES_PER_BEAT)).toBeLessThanOrEqual(1)
    }),
  )
})
