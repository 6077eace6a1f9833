import type { Clip } from '@heliaster/core/kit'
import { hashOf } from '@heliaster/core/kit/testing'
import { wholeClip } from '@heliaster/core/kit'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'

import { aPad } from '../../testing/a-kit'
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

test('a clip goes round in its second half at first, by a fade; there and back needs none; once more it plays once', () => {
  render(<Shown />)
  expect(screen.queryByRole('slider')).toBeNull()
  fireEvent.click(screen.getByText('Goes round', { selector: '[role=radio] *, [role=radio]' }))
  expect(clip.loop).toEqual({ startFrame: RATE / 2, endFrame: RATE, kind: 'forward', until: 'end', crossfadeSeconds: 0.02 })
  fireEvent.click(screen.getByText('There and back'))
  expect(screen.queryByRole('slider', { name: 'Fade at the seam' })).toBeNull()
  fireEvent.click(screen.getByText('Plays once'))
  expect(clip.loop).toBeUndefined()
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

test('a loop that nothing ends says so', () => {
  render(<Shown mode={'oneShot' as never} />)
  fireEvent.click(screen.getByText('There and back'))
  expect(screen.getByRole('status').textContent).toMatch(/Nothing ends this strike/)
})

test('a loop until let go on a pad that nothing lets go of says so', () => {
  render(<Shown mode={'oneShot' as never} />)
  fireEvent.click(screen.getByText('There and back'))
  fireEvent.click(screen.getByText('Until let go'))
  expect(screen.getByRole('status').textContent).toMatch(/Nothing lets go of this pad/)
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

test('a seam is heard from shortly before it and for a moment after, whatever else the pad does', () => {
  const pad = aPad(1)
  const whole = {
    ...wholeClip(hashOf('ab'), { frames: 4 * RATE, channels: 1 }),
    loop: { startFrame: RATE, endFrame: 3 * RATE, kind: 'forward' as const, until: 'letGo' as const, crossfadeSeconds: 0 },
  }
  const version = seamVersion({ ...pad, own: { ...pad.own, mode: 'hold' } }, whole, RATE)
  const [played] = Object.values(version.bands[0]!.turns[0]!.clips)
  expect(played).toMatchObject({ startFrame: 3 * RATE - 0.35 * RATE, loop: { until: 'end' } })
  expect(version.own.mode).toBe('oneShot')
  expect(version.own.envelopes!.level!.points[2]!.seconds).toBeCloseTo(0.35 + 0.82, 5)
})
