import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card, type ReachAnswer } from '../api/client'

/** What the nozzles of a card reach, as it stands now; undefined until it is known. */
export function useReach(card: Card): ReachAnswer | undefined {
  const { envelope, head, motion, modes } = card
  const { data } = useQuery({
    queryKey: ['reach', JSON.stringify([envelope, head, motion, modes])],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) =>
      dataOf(await api.POST('/api/reach', { body: { ...card, routines: undefined, sources: undefined }, signal })),
  })
  return data
}
