import { render, screen } from '@testing-library/react'
import { Text, View } from 'react-native'

import { slow } from './quick-styles'

test('what is told quickly of every element is what a look through all rules says', () => {
  const { rerender, container } = render(
    <View>
      <View style={{ display: 'none' }}>
        <Text>Under water</Text>
      </View>
      <div style={{ visibility: 'hidden' }}>
        <View>
          <span style={{ visibility: 'visible' }}>Seen through</span>
          <Text>Not seen</Text>
        </View>
      </div>
      <ul>
        <li hidden>Put away</li>
        <li>
          <button>Cut</button> <label>Fade</label>
          <input type="checkbox" />
          <textarea />
        </li>
      </ul>
      <svg>
        <path d="M0 0" />
      </svg>
      <script type="text/plain" />
      <div style={{ display: 'grid' }}>
        <span style={{ visibility: 'collapse' }}>Folded</span>
      </div>
    </View>,
  )
  const compare = () => {
    const all = Array.from(container.querySelectorAll('*'))
    expect(all.length).toBeGreaterThan(8)
    for (const element of all) {
      const [quick, whole] = [getComputedStyle(element), slow(element)]
      expect([element.outerHTML, quick.display, quick.visibility]).toEqual([element.outerHTML, whole.display, whole.visibility])
      expect([quick.getPropertyValue('display'), quick.fontSize]).toEqual([whole.getPropertyValue('display'), whole.fontSize])
    }
  }
  compare()
  rerender(<View>{Array.from({ length: 9 }, (_, i) => <View key={i} role="button" style={{ display: i % 2 === 0 ? 'flex' : 'none' }} />)}</View>) // prettier-ignore
  compare()
  expect(screen.getAllByRole('button')).toHaveLength(5)
})
