import { padById } from '@heliaster/core/kit'
import type { Kit, KitId, PadId } from '@heliaster/core/kit'
import { useEffect } from 'react'

import { connectKeys } from '../audio/playing/hands/computer-keys'
import { letGoAll } from '../audio/playing/hands/hands'
import { connectMidi } from '../audio/playing/hands/midi-inputs'
import { connectPractice } from '../audio/playing/hands/practice'
import { playSong, stopGroove } from '../audio/playing/groove-player'
import { endTake } from '../audio/playing/groove-take'
import { stopRound } from '../audio/playing/round'
import { onArrived } from '../audio/engine/arriving'
import type { Sounded } from '../audio/engine/player'
import { ALL_SOUND, heardCell } from '../audio/engine/solo'
import { onSounded, onWaiting, playKit, soloed } from '../audio/engine/sound'
import { kits } from '../documents'
import { gatherFor } from '../documents/gathered'
import { forgetStrikes, rememberStrikes } from '../kit-view/recent-strikes'
import { session } from '../kit-view/session'
import { lightUp, putOut } from '../kit-view/sounding'
import { NOT_ARRIVED, ON_ITS_WAY, whyHardlyHeard, whySilent } from '../kit-view/why-silent'

/** Keeps the engine in step with the kit, plays it from keys, and remembers the cell that sounded last. */
export function useKitSound(kitId: KitId): void {
  useEffect(() => {
    const kitNow = () => kits.store.getState().entries[kitId]?.doc
    gatherFor(kitId)
    playKit(kitNow())
    const stops = [
      kits.store.subscribe((now, before) => {
        if (now.entries[kitId]?.doc !== before.entries[kitId]?.doc) playKit(now.entries[kitId]?.doc)
      }),
      connectKeys(kitNow),
      connectMidi(),
      connectPractice(),
      onWaiting((padId) => session.setState({ silent: { padId, why: ON_ITS_WAY } })),
      onArrived(() => {
        const why = session.getState().silent?.why
        if (why === NOT_ARRIVED || why === ON_ITS_WAY) session.setState({ silent: undefined })
      }),
      onSounded((sounded) => showSounded(sounded, kitNow())),
    ]
    return () => {
      endTake()
      stopGroove()
      playSong(false)
      stopRound()
      letGoAll()
      soloed.setState(ALL_SOUND)
      putOut()
      forgetStrikes()
      gatherFor(undefined)
      stops.forEach((stop) => stop())
    }
  }, [kitId])
}

/** What has sounded since the last picture is shown at once, however much it is. */
function showSounded(sounded: readonly Sounded[], kit: Kit | undefined): void {
  const lit = { ...session.getState().lit }
  let { silent } = session.getState()
  const struck: PadId[] = []
  for (const { padId, frame, voices, velocity, ...heard } of sounded) {
    if (!padId || !kit) continue
    const { band, turn } = heardCell(padById(kit, padId), heard, soloed.getState())
    if (voices === 0) silent = { padId, why: whySilent(kit, { padId, velocity, band, turn }, soloed.getState()) }
    else {
      if (performance.getEntriesByName('heliaster-first-sound').length === 0) performance.mark('heliaster-first-sound') // for the bench
      struck.push(padId)
      lit[padId] = { band, turn, at: frame, velocity }
      const faint = whyHardlyHeard(kit, padId)
      silent = faint ? { padId, why: faint } : undefined
    }
  }
  session.setState({ lit, silent })
  if (kit) rememberStrikes(kit, sounded, soloed.getState())
  lightUp(struck)
}
