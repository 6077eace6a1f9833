import { aKit, seeded } from '../../kit/builders'
import type { Clip, Slice } from '../../kit/clip'
import type { BusId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { applyEdit } from '../../kit/kit-edit'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000
const FRAMES = 6000
const LEAD = 0.003 * RATE
const EXTRA = 'extra' as BusId

type Change = Partial<Clip> & { readonly own?: Kit['pads'][number]['own'] }

/** A kit of one pad whose only clip is changed, with a return that nothing goes to by itself. */
function rigOf(samples: Float32Array, { own = {}, ...change }: Change) {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels: [samples] }]] }])
  const [pad] = rig.kit.pads
  const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), ...change }])) })) })) // prettier-ignore
  const bus = {
    id: EXTRA,
    name: 'Extra',
    values: {},
    mute: false,
    isReturn: true,
    inserts: [],
    sends: [],
  } as unknown as Kit['buses'][number]
  const kit: Kit = { ...rig.kit, values: { gainDb: -40 }, buses: [bus], pads: [{ ...pad, bands }] }
  return { kit, audio: rig.audio }
}

function rendered({ kit, audio }: ReturnType<typeof rigOf>, block = 128, isPlain = false): Float64Array[] {
  const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash), 1, undefined, isPlain)
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(kit.pads[0].id), velocity: 127, key: 1 }
  return renderOffline(engine, toScore([strike]), FRAMES, block).map((side) => Float64Array.from(side))
}

interface Way {
  readonly gainDb: number
  readonly pan: number
  readonly send: number
}
const NOTHING: Way = { gainDb: 0, pan: 0, send: 0 }

/** What a slice sets, as a person reads it in docs/kit-format.md; what does not send anywhere of itself, sends what slices say. */
function wayOf(slice: Slice | undefined): Way {
  if (!slice) return NOTHING
  const send = slice.sends?.[EXTRA]
  return { gainDb: slice.values.gainDb ?? 0, pan: slice.values.pan ?? 0, send: send && send.gainDb > -120 ? 10 ** (send.gainDb / 20) : 0 }
}

/** The way at a place of what a clip plays, whose pieces begin at `starts`; it goes over to the next in the last ms before. */
function wayAt(place: number, starts: readonly number[], ways: readonly Way[], lead: number, seam?: { at: number; next: Way }): Way {
  const at = starts.findLastIndex((start) => start <= place)
  const own = at < 0 ? NOTHING : ways[at]
  const isSeam = seam !== undefined && seam.at <= (starts[at + 1] ?? Infinity)
  const border = isSeam ? seam.at : (starts[at + 1] ?? Infinity)
  const next = isSeam ? seam.next : (ways[at + 1] ?? own)
  const from = border - Math.min(lead, border - (at < 0 ? -Infinity : starts[at]))
  const share = place > from ? (place - from) / (border - from) : 0
  const mix = (name: keyof Way) => own[name] + (next[name] - own[name]) * share
  return { gainDb: mix('gainDb'), pan: mix('pan'), send: mix('send') }
}

const noise = (frames: number, random: () => number) => Float32Array.from({ length: frames }, () => random() - 0.5)

function anySlices(random: () => number, startFrame: number, endFrame: number): Slice[] {
  const count = 1 + Math.floor(6 * random())
  return Array.from({ length: count }, (_, i) => ({
    id: `s${i}`,
    frame: Math.floor(startFrame + random() * (endFrame - startFrame)),
    values: { ...(random() < 0.6 ? { gainDb: -30 + 36 * random() } : {}), ...(random() < 0.5 ? { pan: 1.6 * random() - 0.8 } : {}) },
    ...(random() < 0.6 ? { sends: { [EXTRA]: { gainDb: random() < 0.2 ? -120 : -24 + 24 * random() } } } : {}),
  }))
}

