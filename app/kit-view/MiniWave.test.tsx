import { act, render } from '@testing-library/react'

import type { Picture } from '../audio/files/picture'
import { MiniWave, Outline } from './MiniWave'

const pictureOf = (low: number[], high: number[]) => ({ low: Float32Array.from(low), high: Float32Array.from(high) }) as Picture
const drawn = new Map<string, Picture>()
const mockDrawn = jest.fn((audio: string) => drawn.get(audio))
let mockComes: Record<string, { resolve: (picture: Picture) => void; reject: (error: Error) => void }> = {}
jest.mock('../audio/files/audio-files', () => ({
  drawnPicture: (audio: string) => mockDrawn(audio),
  audioPicture: (audio: string) => new Promise<Picture>((resolve, reject) => (mockComes[audio] = { resolve, reject })),
}))

const path = (container: HTMLElement) => container.querySelector('path')!.getAttribute('d')
/** The points of a path, in hundredths of its place. */
const points = (d: string | null) => [...d!.matchAll(/[ML](\d+) (\d+)/g)].map(([, x, y]) => [Number(x), Number(y)])
const wave = (audio: string) => <MiniWave audio={audio as never} width={60} height={20} />

beforeEach(() => {
  drawn.clear()
  mockComes = {}
})

test('a wave fills its place at its highest, high points from left to right, low ones back', () => {
  drawn.set('a', pictureOf([-0.1, -0.4, 0], [0.2, 0.1, 0.05]))
  const { container } = render(wave('a'))
  const svg = container.querySelector('svg')!
  expect([svg.getAttribute('width'), svg.getAttribute('height'), svg.getAttribute('aria-hidden')]).toEqual(['60', '20', 'true'])
  const all = points(path(container))
  expect(all.map(([x]) => x)).toEqual([0, 50, 100, 100, 50, 0])
  expect(all[4][1]).toBe(97) // the deepest, three short of the edge
  expect(all.map(([, y]) => y)).toEqual([27, 38, 44, 51, 97, 62])
  expect(path(container)).toMatch(/Z$/)
})

test('silence is a thin line in the middle, and nothing is divided by it', () => {
  drawn.set('a', pictureOf([0, 0], [0, 0]))
  const { container } = render(wave('a'))
  expect(points(path(container)).every(([, y]) => Math.abs(y - 50) <= 1)).toBe(true)
})

test('its place is kept while it is drawn; what comes late for another file is not shown', async () => {
  const { container, rerender } = render(wave('a'))
  expect([path(container), container.querySelector('svg')!.getAttribute('width')]).toEqual(['', '60'])
  rerender(wave('b'))
  await act(async () => mockComes.a.resolve(pictureOf([-1, -1], [1, 1])))
  expect(path(container)).toBe('')
  await act(async () => mockComes.b.resolve(pictureOf([-0.5, 0], [0.5, 0])))
  expect(points(path(container))).toHaveLength(4)
})

test('a file that cannot be drawn leaves its place empty', async () => {
  const { container } = render(wave('gone'))
  await act(async () => mockComes.gone.reject(new Error('missing')))
  expect(path(container)).toBe('')
})

test('an outline takes its share of the height, and is never too thin to see', () => {
  const heights = [1, 0.5, 0].map((share) => {
    const { container } = render(<Outline {...pictureOf([-1, 0], [1, 0])} width={40} height={30} share={share} />)
    return container.querySelector('svg')!.getAttribute('height')
  })
  expect(heights).toEqual(['30', '15', '2'])
})
