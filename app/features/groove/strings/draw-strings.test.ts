/** @jest-environment node */
import { createGroove } from '@heliaster/core/groove'
import type { Bead, BeadId, Groove, GrooveString, PadId } from '@heliaster/core/kit'

import { makeId } from '../../../documents/make-id'
import type { Palette } from '../../../ui/theme/theme'
import { drawBead } from './draw-beads'
import type { BeadLook } from './draw-beads'
import { beatName, drawStrings } from './draw-strings'
import type { StringsLook } from './draw-strings'
import { END_PX, layStrings, lineY, ROW_PX, rowTop, RULER_PX } from './strings-layout'

/** Each colour is its own name. */
const palette = new Proxy({}, { get: (_, name) => String(name) }) as Palette

interface Arc {
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly from: number
  readonly to: number
  readonly fill?: string
  readonly stroke?: string
  readonly alpha: number
}
interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly color: string
}

/** A canvas that writes down arcs with how they were filled, boxes, lines and words. */
function paper() {
  const arcs: Arc[] = []
  const [fills, strokes] = [[] as Box[], [] as Box[]]
  const lines: { points: number[][]; stroke: string }[] = []
  const words: { text: string; x: number }[] = []
  let path: { arcs: Omit<Arc, 'alpha'>[]; points: number[][] } = { arcs: [], points: [] }
  let moved = [0, 0]
  const on = {
    fillStyle: '', strokeStyle: '', lineWidth: 1, globalAlpha: 1, font: '', textBaseline: '',
    beginPath: () => void (path = { arcs: [], points: [] }),
    closePath: () => undefined,
    clearRect: () => undefined,
    save: () => undefined,
    restore: () => void (moved = [0, 0]),
    translate: (x: number, y: number) => void (moved = [x, y]),
    setLineDash: () => undefined,
    moveTo: (x: number, y: number) => path.points.push([x, y]),
    lineTo: (x: number, y: number) => path.points.push([x, y]),
    arc: (x: number, y: number, radius: number, from: number, to: number) => path.arcs.push({ x, y, radius, from, to }),
    fill: () => arcs.push(...path.arcs.map((arc) => ({ ...arc, fill: on.fillStyle, alpha: on.globalAlpha }))),
    stroke: () => {
      arcs.push(...path.arcs.map((arc) => ({ ...arc, stroke: on.strokeStyle, alpha: on.globalAlpha })))
      if (path.points.length > 0) lines.push({ points: path.points, stroke: on.strokeStyle })
    },
    fillRect: (x: number, y: number, width: number, height: number) => fills.push({ x: x + moved[0]!, y: y + moved[1]!, width, height, color: on.fillStyle }),
    strokeRect: (x: number, y: number, width: number, height: number) => strokes.push({ x, y, width, height, color: on.strokeStyle }),
    fillText: (text: string, x: number) => words.push({ text, x }),
  } // prettier-ignore
  return { on: on as unknown as CanvasRenderingContext2D, arcs, fills, strokes, lines, words }
}

const plain: Bead = { id: 'bead-1' as BeadId, step: 0, velocity: 127 } as Bead
const look: BeadLook = { x: 100, y: 40, lineY: 70, stepX: 100, stepPx: 20, isChosen: false }
function bead(given: Partial<Bead> = {}, more: Partial<BeadLook> = {}) {
  const drawn = paper()
  drawBead(drawn.on, palette, { ...plain, ...given }, { ...look, ...more })
  return drawn
}

