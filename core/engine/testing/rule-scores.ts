import { testIds } from '../../kit/builders'
import type { Clip, Kit } from '../../kit/kit'
import { createBand, createBus, createTurn } from '../../kit/make'
import { responseTo } from '../../kit/responses'
import { every, Rig, SCORE_RATE_HZ } from './score-rig'
import type { GoldenScore } from './score-rig'

/** Scores of what decides a strike and where it goes: bands, turns, ties, limits, modes, rays, the mix. */

export function blends(): GoldenScore {
  const rig = new Rig('blends')
  for (const blendLaw of ['power', 'linear'] as const) {
    const pad = rig.pad({}, [[[rig.clip(5000)]], [[rig.clip(5000)]], [[rig.clip(5000)]]])
    rig.changeBands(pad, (band, i) => ({ ...band, blendLaw, values: { gainDb: -2 * i }, blendVelocities: [0, 25, 40][i] }))
  }
  rig.pad({ responses: [responseTo('velocity', 'gainDb', 18, { bend: 0.4 })] }, [[[rig.clip(5000)]]])
  return rig.score(every(63, 1501, (i) => ({ pad: i % 3, velocity: 1 + 2 * i })), 2.1) // prettier-ignore
}

export function pickScore(): GoldenScore {
  const rig = new Rig('picks')
  const turns = (count: number) => Array.from({ length: count }, () => [rig.clip(900)])
  for (const pick of ['cycle', 'random', 'shuffle'] as const) {
    const pad = rig.pad({ pick }, [turns(4), turns(3)])
    rig.changeBands(pad, (band) => ({ ...band, turns: band.turns.map((turn, i) => ({ ...turn, weight: 1 / (1 + i) })) }))
  }
  rig.pad({ pick: 'cycle', counter: 'pad', startAgain: 0.1 }, [turns(3), turns(3)])
  rig.pad({ responses: [responseTo('chance', 'tuneCents', 200), responseTo('chance', 'pan', 0.5)] }, [turns(1)])
  return rig.score(every(100, 901, (i) => ({ pad: i % 5, velocity: 1 + ((i * 37) % 127) })), 2) // prettier-ignore
}

export function chokes(): GoldenScore {
  const rig = new Rig('chokes')
  const pads = Array.from({ length: 4 }, () => rig.pad({}, [[[rig.clip(20000)]]]))
  rig.pad({ mode: 'silencer' }, [])
  const ties: Kit['ties'] = [
    { kind: 'chokeGroup', id: rig.tieId(), name: 'pair', pads: [pads[0].id, pads[1].id], fadeSeconds: 0.006 },
    { kind: 'choke', id: rig.tieId(), from: pads[2].id, to: [pads[3].id, pads[0].id], fadeSeconds: 0.08 },
  ]
  const scored = rig.score(every(20, 4003, (i) => ({ pad: (i * 3) % 5 })), 2) // prettier-ignore
  const silencer = { kind: 'choke' as const, id: rig.tieId(), from: scored.kit.pads[4].id, to: [pads[1].id, pads[3].id], fadeSeconds: 0 }
  return { ...scored, kit: { ...scored.kit, ties: [...ties, silencer] } }
}

export function limits(): GoldenScore {
  const rig = new Rig('limits')
  const pads = [1, 2, 8].map((maxStrikes) => rig.pad({ maxStrikes, values: { gainDb: -12 } }, [[[rig.clip(40000)]]]))
  rig.pad({ mode: 'hold', maxStrikes: 3, values: { gainDb: -12 } }, [[[rig.clip(40000)]]])
  const group = {
    kind: 'chokeGroup' as const,
    id: rig.tieId(),
    name: 'five',
    pads: [pads[2].id],
    fadeSeconds: 0.005,
    maxStrikes: 5,
  }
  const played = every(40, 1601, (i) => ({ pad: i % 4, velocity: 127 - ((i * 29) % 90), held: 900 + 200 * (i % 7) }))
  return rig.score([...played, { pad: 2, frame: 7 }, { pad: 3, frame: 7, velocity: 30 }], 2, { maxStrikes: 9, ties: [group] })
}

