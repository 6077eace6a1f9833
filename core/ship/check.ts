import { MAX_BEADS } from '../engine/groove/play-state'
import type { AudioHash } from '../kit/ids'
import type { Groove, Kit, Pad } from '../kit/kit'
import { notPlayedOfKit, notPlayedOfPad } from '../kit/not-played'
import { audioInUse, clipsOfPad, missingCells, padSettings, filledPad } from '../kit/resolve'
import { circleWords, nameOf, tieConflicts } from '../ties'

/** Something a person should know before a kit leaves. `problem`: it will not sound as meant. `note`: worth knowing. */
export interface Finding {
  readonly severity: 'problem' | 'note'
  readonly where: string
  readonly message: string
}

/** Cells that one finding names. */
const MOST_CELLS = 6

/** Looks through a kit for what is missing, silent or not yet played. */
export function checkKit(kit: Kit, hasAudio: (audio: AudioHash) => boolean): Finding[] {
  const findings: Finding[] = []
  for (const audio of audioInUse(kit)) {
    const name = kit.audio[audio]?.name ?? audio.slice(0, 12)
    if (!hasAudio(audio))
      findings.push({
        severity: 'problem',
        where: name,
        message: `The audio file "${name}" is missing. Import it again, or replace the clips that use it.`,
      })
  }
  if (kit.pads.length === 0)
    findings.push({
      severity: 'problem',
      where: kit.name,
      message: 'This kit has no pads yet. Send hits from Cut, or add a pad on the Board.',
    })
  for (const pad of kit.pads) findings.push(...checkPad(kit, pad))
  findings.push(...sharedNotes(kit), ...tieNotes(kit), ...roomNotes(kit), ...beadNotes(kit))
  const waiting = notPlayedOfKit(kit)
  if (waiting.length > 0) findings.push({ severity: 'note', where: kit.name, message: notPlayedWords(waiting) })
  return findings
}

/** Rooms that stand in the mix and have no impulse yet. */
function roomNotes(kit: Kit): Finding[] {
  const places = [{ name: kit.name, inserts: kit.inserts }, ...kit.buses]
  return places.flatMap(({ name, inserts }) =>
    inserts.some(({ kind, bypass, audio }) => kind === 'room' && !bypass && !audio)
      ? [
          {
            severity: 'note' as const,
            where: name,
            message: 'A recorded room waits for its impulse and changes nothing. Choose a recording for it in Mix.',
          },
        ]
      : [],
  )
}

/** Slots of beads begin at 1. */
const MOST_BEADS = MAX_BEADS - 1

/** Grooves, and a song, of more beads than sound. */
function beadNotes(kit: Kit): Finding[] {
  const here = new Set(kit.pads.map(({ id }) => id))
  const beadsOf = ({ strings }: Groove) => strings.reduce((sum, { padId, beads }) => sum + (here.has(padId) ? beads.length : 0), 0)
  const inSong = new Set(kit.song.map(({ groove }) => groove))
  const song = kit.grooves.reduce((sum, groove) => sum + (inSong.has(groove.id) ? beadsOf(groove) : 0), 0)
  const places = [...kit.grooves.map((groove) => [groove.name || 'Groove', beadsOf(groove)] as const), ['The song', song] as const]
  return places.flatMap(([where, count]) => {
    const silent = count - MOST_BEADS
    if (silent <= 0) return []
    const message = `${MOST_BEADS} beads sound at most: ${silent} of its ${count} are silent. Take some off, or part it into shorter grooves that are played one at a time.`
    return [{ severity: 'problem' as const, where, message }]
  })
}

function notPlayedWords(waiting: readonly string[]): string {
  return `Kept in the kit and not played yet: ${waiting.join(', ')}.`
}

function checkPad(kit: Kit, pad: Pad): Finding[] {
  const settings = padSettings(kit, pad)
  const where = settings.name || 'Unnamed pad'
  const findings: Finding[] = []
  const missing = missingCells(pad)
  const add = (severity: Finding['severity'], message: string) => findings.push({ severity, where, message })
  if (clipsOfPad(filledPad(kit, pad)).length === 0 && settings.mode !== 'silencer')
    add('problem', 'This pad has no clips, so it is silent.')
  if (settings.values.gainDb <= -90) add('problem', `Its level is ${settings.values.gainDb} dB, so it is silent.`)
  for (const clip of clipsOfPad(pad)) {
    const info = kit.audio[clip.audio]
    if (info && clip.endFrame > info.frames)
      add('problem', `A clip ends at frame ${clip.endFrame}, beyond its file of ${info.frames} frames; the rest is silence.`)
  }
  pad.bands.forEach((band, i) => {
    if (band.turns.length === 0) add('note', `Band ${i + 1} (from velocity ${band.fromVelocity}) is empty: strikes there are silent.`)
  })
  for (const ray of pad.rays) {
    const cells = missing.filter((cell) => cell.ray === ray).map(({ band, turn }) => `band ${band + 1}, turn ${turn + 1}`)
    if (cells.length === 0) continue
    const first = cells.slice(0, MOST_CELLS).join('; ') + (cells.length > MOST_CELLS ? `; and ${cells.length - MOST_CELLS} more` : '')
    add('note', `${ray.name} has no clip where other rays have one: ${first}. Mark it as silent on purpose on the Board if it is meant.`)
  }
  const waiting = notPlayedOfPad(kit, pad)
  if (waiting.length > 0) add('note', notPlayedWords(waiting))
  return findings
}

function tieNotes(kit: Kit): Finding[] {
  const note = (where: string, message: string): Finding => ({ severity: 'note', where, message })
  return [
    ...tieConflicts(kit).map(({ pad, words }) => note(nameOf(kit, pad.id), words)),
    ...circleWords(kit).map((words) => note('Ties', words)),
  ]
}

function sharedNotes(kit: Kit): Finding[] {
  const byNote = new Map<number, Pad[]>()
  for (const pad of kit.pads) for (const note of pad.notes) byNote.set(note, [...(byNote.get(note) ?? []), pad])
  return [...byNote]
    .filter(([, pads]) => pads.length > 1)
    .map(([note, pads]) => ({
      severity: 'note' as const,
      where: `Note ${note}`,
      message: `${pads.map((pad) => padSettings(kit, pad).name || 'Unnamed pad').join(' and ')} both answer this note.`,
    }))
}
