import { summarise } from '@heliaster/core/audio'

import type { Palette } from '../../../ui/theme/theme'
import type { CutHit } from '../bench/use-source-cut'
import { drawRecording, FLAGS_PX } from './draw-recording'
import type { Drawn } from './draw-recording'

/** Each colour is its own name. */
const palette = new Proxy({}, { get: (_, name) => String(name) }) as Palette
const [WIDTH, HEIGHT, RATE] = [400, 200, 48000]

interface Rect {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly fill: string
}

/** A canvas that writes down what is drawn on it: rectangles, and dots with how they are filled. */
function drawn(given: Partial<Drawn>) {
  const rects: Rect[] = []
  const dots: { x: number; radius: number; fills: string[] }[] = []
  const outline: number[] = []
  const pen = {
    fillStyle: '',
    globalAlpha: 1,
    clearRect: () => undefined,
    fillRect: (x: number, y: number, width: number) => rects.push({ x, y, width, fill: pen.fillStyle }),
    beginPath: () => undefined,
    lineTo: (_x: number, y: number) => outline.push(y),
    arc: (x: number, _y: number, radius: number) => dots.push({ x, radius, fills: [] }),
    fill: () => dots.at(-1)?.fills.push(pen.fillStyle),
    stroke: () => undefined,
  }
  const mono = Float32Array.from({ length: RATE }, (_, i) => Math.sin(i / 20))
  const canvas = { width: WIDTH, height: HEIGHT, clientWidth: WIDTH, getContext: () => pen }
  drawRecording(canvas as unknown as HTMLCanvasElement, palette, {
    analysis: { mono, summary: summarise(mono) } as Drawn['analysis'],
    hits: [],
    view: { start: 0, end: RATE, gain: 1 } as Drawn['view'],
    ...given,
  })
  return { rects, dots, outline }
}

const hit = (id: string, frame: number, more: Record<string, unknown> = {}, ofHit: Record<string, unknown> = {}): CutHit =>
  ({
    marker: { id, frame, origin: 'found', pinned: false, ...more },
    hit: { startFrame: frame, endFrame: frame + 4800, secondFrames: [], ...ofHit },
  }) as unknown as CutHit

test('the wave stays under the strip of flags, and fills no more than its half', () => {
  const { outline } = drawn({ view: { start: 0, end: RATE, gain: 40 } as Drawn['view'] })
  expect(Math.min(...outline)).toBeGreaterThanOrEqual(FLAGS_PX)
  expect(Math.max(...outline)).toBeLessThanOrEqual(HEIGHT)
})

test('flags that fall on one pixel are drawn once, but for the chosen one; hand-made ones are full, found ones open', () => {
  const hits = [hit('a', 12_000), hit('b', 12_010), hit('c', 12_020), hit('d', 36_000, { origin: 'made' })]
  expect(drawn({ hits }).dots.map(({ x }) => Math.round(x))).toEqual([100, 300])
  const { dots } = drawn({ hits, chosen: 'c' as Drawn['chosen'] })
  expect(dots.map(({ x }) => Math.round(x))).toEqual([100, 100, 300, 140]) // the last one is the foot at its end
  expect(dots[0].fills).toEqual([palette.paper])
  expect(dots[2].fills).toEqual([palette.kelp])
  expect(dots[3].fills).toEqual([palette.coral])
})

test('hits lie behind the wave, passed ones not; strikes within them are short strokes on the ground', () => {
  const hits = [hit('a', 9_600, {}, { secondFrames: [11_520] }), hit('b', 24_000, { verdict: 'pass' }, { secondFrames: [26_000] })]
  const { rects } = drawn({ hits, chosen: 'a' as Drawn['chosen'] })
  expect(rects.filter(({ fill }) => fill === palette.surface)).toEqual([])
  expect(rects.filter(({ fill }) => fill === palette.water).map(({ x, width }) => [x, width])).toEqual([[80, 40]])
  expect(rects.filter(({ fill, y }) => fill === palette.coral && y === HEIGHT - 10).map(({ x }) => x)).toEqual([96])
})

test('a passage has its two edges to be taken by; the cursor stands over all', () => {
  const { rects, dots } = drawn({ passage: { startFrame: 12_000, endFrame: 24_000 }, cursor: 6_000 })
  expect(rects.find(({ fill }) => fill === palette.kelpWash)).toMatchObject({ x: 100, width: 100 })
  expect(dots.map(({ x }) => x)).toEqual([100, 200])
  expect(rects.at(-1)).toMatchObject({ x: 50, y: FLAGS_PX, fill: palette.ink })
})