describe('a bead', () => {
  test('is as large as it is hard, and full in its colour where it always sounds', () => {
    const [soft, hard] = [bead({ velocity: 1 }), bead()]
    expect(hard.arcs).toHaveLength(1)
    expect(hard.arcs[0]).toMatchObject({ x: 100, y: 40, radius: 8.5, fill: 'kelp' })
    expect(soft.arcs[0]!.radius).toBeCloseTo(4.5 + 4 / 127, 6)
    expect(bead({}, { isSounding: true }).arcs[0]!.fill).toBe('coral')
  })

  test('fills with its chance from the foot up: half a chance is half of it, and a rim says that it is not sure', () => {
    const [ground, rim, share] = bead({ chance: 0.5 }).arcs
    expect([ground!.fill, rim!.stroke, share!.fill]).toEqual(['paper', 'kelp', 'kelp'])
    expect([share!.from, share!.to].map((angle) => angle / Math.PI)).toEqual([0, 1].map((angle) => expect.closeTo(angle, 6) as number))
    const least = bead({ chance: 0.05 }).arcs[2]!
    expect(least.to - least.from).toBeLessThan(1.2)
    expect((least.from + least.to) / 2).toBeCloseTo(Math.PI / 2, 6)
  })

  test('shows only what it carries: a foot, a notch, laps, a hook, repeats, a thread', () => {
    expect([bead().fills, bead().lines.length]).toEqual([[], 1]) // its stem alone
    for (const own of [{ band: 'band-1' }, { turn: 'turn-2' }, { clip: {} }] as Partial<Bead>[]) expect(bead(own).fills).toMatchObject([{ x: 95, width: 10, color: 'ink' }])
    expect(bead({ locks: [] }).lines).toHaveLength(1)
    const laps = bead({ when: { laps: { of: 4, in: [1, 3] } } as Bead['when'] }).arcs.slice(1)
    expect(laps.map(({ fill }) => fill)).toEqual(['ink', 'line', 'ink', 'line'])
    expect(laps.reduce((sum, { x }) => sum + x, 0) / 4).toBeCloseTo(100, 6)
    expect(bead({ when: { laps: { of: 30, in: [1] } } as Bead['when'] }).arcs.slice(1)).toHaveLength(8)
    const hooked = (when: object) => bead({ when: when as Bead['when'] })
    expect([hooked({ after: 'b' }).arcs.length, hooked({ after: 'b' }).lines.length]).toEqual([2, 1])
    expect(hooked({ unless: 'b' }).lines).toHaveLength(2)
    expect(bead({ offset: 0.2 }, { stepX: 80 }).lines[1]!.points).toEqual([[100, 70], [80, 70]])
  })

  test('has its repeats behind it, evenly or drawn together, growing or dying away, and never past its length', () => {
    const places = (repeats: object) => bead({ repeats } as Partial<Bead>).arcs.slice(0, -1)
    expect(places({ count: 1 })).toEqual([])
    const even = places({ count: 4, steps: 2 })
    expect(even.map(({ x }) => x)).toEqual([110, 120, 130])
    expect(new Set(even.map(({ radius }) => radius)).size).toBe(1)
    const rising = places({ count: 4, steps: 2, rise: 0.6 }).map(({ radius }) => radius)
    expect(rising).toEqual([...rising].sort((a, b) => a - b))
    expect(places({ count: 4, steps: 2, rise: -1 }).at(-1)!.radius).toBeCloseTo(1.2 + 1.6 * 0.15, 6)
    expect(places({ count: 4, steps: 2, rise: 9 }).at(-1)!.radius).toBeCloseTo(1.2 + 1.6 * 1.6, 6)
    const [drawn, spread] = [places({ count: 4, steps: 2, draw: 0.5 }), places({ count: 4, steps: 2, draw: -0.5 })]
    drawn.forEach(({ x }, i) => expect(x).toBeGreaterThan(even[i]!.x))
    spread.forEach(({ x }, i) => expect(x).toBeLessThan(even[i]!.x))
    for (const { x } of [...drawn, ...spread]) expect(x > 100 && x < 140).toBe(true)
  })

  test('that is chosen has a ring, one that leaves is faint and crossed, one that comes again is pale and alone', () => {
    expect(bead({}, { isChosen: true }).arcs.at(-1)).toMatchObject({ radius: 11.5, stroke: 'ink' })
    const leaving = bead({}, { isLeaving: true })
    expect([leaving.arcs[0]!.alpha, leaving.lines.at(-1)!.stroke]).toEqual([0.4, 'coral'])
    const echo = bead({ chance: 0.5, band: 'band-1', repeats: { count: 4 } } as Partial<Bead>, { isEcho: true })
    expect(echo.arcs.map(({ fill, stroke, alpha, radius }) => [fill ?? stroke, alpha, radius])).toEqual([['paper', 0.5, 7.5], ['muted', 0.5, 7.5]])
    expect(echo.fills).toEqual([])
  })
}) // prettier-ignore

