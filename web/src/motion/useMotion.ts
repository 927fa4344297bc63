import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card, type HeaterAnswer, type MotionAnswer } from '../api/client'

const bare = (card: Card): Card => ({ ...card, routines: undefined, sources: undefined })

/** What follows from the drives of a card, as it stands now; undefined until it is known. */
export function useMotion(card: Card | undefined): MotionAnswer | undefined {
  const { data } = useQuery({
    queryKey: ['motion', JSON.stringify([card?.motion, card?.head?.nozzles])],
    enabled: Boolean(card),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/motion', { body: bare(card!), signal })),
  })
  return data
}

/** Where the heaters of a card end and how long they take. */
export function useHeat(card: Card): HeaterAnswer[] | undefined {
  const { data } = useQuery({
    queryKey: ['heaters', JSON.stringify([card.heat, card.head?.nozzles, card.envelope?.heated])],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/heat', { body: bare(card), signal })),
  })
  return data
}
