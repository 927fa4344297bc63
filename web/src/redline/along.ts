import type { Difference } from '../open-document/redline'
import type { Against } from './useOther'

/** Whether a card is held against a pattern. */
export const isOfPattern = (against: Against) => against.split('.')[0] === 'pattern'

/**
 * What is taken over where some differences are picked. Who has looked at a version of a pattern and taken what is wanted of it has done
 * with it: the card remembers that version along with whatever is taken.
 */
export function withAlong(against: Against, picked: readonly Difference[], differences: readonly Difference[]): readonly Difference[] {
  if (picked.length === 0 || !isOfPattern(against)) return picked
  return [...new Set([...picked, ...differences.filter(({ path }) => path[0] === 'pattern')])]
}