describe('the strings', () => {
  const pads = ['a', 'b', 'c'] as PadId[]
  const string = (padId: PadId, beads: Partial<Bead>[], more: Partial<GrooveString> = {}): GrooveString =>
    ({ padId, beads: beads.map((one, i) => ({ ...plain, id: `${padId}${i}` as BeadId, ...one })), ...more }) as GrooveString
  const grooveOf = (...strings: GrooveString[]): Groove => ({ ...createGroove(makeId, 'Ebb'), strings })
  function strings(groove: Groove, { pxPerBeat = 80, left = 0, top = 0, width = 2000, height = 400, ...more }: Partial<StringsLook> & { pxPerBeat?: number; left?: number; top?: number; width?: number; height?: number } = {}) {
    const drawn = paper()
    drawStrings(drawn.on, palette, layStrings(groove, pads, pxPerBeat), { left, top, width, height }, { chosen: new Set(), ...more })
    return { ...drawn, beads: drawn.arcs.filter(({ fill }) => fill === 'kelp') }
  }

  test('have a line each, beats stand out among their steps, and every second beat has a ground of its own', () => {
    const { fills } = strings(grooveOf())
    expect(fills.filter(({ height, width }) => height === 1 && width > 100).map(({ y }) => y)).toEqual([0, 1, 2].map(lineY))
    expect(fills.filter(({ width, height }) => width === 1 && height === 11)).toHaveLength(3 * 4)
    expect(fills.filter(({ width, height }) => width === 1 && height === 6)).toHaveLength(3 * 12)
    expect(fills.filter(({ color, width }) => color === 'surface' && width === 80).map(({ x }) => x)).toEqual([0, 2].map((beat) => END_PX + beat * 80 - 10))
  })

  test('are drawn where they are in sight alone: rows, beads and steps', () => {
    const groove = grooveOf(string(pads[0]!, [{ step: 0 }, { step: 8 }, { step: 15 }]), string(pads[2]!, [{ step: 0 }]))
    expect(strings(groove).beads).toHaveLength(4)
    expect(strings(groove, { left: 130, width: 100 }).beads.map(({ x }) => x)).toEqual([END_PX + 160])
    expect(strings(groove, { top: rowTop(1) + 2, height: ROW_PX / 2 }).beads).toHaveLength(0)
    expect(strings(groove, { top: 0, height: rowTop(1) }).beads).toHaveLength(3)
    expect(strings(grooveOf(), { pxPerBeat: 12 }).fills.filter(({ width, height }) => width === 1 && (height === 6 || height === 11))).toEqual([])
  })

  test('say which beads are chosen and which leave; a bead behind the end of its string is not there', () => {
    const groove = grooveOf(string(pads[0]!, [{ step: 0 }, { step: 3 }, { step: 9 }], { lengthSteps: 8 }))
    const { beads, arcs, lines } = strings(groove, { chosen: new Set(['a0' as BeadId]), leaving: new Set(['a1' as BeadId]) })
    expect(beads).toHaveLength(2)
    expect(arcs.filter(({ stroke }) => stroke === 'ink').map(({ x }) => x)).toEqual([END_PX])
    expect(lines.filter(({ stroke }) => stroke === 'coral')).toHaveLength(1)
  })

  test('shorter ones come again, pale, until the groove ends, and are closed where they go round', () => {
    const groove = grooveOf(string(pads[0]!, [{ step: 1 }], { lengthSteps: 6 }))
    const { arcs, fills } = strings(groove)
    expect(arcs.filter(({ fill }) => fill === 'paper').map(({ x }) => (x - END_PX) / 20)).toEqual([7, 13])
    expect(fills.filter(({ width, height }) => width === 2 && height === 12)).toMatchObject([{ color: 'muted' }])
    expect(strings(grooveOf(string(pads[0]!, [{ step: 1 }]))).fills.filter(({ width, height }) => width === 2 && height === 12)).toEqual([])
  })

  test('show where keys are, and the box that is dragged', () => {
    const { strokes } = strings(grooveOf(), { cursor: { padId: pads[1]!, row: 1, step: 4 }, box: { left: 5, top: 6, width: 70, height: 80 } })
    expect(strokes).toEqual([{ x: END_PX + 80 - 9, y: rowTop(1) + 1, width: 18, height: ROW_PX - 2, color: 'waterInk' }, { x: 5, y: 6, width: 70, height: 80, color: 'kelp' }])
    expect(strings(grooveOf()).strokes).toEqual([])
  })

  test('have beats over them that stay while they are scrolled, as many as there is room for', () => {
    const long = { ...grooveOf(), lengthSteps: 64 }
    expect(strings(long).words.map(({ text }) => text).slice(0, 6)).toEqual(['1.1', '1.2', '1.3', '1.4', '2.1', '2.2'])
    expect(strings(long, { pxPerBeat: 20 }).words.map(({ text }) => text).slice(0, 3)).toEqual(['1.1', '1.3', '2.1'])
    expect(strings(long, { pxPerBeat: 10 }).words.map(({ text }) => text)).toEqual(['1.1', '2.1', '3.1', '4.1'])
    const scrolled = strings(long, { left: 200, width: 200 }).words
    expect(scrolled.map(({ text, x }) => [text, x])).toEqual([['1.3', END_PX - 43], ['1.4', END_PX + 37], ['2.1', END_PX + 117]])
    expect(strings(long, { top: 100 }).fills.at(-1)).toMatchObject({ y: 0, height: RULER_PX })
    expect(beatName(grooveOf(), 2)).toBe('3')
  })
}) // prettier-ignore