test('slices sound as a plain model says, at any rate, forward and back, in loops and with drive read ahead', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const random = seeded(seed * 7919)
    for (let i = 0; i < 5; i++) random()
    const samples = noise(5200, random)
    const tuneCents = [0, 0, 700 * random(), -900 * random()][Math.floor(4 * random())]
    const kind = (['none', 'forward', 'backAndForth', 'whole'] as const)[Math.floor(4 * random())]
    const reverse = random() < 0.3
    const [startFrame, endFrame] = [Math.floor(300 * random()), 3000 + Math.floor(2000 * random())]
    const loop = { startFrame: startFrame + 500, endFrame: startFrame + 500 + 2 * Math.floor(600 + 300 * random()), until: 'end', crossfadeSeconds: 0 } // prettier-ignore
    const isDriven = kind === 'none' && random() < 0.3
    const own = {
      values: { tuneCents, ...(isDriven ? { driveDb: 3 } : {}) },
      ...(kind === 'whole' ? { mode: 'loopUntilStruckAgain' as const } : {}),
    }
    const change: Change = { own, startFrame, endFrame, reverse, ...(kind === 'forward' || kind === 'backAndForth' ? { loop: { ...loop, kind } as Clip['loop'] } : {}) } // prettier-ignore
    const slices = anySlices(random, startFrame, endFrame)
    const bare = rendered(rigOf(samples, change))
    const heard = rendered(rigOf(samples, { ...change, slices }), 64)

    const sorted = [...slices].sort((a, b) => a.frame - b.frame)
    const played = reverse
      ? [...[...sorted.keys()].reverse().map((i) => ({ start: endFrame - (sorted[i + 1]?.frame ?? endFrame), slice: sorted[i] })), { start: endFrame - sorted[0].frame, slice: undefined }] // prettier-ignore
      : sorted.map((slice) => ({ start: slice.frame - startFrame, slice }))
    const starts = played.map(({ start }) => start)
    const ways = played.map(({ slice }) => wayOf(slice))
    const rate = 2 ** (tuneCents / 1200)
    const [from, to] = reverse ? [endFrame - loop.endFrame, endFrame - loop.startFrame] : [loop.startFrame - startFrame, loop.endFrame - startFrame] // prettier-ignore
    const length = endFrame - startFrame
    let [apart, power] = [0, 0]
    for (let frame = 0; frame < FRAMES; frame++) {
      let place = frame * rate
      if (kind === 'whole') place %= length
      if (kind === 'forward' && place >= from) place = from + ((place - from) % (to - from))
      if (kind === 'backAndForth' && place >= from) {
        const into = (place - from) % (2 * (to - from))
        place = into < to - from ? from + into : from + Math.max(0, 2 * (to - from) - 1 - into)
      }
      const seam =
        kind === 'forward'
          ? { at: to, next: wayAt(from, starts, ways, 0) }
          : kind === 'whole'
            ? { at: length, next: wayAt(0, starts, ways, 0) }
            : undefined
      const { gainDb, pan, send } = wayAt(place, starts, ways, LEAD * rate, seam)
      const level = 10 ** (gainDb / 20) * (1 + send)
      for (const [side, sign] of [-1, 1].entries()) {
        const expected = bare[side][frame] * level * Math.sqrt(1 + sign * pan)
        apart += (heard[side][frame] - expected) ** 2
        power += expected ** 2
      }
    }
    const error = 10 * Math.log10(apart / power)
    if (!(error < -100)) throw new Error(`kit ${seed} (${kind}, ${reverse ? 'reversed, ' : ''}${tuneCents}) is ${error.toFixed(1)} dB off`)
  }
})

test('a slice is tuned from its frame on: what is read is a sum of the rates of what was read', () => {
  // A clip that says where it is read: its samples rise by one part in a hundred thousand.
  const samples = Float32Array.from({ length: 9000 }, (_, i) => i / 100_000)
  const slices: Slice[] = [
    { id: 'a', frame: 1000, values: { tuneCents: 500 } },
    { id: 'b', frame: 2200, values: { tuneCents: -800 } },
    { id: 'c', frame: 2900, values: {} },
  ]
  const [left] = rendered(rigOf(samples, { slices }))
  let place = 0
  for (let frame = 0; frame < FRAMES && place < 8900; frame++) {
    const heard = (left[frame] / 10 ** (-40 / 20)) * 100_000
    if (place > 60) expect(Math.abs(heard - place)).toBeLessThan(0.6)
    const slice = slices.findLast((one) => one.frame <= place)
    place += 2 ** ((slice?.values.tuneCents ?? 0) / 1200)
  }
})

test('slices give the same bits in blocks of any length, by the kernel and without it', () => {
  const random = seeded(77)
  const samples = noise(5000, random)
  const slices: Slice[] = anySlices(random, 0, 5000).map((slice, i) => ({
    ...slice,
    values: { ...slice.values, tuneCents: 200 * i - 300 },
  }))
  const rig = rigOf(samples, { slices, own: { values: { driveDb: 4 } } })
  const bits = rendered(rig, 128)
  for (const [block, isPlain] of [
    [1, false],
    [4096, false],
    [128, true],
    [37, true],
  ] as const)
    // prettier-ignore
    expect(rendered(rig, block, isPlain)).toEqual(bits)
})

test('what is drawn while a strike sounds is heard in it: a slice is silenced, sends of slices follow, all is taken back', () => {
  const samples = Float32Array.from({ length: 24000 }, () => 0.5)
  const rig = rigOf(samples, { slices: [{ id: 'a', frame: 0, values: {}, sends: { [EXTRA]: { gainDb: 0 } } }] })
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash), 1)
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity: 127, key: 1 }
  const level = (score: Float64Array = new Float64Array(0)) => renderOffline(engine, score, 5000)[0].at(-1)! / 10 ** (-40 / 20)
  const withSlices = (slices: Slice[]): Kit => {
    const [pad] = rig.kit.pads
    return { ...rig.kit, pads: [{ ...pad, bands: pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), slices }])) })) })) }] } // prettier-ignore
  }
  expect(level(toScore([strike]))).toBeCloseTo(1, 3)
  loader.load(withSlices([{ id: 'a', frame: 0, values: { gainDb: -20 }, sends: { [EXTRA]: { gainDb: -120 } } }]))
  expect(level()).toBeCloseTo(0.05, 3)
  loader.load(withSlices([]))
  expect(level()).toBeCloseTo(0.5, 3)
  loader.load(rig.kit)
  expect(level()).toBeCloseTo(1, 3)
})

test('slices whose kit no longer has the bus they send to are played without', () => {
  const { kit, audio } = rigOf(
    Float32Array.from({ length: 8000 }, () => 0.5),
    { slices: [{ id: 'a', frame: 0, values: { gainDb: -6 }, sends: { [EXTRA]: { gainDb: 0 } } }] },
  )
  const gone = applyEdit(kit, { type: 'removeBus', busId: EXTRA })
  const [left] = rendered({ kit: gone, audio })
  expect(left[3000] / 10 ** (-40 / 20)).toBeCloseTo(0.5 * 10 ** (-6 / 20), 4)
})
