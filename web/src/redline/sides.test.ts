import fc from 'fast-check'
import { expect, it } from 'vitest'
import { sidesOf } from './sides'

const texts = fc
  .array(fc.constantFrom('G28', 'M109 S200', 'G1 Z5', '', '; note'), { minLength: 1, maxLength: 8 })
  .map((lines) => lines.join('\n'))

it('shows every line of both texts once, in their order', () =>
  fc.assert(
    fc.property(texts, texts, (mine, theirs) => {
      const rows = sidesOf(mine, theirs)
      const lines = (text: string) => text.replace(/\n$/, '').split('\n')
      expect(rows.flatMap(({ left }) => (left === undefined ? [] : [left]))).toEqual(lines(mine))
      expect(rows.flatMap(({ right }) => (right === undefined ? [] : [right]))).toEqual(lines(theirs))
    }),
  ))

it('sets what is the same side by side, and what was changed beside what it was', () => {
  expect(sidesOf('G28\nM109 S200\nG1 Z5', 'G28\nM109 S215\nG1 Z5\nM83')).toEqual([
    { left: 'G28', right: 'G28' },
    { left: 'M109 S200', right: 'M109 S215' },
    { left: 'G1 Z5', right: 'G1 Z5' },
    { left: undefined, right: 'M83' },
  ])
})
