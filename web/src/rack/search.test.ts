import { expect, it } from 'vitest'
import type { DocumentHead } from '../api/client'
import { distance, matches } from './search'

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
  expect(matches(dunlin, search)).toBe(true),
)
it.each(['kittiwake', '180x200', 'dunlin klipper', 'du1'])('does not find by %s', (search) => expect(matches(dunlin, search)).toBe(false))
it('counts a swap as one edit', () => expect(distance('avocet', 'avcoet')).toBe(1))
