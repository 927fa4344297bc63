import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card, type Recipe, type Trial, type TrialOrderAnswer } from '../api/client'

/** What printing one at a time comes to, as the parts stand now; undefined while it is not asked for or not known. */
export function useOrder(card: Card, recipe: Recipe | undefined, trial: Trial, still: boolean): TrialOrderAnswer | undefined {
  const { parts, limits, mode, sequence } = trial
  const asked = sequence === 'one-at-a-time' && (parts?.length ?? 0) > 0
  const { envelope, head, motion, modes } = card
  const { data } = useQuery({
    queryKey: [
      'order',
      JSON.stringify([envelope, head, motion, modes, recipe?.layers, recipe?.skirt, recipe?.lineWidth, parts, limits, mode]),
    ],
    enabled: asked && still,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) =>
      dataOf(
        await api.POST('/api/trials/order', {
          body: { card: { ...card, routines: undefined, sources: undefined }, recipe, parts: parts ?? [], limits, mode },
          signal,
        }),
      ),
  })
  return asked ? data : undefined
}
