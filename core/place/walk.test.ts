import fc from 'fast-check'

import { applyEdit, createBand, createKit, createPad, createRay, createTurn, wholeClip } from '../kit'
import type { AudioHash, Band, Clip, Kit } from '../kit'
import { testIds } from '../kit/testing'
import { cellsToWalk, cellWords, clipsOfCell, firstUnjudged, stillToRedo } from './walk'
import type { Judged } from './walk'

const makeId = testIds(71)
const clipOf = (number: number): Clip => ({ ...wholeClip('e'.repeat(64) as AudioHash, { frames: 1000, channels: 1 }), startFrame: number })
/** Of each ray of each turn: a clip, nothing, or silence on purpose. */
const turns = fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { maxLength: 4 })
const bandLists = fc.array(turns, { maxLength: 4 })
const kits = fc.array(fc.record({ bands: bandLists, own: fc.option(bandLists) }), { maxLength: 4 }).map((pads): Kit => {
  const cell = (kind: number) => (kind > 1 ? clipOf(kind) : kind === 1 ? ('intendedSilence' as const) : undefined)
  return {
    ...createKit(makeId, 'Walk'),
    pads: pads.map(({ bands, own }) => {
      const pad = createPad(makeId, {})
      const far = createRay(makeId, 'Far')
      const made = (list: typeof bands, rays: readonly string[]): Band[] =>
        list.map((turns, i) =>
          createBand(
            makeId,
            1 + 20 * i,
            turns.map((kinds) =>
              createTurn(makeId, Object.fromEntries(rays.flatMap((ray, r) => (cell(kinds[r]!) ? [[ray, cell(kinds[r]!)!]] : [])))),
            ),
          ),
        )
      return {
        ...pad,
        rays: [...pad.rays, own ? { ...far, source: { kind: 'clips' as const, bands: made(own, [far.id]) } } : far],
        bands: made(bands, own ? [pad.rays[0]!.id] : [pad.rays[0]!.id, far.id]),
      }
    }),
  }
})

/** All clips of a kit that lie in cells, counted plainly. */
function cellsWithClips(kit: Kit): number {
  const lists = kit.pads.flatMap((pad) => [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])])
  return lists.flat().flatMap(({ turns }) => turns).filter(({ clips }) => Object.values(clips).some((clip) => clip !== 'intendedSilence')).length // prettier-ignore
}

test('a walk comes to every cell that has a clip, once, and says where it is', () => {
  fc.assert(
    fc.property(kits, (kit) => {
      const cells = cellsToWalk(kit)
      expect(cells).toHaveLength(cellsWithClips(kit))
      expect(new Set(cells.map(({ padId, turnId, rayId }) => `${padId} ${turnId} ${rayId}`)).size).toBe(cells.length)
      for (const cell of cells) {
        expect(cell.fromVelocity).toBeLessThanOrEqual(cell.toVelocity)
        expect(cellWords(cell)).not.toBe('')
        expect(clipsOfCell(kit, cell)).toBeTruthy()
      }
    }),
  )
})

test('what is judged is passed by; what is to be struck again stays on the list until another clip lies there', () => {
  fc.assert(
    fc.property(kits, fc.infiniteStream(fc.boolean()), (kit, redoes) => {
      const judged: Record<string, Judged> = {}
      const wanted = new Set<string>()
      for (let at = firstUnjudged(kit, judged); at !== undefined; at = firstUnjudged(kit, judged)) {
        const cell = cellsToWalk(kit)[at]!
        const isRedo = redoes.next().value === true
        judged[cell.turnId] = { verdict: isRedo ? 'redo' : 'keep', was: clipsOfCell(kit, cell)! }
        if (isRedo) wanted.add(cell.turnId)
      }
      expect(stillToRedo(kit, judged).map(({ turnId }) => turnId)).toEqual(cellsToWalk(kit).map(({ turnId }) => turnId).filter((id) => wanted.has(id))) // prettier-ignore
      const [first] = stillToRedo(kit, judged).filter(({ rayId }) => rayId === undefined)
      if (!first) return
      const pad = kit.pads.find(({ id }) => id === first.padId)!
      const turn = pad.bands.flatMap(({ turns }) => turns).find(({ id }) => id === first.turnId)!
      const [rayId, clip] = Object.entries(turn.clips).find((entry): entry is [string, Clip] => entry[1] !== 'intendedSilence')!
      const next = applyEdit(kit, { type: 'setClip', padId: pad.id, turnId: turn.id, rayId: rayId as never, clip: { ...clip, startFrame: clip.startFrame + 1, endFrame: clip.endFrame + 1 } }) // prettier-ignore
      expect(stillToRedo(next, judged)).toHaveLength(wanted.size - 1)
      expect(firstUnjudged(next, judged)).toBe(cellsToWalk(next).findIndex(({ turnId }) => turnId === first.turnId))
    }),
  )
})
