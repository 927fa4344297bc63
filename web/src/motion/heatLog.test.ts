import { expect, test } from 'vitest'
import { parseLog } from './heatLog'

test('a log is read with tabs, blanks, decimal commas and minutes', () => {
  expect(parseLog('0\t19,5\n1:30 27.1\n\n120;33')).toEqual({
    points: [
      [0, 19.5],
      [90, 27.1],
      [120, 33],
    ],
  })
})

test('a line that is no pair, or not later, is named', () => {
  expect(parseLog('0 20\nabc')).toEqual({ error: 'Line 2 does not hold two numbers.' })
  expect(parseLog('0 20\n60 30\n60 31')).toEqual({ error: 'Line 3 is not later than the one before it.' })
})
