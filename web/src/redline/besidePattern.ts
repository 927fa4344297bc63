import type { Card } from '../api/client'
import { same } from '../open-document/members'
import { valueOn } from '../open-document/merge'
import { namedById, namedByPlace } from '../open-document/place'
import { stepsOf } from '../open-document/pointer'

/** What a pattern never speaks of. */
const own = ['name', 'tags', 'notes', 'measureUp', 'line', 'accepted'] as const

/**
 * A pattern as the other side of a card: what is its owner's alone stays as it is, and a fact that both say alike stays known from where
 * its owner knows it.
 */
export function besidePattern(pattern: Card, mine: Card): Card {
  const [theirs, here] = [namedById(pattern), namedById(mine)]
  const alike = (pointer: string) => same(valueOn(theirs, stepsOf(pointer)), valueOn(here, stepsOf(pointer)))
  const sources = {
    ...Object.fromEntries(Object.entries(theirs.sources ?? {}).filter(([pointer]) => !alike(pointer))),
    ...Object.fromEntries(Object.entries(here.sources ?? {}).filter(([pointer]) => alike(pointer))),
  }
  const kept = Object.fromEntries(own.filter((member) => mine[member] !== undefined).map((member) => [member, here[member]]))
  const bare = Object.fromEntries(Object.entries(theirs).filter(([member]) => !own.some((one) => one === member)))
  return namedByPlace({ ...bare, ...kept, sources })
}
