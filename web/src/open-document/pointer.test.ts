import { expect, it } from 'vitest'
import { isWithin, parentOf, under, valueAt, withValue } from './pointer'

const card = { name: 'Dunlin', envelope: { bed: { width: 180 }, keepOuts: [{ name: 'clip' }, { name: 'dent' }] }, sources: { '/a/b': 1 } }

it('reads by pointer', () => {
  expect(valueAt(card, '/envelope/bed/width')).toBe(180)
  expect(valueAt(card, '/envelope/keepOuts/1/name')).toBe('dent')
  expect(valueAt(card, '/sources/~1a~1b')).toBe(1)
  expect(valueAt(card, '/envelope/nothing/here')).toBeUndefined()
})

it('writes by pointer and leaves the original alone', () => {
  const wider = withValue(card, '/envelope/bed/width', 200)
  expect(wider.envelope.bed.width).toBe(200)
  expect(card.envelope.bed.width).toBe(180)
  expect(wider.envelope.keepOuts).toBe(card.envelope.keepOuts)
})

it('makes what is missing, appends and removes', () => {
  expect(valueAt(withValue(card, '/heat/bed/max', 100), '/heat/bed/max')).toBe(100)
  expect(withValue(card, '/envelope/keepOuts/-', { name: 'post' }).envelope.keepOuts).toHaveLength(3)
  expect(withValue(card, '/envelope/keepOuts/0', undefined).envelope.keepOuts).toEqual([{ name: 'dent' }])
  expect(withValue(card, '/envelope/bed/width', undefined).envelope.bed).toEqual({})
})

it('keeps the order of members', () => {
  expect(Object.keys(withValue({ a: 1, b: 2, c: 3 }, '/b', 9))).toEqual(['a', 'b', 'c'])
})

it('joins steps, each escaped', () => {
  expect(under('/head/bodies', 2, 'outline', 'x')).toBe('/head/bodies/2/outline/x')
  expect(under('/sources', '/a~b')).toBe('/sources/~1a~0b')
  expect(under('', 'name')).toBe('/name')
  expect(parentOf('/sources/~1a~0b')).toBe('/sources')
})

it('tells what lies within from what only begins alike', () => {
  expect(isWithin('/envelope/keepOuts/1', '/envelope/keepOuts/1')).toBe(true)
  expect(isWithin('/envelope/keepOuts/1/outline', '/envelope/keepOuts/1')).toBe(true)
  expect(isWithin('/envelope/keepOuts/10', '/envelope/keepOuts/1')).toBe(false)
  expect(isWithin(undefined, '')).toBe(false)
})
