import type { Clip } from '@heliaster/core/kit'
import { hashOf } from '@heliaster/core/kit/testing'
import { wholeClip } from '@heliaster/core/kit'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'

import { EventType } from '@heliaster/core/engine'
import { draw } from '../../../core/engine/hosts/worker'
import { aKitOf, aPad } from '../../testing/a-kit'
import { seamVersion } from './hear-seam'
import { LoopControls } from './LoopControls'

const RATE = 48000
const samples = Float32Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * 437 * i) / RATE + 0.4))
let clip: Clip
let heard = 0

function Shown({ mode = 'hold' as const, audioOf = () => Promise.resolve({ sampleRateHz: RATE, channels: [samples] }) }) {
  const [shown, setShown] = useState<Clip>(wholeClip(hashOf('ab'), { frames: RATE, channels: 1 }))
  clip = shown
  const set = (loop: Clip['loop']) => setShown(({ loop: _before, ...rest }) => (loop ? { ...rest, loop } : rest))
  return (
    <LoopControls
      clip={shown}
      isAlone
      fallsSilent={false}
      sampleRateHz={RATE}
      mode={mode}
      audioOf={audioOf}
      onHearSeam={() => heard++}
      onSlide={set}
      onDone={() => undefined}
    />
  )
}

/** What is loaded has come before a test is over. */
const settled = () => act(async () => undefined)

test('a clip goes round in its second half at first, by a fade; there and back needs none; once more it plays once', async () => {
  render(<Shown />)
  expect(screen.queryByRole('slider')).toBeNull()
  fireEvent.click(screen.getByText('Goes round', { selector: '[role=radio] *, [role=radio]' }))
  expect(clip.loop).toEqual({ startFrame: RATE / 2, endFrame: RATE, kind: 'forward', until: 'end', crossfadeSeconds: 0.02 })
  fireEvent.click(screen.getByText('There and back'))
  expect(screen.queryByRole('slider', { name: 'Fade at the seam' })).toBeNull()
  fireEvent.click(screen.getByText('Plays once'))
  expect(clip.loop).toBeUndefined()
  await settled()
})

test('ends come to zero crossings, and the best end is found; both say what they did', async () => {
  render(<Shown />)
  fireEvent.click(screen.getByText('There and back'))
  fireEvent.click(screen.getByText('Ends to zero crossings'))
  await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/rise through zero/))
  const { startFrame } = clip.loop!
  expect(samples[startFrame - 1] < 0 && samples[startFrame] >= 0).toBe(true)
  fireEvent.click(screen.getByText('Find the best end'))
  await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/most like its start|no better place/))
  const periods = ((clip.loop!.endFrame - clip.loop!.startFrame) * 437) / RATE
  expect(Math.abs(periods - Math.round(periods))).toBeLessThan(0.01)
})

test('audio that is not there leaves the ends and says why', async () => {
  render(<Shown audioOf={() => Promise.reject(new Error('the file is missing.'))} />)
  fireEvent.click(screen.getByText('There and back'))
  const before = clip.loop
  fireEvent.click(screen.getByText('Find the best end'))
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('The ends stay: the file is missing.'))
  expect(clip.loop).toEqual(before)
})

test('a loop that nothing ends says so', async () => {
  render(<Shown mode={'oneShot' as never} />)
  fireEvent.click(screen.getByText('There and back'))
  expect(screen.getByRole('status').textContent).toMatch(/Nothing ends this strike/)
  await settled()
})

test('a loop until let go on a pad that nothing lets go of says so', async () => {
  render(<Shown mode={'oneShot' as never} />)
  fireEvent.click(screen.getByText('There and back'))
  fireEvent.click(screen.getByText('Until let go'))
  expect(screen.getByRole('status').textContent).toMatch(/Nothing lets go of this pad/)
  await settled()
})

test('the round is drawn on the wave: its ends are moved by keys and by drag, its seam is seen and heard', async () => {
  render(<Shown />)
  fireEvent.click(screen.getByText('Goes round', { selector: '[role=radio] *, [role=radio]' }))
  const begin = await screen.findByRole('slider', { name: 'Begin of the round' })
  const end = screen.getByRole('slider', { name: 'End of the round' })
  fireEvent.keyDown(begin, { key: 'ArrowRight', shiftKey: true })
  fireEvent.keyDown(end, { key: 'ArrowLeft' })
  expect(clip.loop).toMatchObject({ startFrame: RATE / 2 + 480, endFrame: RATE - 48 })
  for (let i = 0; i < 60; i++) fireEvent.keyDown(begin, { key: 'ArrowRight', shiftKey: true })
  expect(clip.loop!.startFrame).toBe(RATE - 50) // never past its end
  expect(screen.getByRole('img', { name: /^The seam from near: the end at -?0\.\d\d, the begin at/ })).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Hear the seam' }))
  expect(heard).toBe(1)
})

test.each([
  ['long', 0.5, 2, false],
  ['short', 1.9, 2, false],
  ['long and backwards', 0.5, 2, true],
])('a %s round is heard over its seam by the engine: what lies before it, then what it goes back to', (_, from, to, reverse) => {
  // Each frame says where it is.
  const rising = Float32Array.from({ length: 3 * RATE }, (_unused, i) => 0.1 + (0.2 * i) / (3 * RATE))
  const hash = hashOf('ab')
  const kit = aKitOf(aPad(1))
  const loop = { startFrame: from * RATE, endFrame: to * RATE, kind: 'forward' as const, until: 'letGo' as const, crossfadeSeconds: 0 }
  const clip = { ...wholeClip(hash, { frames: 3 * RATE, channels: 1 }), reverse, loop }
  const version = seamVersion({ ...kit.pads[0]!, own: { mode: 'hold', values: { gainDb: -9 } } }, clip, RATE)
  const { left } = draw({
    id: 1,
    kit: { ...kit, pads: [version], values: {} },
    audio: [[hash, { sampleRateHz: RATE, channels: [rising] }]],
    events: [{ padId: version.id, frame: 0, type: EventType.strike, velocity: 127 }],
    frames: RATE,
    sampleRateHz: RATE,
  })
  const frameAt = (seconds: number) => ((left[Math.round(seconds * RATE)]! / left[0]!) * valueAt(first) - 0.1) / (0.2 / (3 * RATE))
  const valueAt = (frame: number) => 0.1 + (0.2 * frame) / (3 * RATE)
  const first = reverse ? (from + 0.35) * RATE - 1 : (to - 0.35) * RATE
  const way = reverse ? -1 : 1
  const goesBackTo = (reverse ? to : from) * RATE
  expect(Math.abs(frameAt(0.3) - (first + way * 0.3 * RATE))).toBeLessThan(40)
  expect(Math.abs(frameAt(0.35 + 0.04) - (goesBackTo + way * 0.04 * RATE))).toBeLessThan(40)
})
