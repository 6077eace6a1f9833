/** @jest-environment node */
import { createHash, webcrypto } from 'node:crypto'

import { hashOf } from './hash-of'

const given = globalThis.crypto
const put = (crypto: unknown) => Object.defineProperty(globalThis, 'crypto', { configurable: true, value: crypto })
afterEach(() => void put(given))

test.each([0, 1, 64, 100_003])('a file of %s bytes has the same name by the browser’s digest and by ours', async (length) => {
  const bytes = Uint8Array.from({ length }, (_, i) => (i * 31) % 251)
  const right = createHash('sha256').update(bytes).digest('hex')
  const digest = jest.fn((name: string, of: Uint8Array<ArrayBuffer>) => webcrypto.subtle.digest(name, of))
  put({ subtle: { digest } })
  expect(await hashOf(bytes)).toBe(right)
  expect(digest).toHaveBeenCalledTimes(1)
  put({}) // a page that is not secure
  expect(await hashOf(bytes)).toBe(right)
})
