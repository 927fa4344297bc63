import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { keyOf, keysOf, same, withIds } from './members'

describe('keys of members', () => {
  it('are their ids, or the word that they are', () =>
    expect([keyOf({ id: 'a' }), keyOf('word'), keyOf({ id: '' }), keyOf({ id: 3 }), keyOf(3), keyOf(null)]).toEqual([
      'a',
      'word',
      undefined,
      undefined,
      undefined,
      undefined,
    ]))
  it('tell a list apart only if there is one for each, and none twice', () => {
    expect(keysOf([{ id: 'a' }, { id: 'b' }])).toEqual(['a', 'b'])
    expect(keysOf([{ id: 'a' }, { id: 'a' }])).toBeUndefined()
    expect(keysOf([{ id: 'a' }, {}])).toBeUndefined()
    expect(keysOf({ id: 'a' })).toBeUndefined()
    expect(keysOf([])).toEqual([])
  })
})

describe('sameness', () => {
  it.each([
    [{ a: 1 }, { a: 1, b: undefined }, true],
    [{ a: 1, b: null }, { a: 1 }, true],
    [null, undefined, true],
    [[1, 2], [1, 2], true],
    [[1, 2], [2, 1], false],
    [[1], [1, 2], false],
    [{ a: [] }, { a: {} }, false],
    [{ a: 0 }, { a: null }, false],
    [{ a: { b: 1 } }, { a: { b: 2 } }, false],
    [{}, { b: 1 }, false],
    [Number.NaN, Number.NaN, true],
  ])('of %j and %j is %s', (a, b, is) => {
    expect(same(a, b)).toBe(is)
    expect(same(b, a)).toBe(is)
  })
  it('holds of every value and its copy', () =>
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(same(value, structuredClone(value))).toBe(true)
      }),
    ))
})

describe('ids', () => {
  it('are given to members that have none, each its own', () => {
    const { list } = withIds<{ list: { x: number; id?: string }[] }>({ list: [{ x: 1 }, { x: 2 }] })
    expect(list.map(({ x }) => x)).toEqual([1, 2])
    expect(new Set(list.map(({ id }) => id)).size).toBe(2)
    expect(list.every(({ id }) => typeof id === 'string' && id.length > 0)).toBe(true)
  })

  it('stay when a member is rebuilt at its place, and are not given twice', () => {
    const before = {
      list: [
        { id: 'a', x: 1 },
        { id: 'b', x: 2 },
      ],
    }
    expect(withIds({ list: [{ x: 9 }, { id: 'b', x: 2 }] }, before).list[0]).toEqual({ id: 'a', x: 9 })
    const moved = withIds<{ list: { id?: string; x: number }[] }>({ list: [{ x: 9 }, { id: 'a', x: 1 }] }, before).list
    expect(moved[1]!.id).toBe('a')
    expect(moved[0]!.id).not.toBe('a')
  })

  it('change nothing that has all its ids: the very same object comes back', () => {
    const whole = { list: [{ id: 'a', inner: [{ id: 'c' }] }], words: ['x', 'y'], numbers: [1, 2] }
    expect(withIds(whole)).toBe(whole)
  })
})
