import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type TrialPart } from '../api/client'
import { useTrial } from './TrialContext'

/** How many of a part fit the bed one at a time, and where they stand then. */
export function usePacking(part: TrialPart | undefined) {
  const { trial, card, recipe } = useTrial()
  const { envelope, head, motion } = card.document
  const { limits } = trial.document
  // where the part stands now plays no role
  const { file, turn, tilt, scale, nozzles } = part ?? {}
  const { data } = useQuery({
    queryKey: [
      'packing',
      JSON.stringify([envelope, head, motion, recipe?.document.layers, recipe?.document.skirt, limits, file, turn, tilt, scale, nozzles]),
    ],
    enabled: Boolean(part),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) =>
      dataOf(
        await api.POST('/api/trials/packing', {
          body: { card: { ...card.document, routines: undefined, sources: undefined }, recipe: recipe?.document, part: part!, limits },
          signal,
        }),
      ),
  })
  return data
}