export function modes(): GoldenScore {
  const rig = new Rig('modes')
  const clip = rig.clip(14000)
  const looped = {
    ...clip,
    loop: { startFrame: 3000, endFrame: 7000, kind: 'forward' as const, until: 'end' as const, crossfadeSeconds: 0 },
  }
  rig.pad({ mode: 'oneShot' }, [[[clip]]])
  rig.pad({ mode: 'hold' }, [[[clip]]])
  rig.pad({ mode: 'loopUntilLetGo', values: { tuneCents: 300 } }, [[[looped]]])
  rig.pad({ mode: 'loopUntilStruckAgain' }, [[[looped]]])
  return rig.score(every(16, 5003, (i) => ({ pad: i % 4, held: 3000 + 700 * i })), 2.5) // prettier-ignore
}

export function rays(): GoldenScore {
  const rig = new Rig('rays')
  const own = (clips: Clip[]) => [
    createBand(
      testIds(91),
      1,
      clips.map((clip, i) => createTurn(testIds(100 + i), { own: clip })),
    ),
  ]
  const near = rig.ray({ microphone: true })
  const far = rig.ray({ microphone: true, values: { delaySeconds: 0.0131, gainDb: -5 }, invert: true })
  const room = rig.ray({ microphone: true, onMissing: 'nearest', values: { delaySeconds: 0.03, pan: 0.6 } })
  const apart = rig.ray({ values: { gainDb: -9, tuneCents: 500 } })
  const ownBands = own([rig.clip(3000), rig.clip(2500)]).map((band) => ({
    ...band,
    turns: band.turns.map((turn) => ({ ...turn, clips: { [apart.id]: turn.clips.own } })),
  }))
  const bands = [2, 3].map((turns, band) =>
    Array.from({ length: turns }, (_, turn) => [
      rig.clip(5000),
      turn === 1 ? undefined : rig.clip(5000),
      band === 0 ? rig.clip(7000) : undefined,
    ]),
  )
  rig.pad({}, bands, [near, far, room, { ...apart, source: { kind: 'clips', bands: ownBands, pick: 'random' } }])
  rig.pad({ responses: [responseTo('velocity', 'gainDb', 12, { ray: room.id })] }, bands, [near, { ...far, mute: true }, room])
  return rig.score(every(20, 4003, (i) => ({ pad: i % 2, velocity: 1 + ((i * 41) % 127) })), 2) // prettier-ignore
}

export function channels(): GoldenScore {
  const rig = new Rig('channels')
  const clip = rig.clip(8000, 2)
  for (const channel of ['left', 'right', 'both', 'mid'] as const)
    rig.pad({ values: { pan: channel === 'both' ? -0.4 : 0.3 } }, [[[{ ...clip, channel }]]])
  rig.pad({ values: { pan: -0.9, tuneCents: -311 } }, [[[{ ...clip, channel: 'both' }]]])
  return rig.score(every(10, 6007, (i) => ({ pad: i % 5 })), 1.5) // prettier-ignore
}

export function mix(): GoldenScore {
  const rig = new Rig('mix')
  const [low, high] = [rig.busId(), rig.busId()]
  const loud = () => [[[rig.clip(12000, 2, SCORE_RATE_HZ, 30000)]]]
  rig.pad({ values: { gainDb: 0, pan: 0.2 }, bus: low }, loud())
  rig.pad({ values: { gainDb: 3 }, bus: high }, loud())
  rig.pad({ values: { gainDb: 6 }, bus: low }, loud(), [rig.ray({ bus: high, values: { gainDb: 3 } })])
  rig.pad({ values: { gainDb: 0 }, mute: true }, loud())
  const buses = [
    { ...createBus(low, 'Bus'), values: { gainDb: -3, pan: -0.5 } },
    { ...createBus(high, 'Bus'), values: { gainDb: 2, pan: 0.4 } },
  ]
  return rig.score(every(24, 2503, (i) => ({ pad: i % 4 })), 1.5, { buses, values: { gainDb: 4 } }) // prettier-ignore
}
