import { readScript, SCRIPT_WORDS } from '@heliaster/core/hands'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { createPractice } from '../../../audio/playing/hands/practice'
import type { Practice } from '../../../audio/playing/hands/practice'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { WordField } from '../../../ui/controls/WordField'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import { PracticePads } from './PracticePads'

declare global {
  /** For scripts of the page: `heliasterPractice.send(0x90, 36, 100)`. */
  var heliasterPractice: Practice | undefined
}

const FIRST_NOTE = 36
const OCTAVE = 12
const LAST_FIRST = 116
const SIZE_PX = 72

/** A controller without a device: what it sends is heard wherever a kit is open in this browser, as from any other input. */
export function PracticeController() {
  const [practice] = useState(createPractice)
  const [firstNote, setFirstNote] = useState(FIRST_NOTE)
  const [channel, setChannel] = useState(10)
  useEffect(() => {
    globalThis.heliasterPractice = practice
    return () => {
      globalThis.heliasterPractice = undefined
      practice.close()
    }
  }, [practice])
  return (
    <View style={{ gap: 16 }}>
      <PracticePads practice={practice} firstNote={firstNote} channel={channel} sizePx={SIZE_PX} />
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <View style={{ flex: 1 }}>
          <Slider
            label="First note"
            value={firstNote}
            min={0}
            max={LAST_FIRST}
            step={1}
            unit=""
            onSlide={setFirstNote}
            onDone={() => undefined}
          />
        </View>
        <IconButton
          name="chevron-left"
          label="An octave down"
          disabled={firstNote < OCTAVE}
          onPress={() => setFirstNote(firstNote - OCTAVE)}
        />
        <IconButton
          name="chevron-right"
          label="An octave up"
          disabled={firstNote + OCTAVE > LAST_FIRST}
          onPress={() => setFirstNote(firstNote + OCTAVE)}
        />
      </View>
      <PracticeControls practice={practice} channel={channel} />
      <Slider label="Channel" value={channel} min={1} max={16} step={1} unit="" onSlide={setChannel} onDone={() => undefined} />
      <PracticeScript practice={practice} />
    </View>
  )
}

/** Wheel and pedal stay where they are put; bend and pressure go back by themselves. */
function PracticeControls({ practice, channel }: { readonly practice: Practice; readonly channel: number }) {
  const [wheel, setWheel] = useState(0)
  const [isDown, setDown] = useState(false)
  const [bend, setBend] = useState(0)
  const [pressure, setPressure] = useState(0)
  const bendTo = (value: number) => {
    setBend(value)
    practice.tell({ type: 'bend', channel, bend: value })
  }
  const pressTo = (value: number) => {
    setPressure(value)
    practice.tell({ type: 'pressure', channel, pressure: value })
  }
  return (
    <>
      <Slider
        label="Wheel"
        value={wheel}
        min={0}
        max={127}
        step={1}
        unit=""
        onSlide={(value) => {
          setWheel(value)
          practice.tell({ type: 'controller', channel, number: 1, value })
        }}
        onDone={() => undefined}
      />
      <Slider label="Bend" value={bend} min={-1} max={1} step={0.01} unit="" neutral={0} onSlide={bendTo} onDone={() => bendTo(0)} />
      <Slider label="Pressure" value={pressure} min={0} max={127} step={1} unit="" onSlide={pressTo} onDone={() => pressTo(0)} />
      <Toggle
        label="Pedal"
        words="While it is down, pads that hold sound on."
        value={isDown}
        onChange={(down) => {
          setDown(down)
          practice.tell({ type: 'controller', channel, number: 64, value: down ? 127 : 0 })
        }}
      />
    </>
  )
}

const FIRST_SCRIPT = 'note 36 110\nwait 250\nnote 38 90\nwait 250\nnote 36 60\nwait 250\nnote 38 120'

/** A few lines that it plays by itself. */
function PracticeScript({ practice }: { readonly practice: Practice }) {
  const [text, setText] = useState(FIRST_SCRIPT)
  const [words, setWords] = useState<string>()
  const play = () => {
    const steps = readScript(text)
    if (typeof steps === 'string') return setWords(steps)
    setWords('It plays.')
    practice.run(steps, () => setWords('It has played to its end.'))
  }
  return (
    <Part name="By itself">
      <WordField label="Script" value={text} lines={6} onChange={setText} />
      <Text look="small" tone="muted" role="status">
        {words ?? SCRIPT_WORDS}
      </Text>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Play the script" onPress={play} />
        <Button
          label="Stop it"
          onPress={() => {
            practice.stop()
            setWords('Stopped.')
          }}
        />
      </View>
    </Part>
  )
}
