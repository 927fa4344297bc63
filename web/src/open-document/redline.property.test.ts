import fc from 'fast-check'
import { expect, it } from 'vitest'
import { isObject, type Json } from './members'
import { changedBy, named, redline, taken } from './redline'

const member = fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd', 'e'), value: fc.nat(3) })
const list = fc.uniqueArray(member, { selector: ({ id }) => id, maxLength: 5 })
const documents = fc.record({
  name: fc.option(fc.constantFrom('x', 'y'), { nil: undefined }),
  envelope: fc.record({ height: fc.nat(3), use: fc.option(fc.record({ height: fc.nat(2) }), { nil: undefined }), keepOuts: list }),
  bed: fc.oneof(
    fc.record({ shape: fc.constant('rectangle'), width: fc.nat(2) }),
    fc.record({ shape: fc.constant('ellipse'), width: fc.nat(2) }),
  ),
  modes: fc.uniqueArray(fc.constantFrom('single', 'copy', 'mirror')),
  sources: fc.constant<Json>({}),
})
const clean = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(clean)
  if (!isObject(value)) return value
  return Object.fromEntries(Object.entries(value).flatMap(([name, one]) => (one === undefined ? [] : [[name, clean(one)]])))
}

it('is empty for what is the same, and taking none of it changes nothing', () =>
  fc.assert(
    fc.property(documents, documents, (mine, theirs) => {
      expect(redline(mine, structuredClone(mine))).toEqual([])
      expect(taken(mine, theirs, [])).toBe(mine)
    }),
  ))

it('gives the other document where all of it is taken, in any order', () =>
  fc.assert(
    fc.property(documents, documents, fc.nat(), (mine, theirs, seed) => {
      const all = redline(mine, theirs)
      const turned = [...all.slice(seed % (all.length + 1)), ...all.slice(0, seed % (all.length + 1))]
      expect(clean(taken(mine, theirs, turned))).toEqual(clean(theirs))
    }),
  ))

it('takes one difference and leaves the others', () =>
  fc.assert(
    fc.property(documents, documents, fc.nat(), (mine, theirs, at) => {
      const all = redline(mine, theirs).filter(({ order }) => !order)
      if (all.length === 0) return
      const one = all[at % all.length]!
      const left = redline(taken(mine, theirs, [one]), theirs).filter(({ order }) => !order)
      expect(left.map(({ path }) => path.join('/')).sort()).toEqual(
        all
          .filter((other) => other !== one)
          .map(({ path }) => path.join('/'))
          .sort(),
      )
    }),
  ))

it('brings the source of a fact along, and tells of a source by itself only where the fact is the same', () => {
  const mine = { envelope: { height: 170, width: 9 }, sources: { '/envelope/height': { source: 'assumed' } } }
  const theirs = {
    envelope: { height: 171, width: 9 },
    sources: { '/envelope/height': { source: 'measured' }, '/envelope/width': { source: 'measured' } },
  }
  const all = redline(mine, theirs)
  expect(all.map(({ path }) => path)).toEqual([
    ['envelope', 'height'],
    ['sources', '/envelope/width'],
  ])
  expect(taken(mine, theirs, all.slice(0, 1))).toEqual({
    envelope: { height: 171, width: 9 },
    sources: { '/envelope/height': { source: 'measured' } },
  })
})

it('holds members of documents without a common past against each other by what they are called', () => {
  const mine = { keepOuts: [{ id: 'k1', name: 'left clip', top: 6 }, { id: 'k2', name: 'dent', top: 1 }] } // prettier-ignore
  const theirs = { keepOuts: [{ id: 'k1', name: 'dent', top: 2 }, { id: 'k2', name: 'wiper', top: 9 }] } // prettier-ignore
  const other = named(theirs, mine)
  expect(other.keepOuts.map(({ id }) => id)).toEqual(['k2', 'k2-2'])
  expect(redline(mine, other).map(({ path }) => path.join('/'))).toEqual(['keepOuts/@k1', 'keepOuts/@k2/top', 'keepOuts/@k2-2'])
  expect(taken(mine, other, redline(mine, other)).keepOuts.map(({ name, top }) => [name, top])).toEqual([
    ['dent', 2],
    ['wiper', 9],
  ])
})

it('tells who has changed a value since a common past', () =>
  fc.assert(
    fc.property(documents, documents, documents, (past, mine, theirs) => {
      for (const difference of redline(past, theirs)) expect(changedBy(past, difference, past, theirs)).toBe('theirs')
      for (const difference of redline(mine, past)) expect(changedBy(past, difference, mine, past)).toBe('mine')
      // what differs was changed by somebody
      for (const difference of redline(mine, theirs)) expect(changedBy(past, difference, mine, theirs)).not.toBe('neither')
    }),
  ))

it('tells of a value that both have changed', () => {
  const of = (height: number) => ({ envelope: { height } })
  const [difference] = redline(of(2), of(3))
  expect(changedBy(of(1), difference!, of(2), of(3))).toBe('both')
})
