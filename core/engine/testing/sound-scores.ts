import { responseTo } from '../../kit/responses'
import { envelope, every, point, Rig } from './score-rig'
import type { GoldenScore } from './score-rig'

/** Scores of what a voice does: what is read, shaped, filtered and driven. */

export function plain(): GoldenScore {
  const rig = new Rig('plain')
  const clip = rig.clip(9000)
  rig.pad({}, [[[clip]]])
  rig.pad({}, [[[{ ...clip, startFrame: 500, endFrame: 6000, fadeInSeconds: 0.01, fadeOutSeconds: 0.03, gainDb: -4 }]]])
  rig.pad({}, [[[{ ...clip, reverse: true, invert: true }]]])
  rig.pad({}, [[[{ ...clip, repairs: { lowCutHz: 300, shelfDb: -9, shelfHz: 4000, removeDc: true } }]]])
  return rig.score(every(8, 5003, (i) => ({ pad: i % 4 })), 1) // prettier-ignore
}

export function pitched(): GoldenScore {
  const rig = new Rig('pitched')
  const clips = [rig.clip(9000), rig.clip(8000, 1, 44100), rig.clip(16000, 1, 96000)]
  clips.forEach((clip, i) =>
    rig.pad(
      { rootNote: 60, values: { tuneCents: [0, -731, 1200][i] } },
      [[[clip]]],
      [rig.ray({ values: { keyTrack: 1, tuneCents: 13 * i } })],
    ),
  )
  return rig.score(every(18, 4001, (i) => ({ pad: i % 3, note: 36 + 3 * i })), 2) // prettier-ignore
}

export function envelopes(): GoldenScore {
  const rig = new Rig('envelopes')
  const clip = rig.clip(24000)
  rig.pad({ envelopes: { level: envelope([point(0, 0), point(0.004, 1, 0.5), point(0.1, 0.4, -0.7), point(0.2, 0)]) } }, [[[clip]]])
  const waiting = envelope([point(0, 1), point(0.05, 0.6, 0.2), point(0.09, 0, -1)], 1)
  rig.pad({ mode: 'hold', envelopes: { level: waiting }, values: { decayScale: 1.5 } }, [[[clip]]])
  const falling = envelope([point(0, 3600), point(0.03, 0, -0.8), point(0.2, -900, 1)])
  rig.pad({ envelopes: { pitch: falling }, values: { startSeconds: 0.003 } }, [[[clip]]])
  const long = responseTo('velocity', 'decayScale', 1.5, { bend: 0.2 })
  const late = responseTo('velocity', 'startSeconds', -0.01)
  rig.pad({ envelopes: { level: envelope([point(0, 1), point(0.3, 0, -0.4)]) }, responses: [long, late] }, [[[clip]]])
  return rig.score(every(16, 5501, (i) => ({ pad: i % 4, velocity: 127 - 6 * i, held: 2000 + 311 * i })), 2.2) // prettier-ignore
}

export function filters(): GoldenScore {
  const rig = new Rig('filters')
  const moving = envelope([point(0, 1), point(0.06, 0, -0.5), point(0.2, 0.3)])
  const still = envelope([])
  const kinds = [
    ['lowPass', 800, 0, still, 0],
    ['lowPass', 300, 0.9, moving, 4800],
    ['bandPass', 1800, 0.5, moving, -1200],
    ['highPass', 4000, 0.3, still, 0],
    ['lowPass', 24000, 1, still, 0],
  ] as const
  const filter = (filter1Kind: (typeof kinds)[number][0], filter1CutoffHz: number, filter1Damping: number, filter1EnvelopeCents = 0) => ({
    choices: { filter1Kind },
    values: { filter1CutoffHz, filter1Damping, filter1EnvelopeCents },
  })
  for (const [kind, cutoffHz, resonance, filter1, envelopeCents] of kinds) {
    const own = { ...filter(kind, cutoffHz, 2 - 1.95 * resonance, envelopeCents), envelopes: { filter1 } }
    rig.pad(own, [[[rig.clip(9000, 1 + (cutoffHz % 3 === 0 ? 1 : 0))]]])
  }
  const opening = responseTo('velocity', 'filter1CutoffHz', 3600, { bend: -0.3 })
  rig.pad({ ...filter('lowPass', 6000, 2 - 1.95 * 0.4), responses: [opening] }, [[[rig.clip(9000)]]])
  return rig.score(every(18, 4801, (i) => ({ pad: i % 6, velocity: 20 + 6 * i })), 2) // prettier-ignore
}

