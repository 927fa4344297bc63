import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card } from '../api/client'

/** What is left of the bed, and what the head makes of its keep-outs, as the card stands now. */
export function useRegions(card: Card) {
  const { envelope, head, motion } = card
  const asked = { ...card, envelope, head, motion, routines: undefined, sources: undefined }
  const { data } = useQuery({
    queryKey: ['regions', JSON.stringify([envelope, head, motion])],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/regions', { body: asked, signal })),
  })
  return data ?? { regions: [], usable: [] }
}
