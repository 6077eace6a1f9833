import { padSettings, shapeOf } from '@heliaster/core/kit'
import type { Kit, Pad, Ray, Shape, Turn } from '@heliaster/core/kit'
import { wanderOf } from '@heliaster/core/shaping'

import { MODES, PICKS } from '../../../kit-view/play-choices'

/** What a ray has no setting of its own for: it is not odd twice where its pad is. */
const AS_PAD = 'as its pad'
const db = (value: number) => `${value.toFixed(1)} dB`
const tuned = (cents: number) => `${(cents / 100).toFixed(2)} st`
const placed = (pan: number) => (Math.abs(pan) < 0.005 ? 'middle' : `${pan < 0 ? 'L' : 'R'} ${Math.round(Math.abs(pan) * 100)}`)

/** How a sound is shaped, in words that are alike where it sounds alike. */
function shapeInWords({ values, choices, envelopes }: Shape): Record<string, string> {
  const filter = (name: 'filter1' | 'filter2') => (choices[`${name}Kind`] === 'off' ? 'off' : `${choices[`${name}Kind`]} at ${Math.round(values[`${name}CutoffHz`])} Hz`)
  const last = envelopes.level.points[envelopes.level.points.length - 1]
  return {
    Starts: `${(values.startSeconds * 1000).toFixed(1)} ms in`,
    Decay: last ? `${(last.seconds * values.decayScale * 1000).toFixed(0)} ms` : 'as recorded',
    'Pitch envelope': envelopes.pitch.points.length > 0 ? 'yes' : 'no',
    Filter: filter('filter1'),
    'Second filter': filter('filter2'),
    Drive: values.driveDb === 0 && values.driveAfterDb === 0 ? 'none' : `${values.driveDb.toFixed(1)} and ${values.driveAfterDb.toFixed(1)} dB`,
  }
} // prettier-ignore

const hasOwn = ({ values, choices, envelopes }: Turn) => [values, choices, envelopes].some((own) => own && Object.keys(own).length > 0)

/**
 * All settings of a pad in words, those of its rays by their names, and how many of its turns have any of their own: what a pad
 * is compared with others by.
 */
export function settingsInWords(kit: Kit, pad: Pad): Record<string, string> {
  const settings = padSettings(kit, pad)
  const { values, mode, pick, counter, startAgain, maxStrikes, mute, bus, rootNote, responses } = settings
  const shape = shapeInWords(settings)
  const ofRay = (ray: Ray) => {
    const own = Object.entries(shapeInWords(shapeOf(settings, ray))).map(([setting, word]) => [setting, word === shape[setting] ? AS_PAD : word])
    const words = { Level: db(ray.values?.gainDb ?? 0), Pan: placed(ray.values?.pan ?? 0), Heard: ray.mute ? 'muted' : 'yes', ...Object.fromEntries(own) }
    return Object.entries(words).map(([setting, word]) => [`Ray ${ray.name}, ${setting.toLowerCase()}`, word])
  }
  const ofRays = Object.fromEntries(pad.rays.length < 2 ? [] : pad.rays.flatMap(ofRay)) as Record<string, string>
  return {
    Level: db(values.gainDb),
    Pan: placed(values.pan),
    Tune: tuned(values.tuneCents),
    'When struck': MODES.find(({ value }) => value === mode)?.text ?? mode,
    'Next turn': PICKS.find(({ value }) => value === pick)?.text ?? pick,
    'Turns are counted': counter === 'band' ? 'in each band' : 'over the pad',
    'Turns start again': typeof startAgain === 'number' ? `after ${startAgain} s` : startAgain === 'groove' ? 'with the groove' : 'never',
    'Strikes at once': String(maxStrikes),
    Heard: mute ? 'muted' : 'yes',
    'Goes to': kit.buses.find(({ id }) => id === bus)?.name ?? 'the mix',
    'Pitch follows the note': rootNote === undefined ? 'no' : 'yes',
    ...shape,
    Responses: String(responses.length),
    Wander: `${Math.round(wanderOf(responses) * 100)} %`,
    'Turns with settings of their own': String(pad.bands.flatMap(({ turns }) => turns).filter(hasOwn).length),
    ...ofRays,
  }
} // prettier-ignore
