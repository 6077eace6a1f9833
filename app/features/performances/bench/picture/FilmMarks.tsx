import { pictureAt, timecodeOf, withMark, withoutMark } from '@heliaster/core/performance'
import type { FilmMark } from '@heliaster/core/performance'
import { useState } from 'react'
import { View } from 'react-native'

import { performances } from '../../../../documents'
import { Button, IconButton } from '../../../../ui/controls/Button'
import { WordField } from '../../../../ui/controls/WordField'
import { Part } from '../../../../ui/layout/Part'
import { Row } from '../../../../ui/layout/Row'
import { Text } from '../../../../ui/layout/Text'
import type { Pictured } from './use-picture'

/** Places of the film that sounds are spotted for: marked where it stands, gone to at a tap, seen on the strings. */
export function FilmMarks({ pictured }: { readonly pictured: Pictured }) {
  const { seconds, onSeconds, picture, set, lines, marks } = pictured
  const [name, setName] = useState('')
  const put = () => {
    set({ marks: withMark(picture, { seconds, name: name.trim().slice(0, 120) || `Mark ${marks.length + 1}` }).marks })
    setName('')
  }
  /** A mark may stand on several lines: it goes from all of them. */
  const remove = (mark: FilmMark) => {
    for (const line of lines)
      if (line.picture?.marks?.some((one) => one.seconds === mark.seconds && one.name === mark.name))
        performances.edit(line.id, [{ type: 'setPerformance', fields: { picture: withoutMark(line.picture, mark) } }])
  }
  return (
    <Part name="Marks">
      {marks.length > 0 && (
        <View role="list" aria-label="Marks of the film">
          {marks.map((mark, i) => (
            <Row key={`${mark.seconds} ${mark.name}`} hasLine={i > 0}>
              <View style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 10 }}>
                <Button kind="quiet" label={`Go to ${mark.name}`} onPress={() => onSeconds(mark.seconds)} style={{ flexShrink: 1 }} />
                <Text look="figures" tone="muted" style={{ flex: 1 }}>
                  {timecodeOf(picture.rate, picture.startPictures + pictureAt(picture.rate, mark.seconds))}
                </Text>
                <IconButton name="trash-can-outline" label={`Remove the mark ${mark.name}`} onPress={() => remove(mark)} />
              </View>
            </Row>
          ))}
        </View>
      )}
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 8 }}>
        <View style={{ flex: 1, maxWidth: 260 }}>
          <WordField label="Name of the mark" value={name} onChange={setName} onEnter={put} />
        </View>
        <Button label="Mark this picture" onPress={put} />
      </View>
    </Part>
  )
}