export function filterKinds(): GoldenScore {
  const rig = new Rig('filter kinds')
  const moving = envelope([point(0, 1), point(0.002, 0.2, 0.4), point(0.15, 0, -0.6)])
  const kinds = ['lowPass', 'bandPass', 'highPass', 'notch', 'lowShelf', 'highShelf', 'peak'] as const
  kinds.forEach((filter1Kind, i) => {
    const choices = {
      filter1Kind,
      filter1Slope: i % 2 ? '12' : '24',
      filter2Kind: kinds[(i + 3) % 7],
      filter2Slope: i % 3 ? '24' : '12',
    } as const
    const first = {
      filter1CutoffHz: 300 * (1 + i * i),
      filter1Damping: 0.3 + 0.2 * i,
      filter1GainDb: 18 - 6 * i,
      filter1EnvelopeCents: 600 * i,
    }
    const second = {
      filter2CutoffHz: 9000 / (1 + i),
      filter2Damping: 1.9 - 0.2 * i,
      filter2GainDb: 5 * i - 15,
      filter2EnvelopeCents: 900 * (i % 3),
    }
    const order = i % 2 ? ({ order: ['filter2', 'filter1', 'transient', 'drive', 'crush'] } as const) : {}
    rig.pad(
      { choices, values: { ...first, ...second, gainDb: -12 }, envelopes: { filter1: moving, filter2: moving }, ...(order as object) },
      [[[rig.clip(7000, 1 + (i % 2))]]],
    )
  })
  return rig.score(every(21, 3001, (i) => ({ pad: i % 7, velocity: 30 + 4 * i })), 2) // prettier-ignore
}

export function stageScore(): GoldenScore {
  const rig = new Rig('stages')
  const round = (kind: 'forward' | 'backAndForth', until: 'end' | 'letGo') => ({
    ...rig.clip(9000, kind === 'forward' ? 1 : 2),
    loop: { startFrame: 2500, endFrame: 6100, kind, until, crossfadeSeconds: 0.01 },
  })
  const waiting = { points: [point(0, 0), point(0.013, 1, 0.3), point(0.07, 0.4, -0.4), point(0.2, 0, 0.2)], loop: { from: 1, to: 2 } }
  const siren = { points: [point(0, 0), point(0.05, 700, 0.2), point(0.1, -300), point(0.3, -1200)], sustain: 2 }
  const dirt = { crush: 0.8, crushBits: 7.5, crushRateHz: 9000 }
  rig.pad({ values: { ...dirt, width: 0.4, lowCutHz: 120 }, choices: { crushFilter: 'on' } }, [[[rig.clip(8000, 2)]]])
  rig.pad({ values: { ...dirt, attackDb: 9, tailDb: -12, tuneCents: -250 } }, [[[rig.clip(8000)]]])
  rig.pad({ values: { startSeconds: 0.01, endSeconds: 0.04, fadeInSeconds: 0.005, fadeOutSeconds: 0.05, tuneCents: 430 } }, [
    [[rig.clip(9000)]],
  ])
  rig.pad({ mode: 'hold', envelopes: { level: waiting, pitch: siren } }, [[[round('forward', 'letGo')]]])
  rig.pad({ mode: 'hold', values: { glideSeconds: 0.08, levelEnvelope: 0.7 }, rootNote: 60, envelopes: { level: waiting } }, [
    [[round('backAndForth', 'letGo')]],
  ])
  rig.pad({ envelopes: { level: { points: [point(0, 1), point(0.4, 0)] } } }, [[[round('backAndForth', 'end')]]])
  return rig.score(every(24, 2711, (i) => ({ pad: i % 6, velocity: 40 + 3 * i, note: 57 + (i % 7), held: 900 + 700 * (i % 9) })), 2) // prettier-ignore
}

export function driveScore(): GoldenScore {
  const rig = new Rig('drive')
  const falls = { pitch: { points: [point(0, 900), point(0.06, 0, -0.4)] } }
  for (const [i, driveKind] of (['soft', 'hard', 'folded', 'uneven'] as const).entries())
    rig.pad(
      {
        values: { driveDb: 8 + 6 * i, driveLevelDb: -9, ...(i % 2 === 1 ? { driveAfterDb: 9, filter1CutoffHz: 900 } : {}) },
        choices: { driveKind, filter1Kind: i % 2 === 1 ? 'bandPass' : 'off' },
        responses: i === 2 ? [responseTo('wheel', 'driveDb', 20), responseTo('bend', 'tuneCents', 200)] : [],
        envelopes: i === 0 ? {} : falls,
      },
      [[[rig.clip(6000, i === 3 ? 2 : 1)]]],
    )
  return rig.score(every(20, 3011, (i) => ({ pad: i % 4, velocity: 30 + 4 * i })), 2) // prettier-ignore
}
