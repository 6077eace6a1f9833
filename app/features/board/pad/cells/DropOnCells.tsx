import { clipOfSource, clipsOfPad, createRay, createTurn } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, Source, TurnId } from '@heliaster/core/kit'
import { asTurns, setCells } from '@heliaster/core/place'
import type { Cells } from '@heliaster/core/place'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { importFiles, soundsOf } from '../../../../audio/import/import'
import { makeId } from '../../../../documents/make-id'
import { Button } from '../../../../ui/controls/Button'
import { FileDrop } from '../../../../ui/controls/FileDrop'
import { notify } from '../../../../ui/layout/notices'
import { Sheet } from '../../../../ui/layout/Sheet'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import { nameEdits } from '../../../place'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  /** Several files, or a file dropped beside the cells. */
  readonly onMany: (files: readonly Source[]) => void
  /** A file has been put into a cell. */
  readonly onShown: (file: Source, turnId: TurnId) => void
  readonly children: ReactNode
}

interface Dropped {
  readonly file: Source
  readonly turnId: TurnId
}

/** A file dropped on a cell: into it where it is empty; where it is not, what should happen is asked. */
export function DropOnCells({ kit, pad, cells, onMany, onShown, children }: Props) {
  const [asked, setAsked] = useState<Dropped>()
  const { ray, bands } = cells
  const finish = (file: Source, edits: KitEdit[]) => {
    editKit(kit.id, [{ type: 'putAudio', audio: file.audio, info: file.info }, ...edits], pad.id)
    setAsked(undefined)
  }
  const fill = ({ file, turnId }: Dropped) => {
    const isItsSound = clipsOfPad(pad).length <= 1
    const filling: KitEdit = { type: 'setClip', padId: pad.id, turnId, rayId: ray.id, clip: clipOfSource(file) }
    finish(file, [filling, ...(isItsSound ? nameEdits(pad, file.name) : [])])
    onShown(file, turnId)
  }
  const take = (files: readonly File[], on: Element | null) => {
    const turnId = on?.closest<HTMLElement>('[data-turn]')?.dataset.turn as TurnId | undefined
    importFiles(files, ({ done, state }) => {
      if (state !== 'finished') return
      const failed = done.flatMap((one) => (one.type === 'failed' ? [`${one.name}: ${one.reason}`] : []))
      if (failed.length > 0) notify(failed.join(' '))
      const taken = soundsOf(done)
      if (taken.length === 1 && turnId) {
        const turn = bands.flatMap((band) => band.turns).find(({ id }) => id === turnId)
        if (turn?.clips[ray.id]) setAsked({ file: taken[0], turnId })
        else fill({ file: taken[0], turnId })
      } else if (taken.length > 0) onMany(taken)
    })
  }
  const addTurn = ({ file, turnId }: Dropped) => {
    const turn = createTurn(makeId, { [ray.id]: clipOfSource(file) })
    const grown = bands.map((band) => (band.turns.some(({ id }) => id === turnId) ? { ...band, turns: [...band.turns, turn] } : band))
    finish(file, [setCells(pad, cells, grown)])
  }
  const addRay = ({ file }: Dropped) => {
    const made = createRay(makeId, file.name.slice(0, 40))
    const source = { kind: 'clips' as const, bands: asTurns(makeId, made.id, [clipOfSource(file)]) }
    finish(file, [{ type: 'setPadFilling', padId: pad.id, rays: [...pad.rays, { ...made, source }] }])
  }
  return (
    <FileDrop fills={false} onFiles={take}>
      {children}
      {asked && (
        <Sheet title="There is a clip already" isOpen onClose={() => setAsked(undefined)}>
          <Text>{`“${asked.file.name}” was dropped on a cell that has one.`}</Text>
          <View style={{ gap: 8 }}>
            <Button label="Put it in the place of the other" kind="main" onPress={() => fill(asked)} />
            <Button label="Add it as one more turn of the band" onPress={() => addTurn(asked)} />
            <Button label="Sound it together with all of the pad" disabled={pad.rays.length >= 32} onPress={() => addRay(asked)} />
          </View>
        </Sheet>
      )}
    </FileDrop>
  )
}
