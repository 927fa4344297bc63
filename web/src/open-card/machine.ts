import type { Card } from '../api/client'

/** What computations need of a card: all but what its owner writes beside the facts. */
export const machineOf = (card: Card): Card => ({
  ...card,
  notes: undefined,
  measureUp: undefined,
  routines: undefined,
  sources: undefined,
  accepted: undefined,
  line: undefined,
})
