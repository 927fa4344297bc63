import { expect, it } from 'vitest'
import { differences } from './differences'
import { merge, valueOn, withOther } from './merge'

const clip = (id: string, more: object = {}) => ({
  id,
  name: id,
  kind: 'obstacle',
  outline: { shape: 'rectangle', x: 0, width: 12 },
  ...more,
})
const base = {
  name: 'Dunlin',
  bed: { shape: 'rectangle', width: 180, depth: 160 } as object,
  keepOuts: [clip('left'), clip('right'), clip('dent')] as object[],
  sources: { '/keepOuts/2/name': { source: 'measured' } } as Record<string, object>,
  accepted: [{ id: 'a', rule: 'keep-out-off-bed', at: '/keepOuts/1', why: 'taped' }] as object[],
}
type Doc = typeof base

const both = (mine: Doc, theirs: Doc) => {
  const merged = merge(base, mine, theirs)
  expect(merge(base, theirs, mine).document).toEqual(merged.document)
  expect(merged.clashes).toEqual([])
  return merged.document
}

it('keeps what both sides changed', () => {
  const merged = both({ ...base, bed: { ...base.bed, width: 200 } }, { ...base, name: 'Dunlin II', bed: { ...base.bed, depth: 165 } })
  expect(merged).toEqual({ ...base, name: 'Dunlin II', bed: { shape: 'rectangle', width: 200, depth: 165 } })
})

it('keeps members that both sides added', () => {
  const merged = both({ ...base, keepOuts: [...base.keepOuts, clip('post')] }, { ...base, keepOuts: [clip('tape'), ...base.keepOuts] })
  expect(merged.keepOuts.map((one) => (one as { id: string }).id)).toEqual(['tape', 'left', 'right', 'dent', 'post'])
})

it('changes a member where it stands after another was removed, and takes its source and its acceptance along', () => {
  const mine = {
    ...base,
    keepOuts: base.keepOuts.slice(1),
    sources: { '/keepOuts/1/name': { source: 'measured' } },
    accepted: [{ ...base.accepted[0], at: '/keepOuts/0' }],
  }
  const theirs = { ...base, keepOuts: [clip('left'), clip('right'), clip('dent', { name: 'deep dent' })] }
  expect(both(mine, theirs)).toEqual({ ...mine, keepOuts: [clip('right'), clip('dent', { name: 'deep dent' })] })
})

it('moves on one side, changes on the other', () => {
  const [left, right, dent] = base.keepOuts
  const merged = both(
    { ...base, keepOuts: [dent!, left!, right!], sources: { '/keepOuts/0/name': { source: 'measured' } } },
    { ...base, keepOuts: [left!, clip('right', { top: 6 }), dent!] },
  )
  expect(merged.keepOuts).toEqual([dent, left, clip('right', { top: 6 })])
  expect(merged.sources).toEqual({ '/keepOuts/0/name': { source: 'measured' } })
})

it('asks where both changed a value, and takes either', () => {
  const mine = { ...base, bed: { ...base.bed, width: 200 } }
  const theirs = { ...base, name: 'II', bed: { ...base.bed, width: 190 } }
  const { document, clashes } = merge(base, mine, theirs)
  expect(clashes).toEqual([{ path: ['bed', 'width'] }])
  expect(document).toEqual({ ...mine, name: 'II' })
  expect(withOther(document, theirs, clashes[0]!)).toEqual(theirs)
})

it('asks where one side removed what the other changed', () => {
  const mine = { ...base, keepOuts: base.keepOuts.slice(1), sources: {}, accepted: [{ ...base.accepted[0], at: '/keepOuts/0' }] }
  const theirs = { ...base, keepOuts: [clip('left', { top: 9 }), ...base.keepOuts.slice(1)] }
  const { document, clashes } = merge(base, mine, theirs)
  expect(clashes).toEqual([{ path: ['keepOuts', '@left'] }])
  expect(document.keepOuts).toHaveLength(2)
  expect(valueOn(document, clashes[0]!.path)).toBeUndefined()
  expect(withOther(document, theirs, clashes[0]!).keepOuts).toEqual(theirs.keepOuts)
})

it('never mixes two shapes', () => {
  const mine = { ...base, keepOuts: [clip('left', { outline: { shape: 'circle', radius: 3 } }), ...base.keepOuts.slice(1)] }
  const theirs = { ...base, keepOuts: [clip('left', { outline: { shape: 'rectangle', x: 0, width: 20 } }), ...base.keepOuts.slice(1)] }
  const { document, clashes } = merge(base, mine, theirs)
  expect(clashes).toEqual([{ path: ['keepOuts', '@left', 'outline'] }])
  expect(document).toEqual(mine)
})

it('asks about two orders of one list', () => {
  const [left, right, dent] = base.keepOuts
  const theirs = { ...base, keepOuts: [dent!, left!, right!] }
  const { document, clashes } = merge(
    { ...base, sources: {} },
    { ...base, sources: {}, keepOuts: [right!, left!, dent!] },
    { ...theirs, sources: {} },
  )
  expect(clashes).toEqual([{ path: ['keepOuts'], order: true }])
  expect(document.keepOuts).toEqual([right, left, dent])
  expect(withOther(document, theirs, clashes[0]!).keepOuts).toEqual([dent, left, right])
})

it('lists the differences by member', () => {
  const other = {
    ...base,
    keepOuts: [base.keepOuts[2]!, clip('left', { top: 3 }), clip('post')],
    sources: { '/keepOuts/0/name': { source: 'measured' } },
    accepted: [],
  }
  expect(differences(base, other)).toEqual([
    ['keepOuts', '@left', 'top'],
    ['keepOuts', '@right'],
    ['keepOuts', '@post'],
    ['accepted', '@a'],
  ])
})
