import { api, dataOf, type Card } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from './machine'

/** What is left of the bed, and what the head makes of its keep-outs, as the card stands now. */
export function useRegions(card: Card) {
  const { data } = useAnswer('regions', machineOf(card), async (body, signal) => dataOf(await api.POST('/api/regions', { body, signal })))
  return data ?? { regions: [], usable: [] }
}
