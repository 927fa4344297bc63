import { useQuery } from '@tanstack/react-query'
import { api, dataOf, type Effect } from '../api/client'

/** What each setting of a recipe tends to move. */
export function useEffects(): Map<string, Effect> | undefined {
  const { data } = useQuery({
    queryKey: ['effects'],
    staleTime: Infinity,
    queryFn: async () => new Map(dataOf(await api.GET('/api/effects')).map((effect) => [effect.pointer, effect])),
  })
  return data
}
