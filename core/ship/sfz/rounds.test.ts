import { readWav } from '../../audio/wav-read'
import { createOffline, EventType, renderOffline, toScore } from '../../engine'
import { aKit, aTone, seeded } from '../../kit/builders'
import type { Rig } from '../../kit/builders'
import type { Clip, Pad } from '../../kit/kit'
import { gainsOf, heldSamples, readSfz } from '../testing'
import { sfzOmissions, writeSfz } from './write-sfz'

const RATE = 48000
const FRAMES = 30_000

/** A pad's one clip, changed. */
function withClip({ kit, audio }: Rig, change: (clip: Clip) => Partial<Clip>): Rig {
  const [pad] = kit.pads
  const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), ...change(clip as Clip) }])) })) })) // prettier-ignore
  return { kit: { ...kit, pads: [{ ...pad, bands }] }, audio }
}

function written({ kit, audio }: Rig) {
  const { files } = writeSfz(kit, (hash) => audio.get(hash))
  const [region] = readSfz(new TextDecoder().decode(files[0].bytes))
  const read = readWav(files.find(({ path }) => path === `samples/${region.get('sample')}`)!.bytes)
  if (!read.ok) throw new Error(read.message)
  return { region, channels: read.file.audio.channels, loops: read.file.loops }
}

/** What a strike that is held sounds like here, left. */
function held({ kit, audio }: Rig): Float32Array {
  const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(kit.pads[0].id), velocity: 127 }
  return renderOffline(engine, toScore([strike]), FRAMES)[0]
}

const modes = ['hold', 'loopUntilLetGo'] as const

test('what goes round while it is held does so in SFZ, sample by sample, for a plain reader', () => {
  const random = seeded(31)
  const upTo = (most: number) => Math.floor(random() * most)
  let rounds = 0
  for (let run = 0; run < 60; run++) {
    const mode = modes[run % 2]
    const length = 2000 + upTo(6000)
    const rig = withClip(
      aKit([
        {
          own: { mode, values: { gainDb: -20 } },
          bands: [[{ sampleRateHz: RATE, channels: [Float32Array.from({ length }, () => random() - 0.5)] }]],
        },
      ]),
      () => {
        const startFrame = upTo(length - 200)
        const loop = { startFrame, endFrame: startFrame + 100 + upTo(length - startFrame - 100), kind: random() < 0.3 ? ('backAndForth' as const) : ('forward' as const), until: random() < 0.5 ? ('end' as const) : ('letGo' as const), crossfadeSeconds: random() < 0.5 ? 0 : random() / 40 } // prettier-ignore
        return { reverse: random() < 0.3, fadeInSeconds: random() / 50, ...(run % 5 === 0 ? {} : { loop }) }
      },
    )
    const here = held(rig)
    const { region, channels, loops } = written(rig)
    const there = heldSamples(region, channels[0], FRAMES)
    const gain = gainsOf(region, 127)[0]
    const off = here.reduce((most, sample, i) => Math.max(most, Math.abs(sample - gain * there[i])), 0)
    expect([run, off < 1e-6]).toEqual([run, true])
    expect(region.get('ampeg_release')).toBe('0.004') // what is let go fades so long here
    if (region.get('loop_mode') === 'loop_continuous') rounds++
    // Whoever looks past the end for what lies between two samples finds there how it goes round.
    if (region.has('loop_end')) {
      const [start, end] = [Number(region.get('loop_start')), Number(region.get('loop_end'))]
      expect(channels[0].slice(end + 1, end + 33)).toEqual(channels[0].slice(start, start + 32))
      expect(loops).toEqual([{ startFrame: start, endFrame: end + 1 }]) // the file says it too
    }
  }
  expect(rounds).toBeGreaterThan(40)
})

test('what nothing but another strike ends plays once through, and that is said; so is what is left out behind a loop', () => {
  const loop = { startFrame: 400, endFrame: 4000, kind: 'forward' as const, crossfadeSeconds: 0 }
  const said = (own: Pad['own'], until: 'end' | 'letGo') => {
    const rig = withClip(aKit([{ own: { name: 'Keel', ...own }, bands: [[aTone(8000)]] }]), () => ({ loop: { ...loop, until } }))
    const { region } = written(rig)
    return [region.get('loop_mode'), sfzOmissions(rig.kit).map(({ words }) => words).join(' ')] // prettier-ignore
  }
  const level = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.5, value: 0, bend: 0 }] } // prettier-ignore
  const once = expect.stringMatching(/^a clip goes round in a part of it here; in SFZ it plays once through\.$/) as string
  expect(said({ mode: 'oneShot' }, 'end')).toEqual(['one_shot', once])
  expect(said({ mode: 'loopUntilStruckAgain' }, 'end')).toEqual(['one_shot', once])
  expect(said({ mode: 'oneShot' }, 'letGo')).toEqual(['one_shot', '']) // never held: it does not go round here either
  expect(said({ mode: 'hold' }, 'end')).toEqual(['loop_continuous', ''])
  expect(said({ mode: 'hold' }, 'letGo')).toEqual(['loop_continuous', expect.stringMatching(/once a loop is let go/) as string])
  expect(said({ mode: 'hold', values: { crush: 0.5 } }, 'end')).toEqual(['no_loop', once])
  expect(said({ mode: 'oneShot', envelopes: { level } }, 'end')).toEqual(['one_shot', '']) // its envelope ends it, so it is drawn
})
