import { expect, test } from 'vitest'
import { withEdits } from '../findings/edits'

const card = { routines: { start: 'G28\nG29\nM109 S200\n' } }

test('lines are inserted, replaced and removed, and facts set, in one go', () => {
  const edited = withEdits(card, [
    { how: 'insert-before', pointer: '/routines/start', line: 1, text: 'M104 S150' },
    { how: 'replace', pointer: '/routines/start', line: 3, text: 'M109 R200' },
    { how: 'remove', pointer: '/routines/start', line: 2 },
    { how: 'set-fact', pointer: '/firmware/present/-', value: 'G10' },
  ])
  expect(edited.routines?.start).toBe('M104 S150\nG28\nM109 R200\n')
})

test('a line behind the last one is added at the end of an empty routine, too', () => {
  expect(
    withEdits<{ routines?: { end?: string } }>({}, [{ how: 'insert-after', pointer: '/routines/end', line: 1, text: 'M84' }]).routines?.end,
  ).toBe('\nM84\n')
})

test('an edit without a place changes nothing', () => {
  expect(withEdits(card, [{ how: 'remove', line: 2 }])).toBe(card)
})

test('a fact that is set to nothing goes', () => {
  expect(withEdits({ layers: { rungs: 5, others: 0.2 } }, [{ how: 'set-fact', pointer: '/layers/rungs', value: null }])).toEqual({
    layers: { others: 0.2 },
  })
})
