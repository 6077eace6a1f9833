import { fireEvent, render, screen } from '@testing-library/react'
import { View } from 'react-native'

import { Badge } from '../controls/Badge'
import { Divider } from './Divider'
import { Row } from './Row'
import { Text } from './Text'
import { Waiting } from './Waiting'
import { fonts } from '../theme/theme'

test('rows are the items of their list', () => {
  render(
    <View role="list">
      <Row>
        <Text>Keel</Text>
      </Row>
      <Row hasLine={false}>
        <Text>Deck</Text>
      </Row>
    </View>,
  )
  expect(screen.getAllByRole('listitem').map((row) => row.textContent)).toEqual(['Keel', 'Deck'])
})

test('what is on its way is said once, and its places are for the eye alone', () => {
  render(<Waiting words="Reading the kits" rows={4} />)
  const status = screen.getByRole('status', { name: 'Reading the kits' })
  expect(status.getAttribute('aria-busy')).toBe('true')
  expect(status.children).toHaveLength(4)
  expect([...status.children].every((row) => row.getAttribute('aria-hidden') === 'true')).toBe(true)
})

test('a mark is a button that says what a press does', () => {
  const clear = jest.fn()
  render(<Badge text="Clipped 3" label="Clipped 3 times; clear the mark" onPress={clear} />)
  const badge = screen.getByRole('button', { name: 'Clipped 3 times; clear the mark' })
  expect(badge.textContent).toBe('Clipped 3')
  expect(getComputedStyle(screen.getByText('Clipped 3')).fontFamily).toBe(fonts.strong) // dressed as all words are
  fireEvent.click(badge)
  expect(clear).toHaveBeenCalledTimes(1)
})

test('a line parts one thing from the next, for the eye alone', () => {
  const { container } = render(<Divider />)
  expect(screen.getByTestId('RNE__Divider').style.borderBottomWidth).toBe('1px')
  expect([container.textContent, screen.queryByRole('separator')]).toEqual(['', null])
})
