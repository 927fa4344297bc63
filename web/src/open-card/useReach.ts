import { api, dataOf, type Card, type ReachAnswer } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from './machine'

/** What the nozzles of a card reach, as it stands now; undefined until it is known. */
export const useReach = (card: Card): ReachAnswer | undefined =>
  useAnswer('reach', machineOf(card), async (body, signal) => dataOf(await api.POST('/api/reach', { body, signal }))).data
