import { expect, it } from 'vitest'
import type { DocumentHead } from '../api/client'
import type { Word } from '../open-document/description'
import { distance, found, matches } from './search'

/** What the server calls choices, as far as these machines have any. */
const words: Word = (_, value) => value?.replace('-', ' ')

const dunlin = {
  id: '1',
  name: 'Dunlin',
  version: 1,
  savedAt: '',
  card: {
    bed: { shape: 'rectangle', width: 180, depth: 160 },
    height: 170,
    keepOuts: [],
    nozzles: [{ diameter: 0.4, material: 'brass' }],
    flavour: 'marlin',
  },
} as unknown as DocumentHead

it.each(['', 'dun', 'dunln', 'dulnin', 'DUNLIN', 'brass', 'marlin dunlin', '180x160', '180×160x170', '180'])('finds by %s', (search) =>
  expect(matches(dunlin, search, words)).toBe(true),
)
it.each(['kittiwake', '180x200', 'dunlin klipper', 'du1'])('does not find by %s', (search) =>
  expect(matches(dunlin, search, words)).toBe(false),
)
it('counts a swap as one edit', () => expect(distance('avocet', 'avcoet')).toBe(1))

const bed = (width: number) => ({ ...dunlin.card!, bed: { shape: 'rectangle' as const, width, depth: 150 } })

it('puts a card of that name before beds of that size', () => {
  const cards = [
    { name: 'bulk 7', card: bed(122) },
    { name: 'bulk 8', card: bed(123) },
    { name: 'bulk 123', card: bed(300) },
    { name: 'other 123', card: bed(300) },
  ]
  expect(found(cards, 'bulk 123', words).map(({ name }) => name)).toEqual(['bulk 123', 'bulk 7', 'bulk 8'])
  expect(found(cards, '', words)).toHaveLength(4)
})

it.each(['crossed', 'crosed belts', 'four tools', 'tool chnager', 'closed', '320x300'])('finds a pattern by %s', (search) =>
  expect(
    matches(
      {
        name: 'Tool changer, four tools',
        about: 'Four tools parked at the back.',
        card: { ...dunlin.card!, bed: { shape: 'rectangle', width: 320, depth: 300 }, layout: 'crossed-belts', housing: 'closed' },
      },
      search,
      words,
    ),
  ).toBe(true),
)
