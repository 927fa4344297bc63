import { expect, test } from 'vitest'
import type { Card } from '../api/client'
import { blankCard } from '../open-card/facts'
import { changedBy, redline, taken } from '../open-document/redline'
import { besidePattern } from './besidePattern'

const assumed = { source: 'assumed' } as const

const version = (number: number, height: number, maxFlow: number, extra: Partial<Card> = {}): Card => ({
  ...blankCard,
  pattern: { id: 'works:reed', version: number },
  envelope: { ...blankCard.envelope, height },
  head: { ...blankCard.head, nozzles: [{ id: 'n1', diameter: 0.4, maxFlow }] },
  sources: { '/envelope/height': assumed, '/head/nozzles/0/diameter': assumed, '/head/nozzles/0/maxFlow': assumed },
  ...extra,
})

const first = version(1, 130, 8)
const second = version(2, 120, 9)
const mine: Card = {
  ...first,
  name: 'Reed of the boat house',
  tags: ['boat'],
  notes: 'stands by the window',
  head: { ...first.head, nozzles: [{ id: 'n1', diameter: 0.6, maxFlow: 8 }] },
  sources: {
    ...first.sources,
    '/envelope/height': { source: 'measured', on: '2026-10-01' },
    '/head/nozzles/0/diameter': { source: 'measured' },
  },
}

const paths = (card: Card) => redline(mine, card).map(({ path }) => path.join('/'))

test('only what the maker says of the machine differs, and the version', () => {
  expect(paths(besidePattern(second, mine)).sort()).toEqual([
    'envelope/height',
    'head/nozzles/@n1/diameter',
    'head/nozzles/@n1/maxFlow',
    'pattern/version',
  ])
})

test('a fact that both say alike stays known from where its owner knows it', () => {
  const confirmed = besidePattern(first, mine)
  expect(confirmed.sources?.['/envelope/height']).toEqual({ source: 'measured', on: '2026-10-01' })
  expect(paths(confirmed)).toEqual(['head/nozzles/@n1/diameter'])
  // a figure of the maker's that its owner never named a source for is no difference either
  const bare = { ...mine, sources: {} }
  expect(redline(bare, besidePattern(first, bare)).map(({ path }) => path.join('/'))).toEqual(['head/nozzles/@n1/diameter'])
})

test('what its maker changed is told apart from what was changed here', () => {
  const [theirs, ancestor] = [besidePattern(second, mine), besidePattern(first, mine)]
  const by = Object.fromEntries(redline(mine, theirs).map((one) => [one.path.join('/'), changedBy(ancestor, one, mine, theirs)]))
  expect(by).toEqual({
    'envelope/height': 'theirs',
    'head/nozzles/@n1/diameter': 'mine',
    'head/nozzles/@n1/maxFlow': 'theirs',
    'pattern/version': 'theirs',
  })
})

test('all taken is the pattern with what is its owner’s alone; a figure that was taken is assumed again', () => {
  const theirs = besidePattern(second, mine)
  const all = taken(mine, theirs, redline(mine, theirs))
  expect(all).toEqual(theirs)
  expect([all.name, all.tags, all.notes]).toEqual([mine.name, mine.tags, mine.notes])
  expect(all.sources?.['/envelope/height']).toEqual(assumed)
  expect(all.pattern).toEqual({ id: 'works:reed', version: 2 })
})
