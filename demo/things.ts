/** One way a struck thing rings: its frequency, its share, and how long it takes to fall by 60 dB. */
export interface Mode {
  readonly hz: number
  readonly level: number
  readonly seconds: number
}

/** Noise a strike makes: a band of it, rising and falling. */
export interface NoiseBurst {
  readonly lowHz: number
  readonly highHz: number
  readonly level: number
  readonly attackSeconds: number
  readonly seconds: number
}

/** Something in the boatyard that can be struck. */
export interface Thing {
  readonly name: string
  readonly modes: readonly Mode[]
  readonly bursts: readonly NoiseBurst[]
  /** How long the striker touches; harder strikes touch shorter and so are brighter. */
  readonly contactSeconds: number
  /** Several small strikes in one, as links of a chain: how many, over how long. */
  readonly scatter?: { readonly count: number; readonly seconds: number }
  /** How much one strike differs from the next, 0..1. */
  readonly spread: number
}

const mode = (hz: number, level: number, seconds: number): Mode => ({ hz, level, seconds })
const burst = (lowHz: number, highHz: number, level: number, attackSeconds: number, seconds: number): NoiseBurst => ({
  lowHz,
  highHz,
  level,
  attackSeconds,
  seconds,
})

export const things = {
  hullThump: {
    name: 'Hull thump',
    modes: [
      mode(58, 1, 0.62),
      mode(97, 0.7, 0.42),
      mode(163, 0.42, 0.3),
      mode(241, 0.3, 0.2),
      mode(389, 0.18, 0.13),
      mode(612, 0.1, 0.08),
      mode(1130, 0.05, 0.05),
    ],
    bursts: [burst(60, 900, 0.5, 0.0008, 0.09), burst(900, 4000, 0.12, 0.0004, 0.03)],
    contactSeconds: 0.0035,
    spread: 0.5,
  },
  tarpSlap: {
    name: 'Tarp slap',
    modes: [mode(142, 0.5, 0.16), mode(231, 0.3, 0.1)],
    bursts: [burst(300, 2600, 1, 0.0006, 0.11), burst(1800, 9000, 0.5, 0.0003, 0.05), burst(500, 5000, 0.16, 0.02, 0.32)],
    contactSeconds: 0.0012,
    spread: 0.8,
  },
  halyardClink: {
    name: 'Halyard clink',
    modes: [
      mode(1873, 0.7, 0.55),
      mode(2961, 1, 0.8),
      mode(4417, 0.6, 0.5),
      mode(5838, 0.5, 0.42),
      mode(7724, 0.35, 0.26),
      mode(9911, 0.2, 0.16),
    ],
    bursts: [burst(2500, 12000, 0.35, 0.0002, 0.02)],
    contactSeconds: 0.0002,
    spread: 0.6,
  },
  oarLow: {
    name: 'Oar knock, low',
    modes: [mode(318, 1, 0.14), mode(731, 0.6, 0.1), mode(1290, 0.35, 0.06), mode(2063, 0.2, 0.04)],
    bursts: [burst(200, 3500, 0.35, 0.0003, 0.025)],
    contactSeconds: 0.0009,
    spread: 0.5,
  },
  oarHigh: {
    name: 'Oar knock, high',
    modes: [mode(684, 1, 0.1), mode(1442, 0.7, 0.07), mode(2518, 0.45, 0.05), mode(3907, 0.25, 0.03)],
    bursts: [burst(500, 6000, 0.35, 0.0002, 0.018)],
    contactSeconds: 0.0005,
    spread: 0.5,
  },
  winchRatchet: {
    name: 'Winch ratchet',
    modes: [mode(1240, 0.5, 0.06), mode(2310, 0.8, 0.05), mode(3622, 0.6, 0.045), mode(5170, 0.5, 0.03), mode(6904, 0.3, 0.03)],
    bursts: [burst(1200, 9000, 0.8, 0.0002, 0.02)],
    contactSeconds: 0.0002,
    scatter: { count: 2, seconds: 0.014 },
    spread: 0.4,
  },
  buoyBell: {
    name: 'Buoy bell',
    modes: [
      mode(207, 0.35, 3.6),
      mode(411, 1, 2.8),
      mode(493, 0.5, 2.2),
      mode(631, 0.55, 1.9),
      mode(838, 0.6, 1.5),
      mode(1237, 0.4, 1),
      mode(1704, 0.3, 0.7),
      mode(2380, 0.2, 0.45),
      mode(3312, 0.14, 0.3),
    ],
    bursts: [burst(800, 7000, 0.2, 0.0003, 0.02)],
    contactSeconds: 0.0006,
    spread: 0.3,
  },
  bilgeHiss: {
    name: 'Bilge hiss',
    modes: [],
    bursts: [burst(4200, 15000, 1, 0.0005, 1.1), burst(2600, 7000, 0.35, 0.001, 0.7), burst(7000, 16000, 0.9, 0.0003, 0.05)],
    contactSeconds: 0.0002,
    spread: 0.5,
  },
  hatchTick: {
    name: 'Hatch tick',
    modes: [mode(5210, 0.12, 0.03), mode(8120, 0.1, 0.02)],
    bursts: [burst(4500, 15000, 1, 0.0002, 0.055), burst(1500, 5000, 0.25, 0.0002, 0.02)],
    contactSeconds: 0.0002,
    spread: 0.5,
  },
  chainDrop: {
    name: 'Chain drop',
    modes: [mode(2143, 0.4, 0.1), mode(3391, 0.7, 0.12), mode(4870, 0.8, 0.1), mode(6617, 0.6, 0.08), mode(8822, 0.4, 0.06)],
    bursts: [burst(2000, 11000, 0.5, 0.0002, 0.025)],
    contactSeconds: 0.0002,
    scatter: { count: 26, seconds: 0.46 },
    spread: 1,
  },
} satisfies Record<string, Thing>

export type ThingName = keyof typeof things
