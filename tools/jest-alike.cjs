const { isDeepStrictEqual } = require('node:util')

/**
 * Long rows of numbers that are the same to the bit are found so at once. By itself `toEqual` makes a text of each place in
 * them and looks that up, seconds for a second of sound. Of what differs it is still `toEqual` that says where.
 */
const LONG = 64

const isRow = (value) => Array.isArray(value) || (ArrayBuffer.isView(value) && typeof value.length === 'number')

function sameNumbers(one, other) {
  if (!isRow(one) || !isRow(other) || one.length < LONG || one.length !== other.length || one.constructor !== other.constructor)
    return undefined
  for (let i = 0; i < one.length; i++) if (typeof one[i] !== 'number' || !Object.is(one[i], other[i])) return undefined
  return true
}

expect.addEqualityTesters([sameNumbers])

/**
 * Documents that are the same to the last value are found so by Node's own comparison, many times as quick. Of what is not,
 * or only by `toEqual`'s milder rules (a matcher in it, what is undefined), it is `toEqual` that says.
 */
const isDocument = (value) => typeof value === 'object' && value !== null && !ArrayBuffer.isView(value)
const sameDocuments = (one, other) => (isDocument(one) && isDocument(other) && isDeepStrictEqual(one, other) ? true : undefined)

expect.addEqualityTesters([sameDocuments])
