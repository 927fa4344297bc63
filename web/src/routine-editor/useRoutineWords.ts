import { useQuery } from '@tanstack/react-query'
import { api, dataOf } from '../api/client'

/** What names stand for, in words. */
export function useRoutineNames() {
  const { data } = useQuery({
    queryKey: ['routine-names'],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/routine-names')),
  })
  return data ?? {}
}

/** The dialects with their commands. */
export function useFlavours() {
  const { data } = useQuery({ queryKey: ['flavours'], staleTime: Infinity, queryFn: async () => dataOf(await api.GET('/api/flavours')) })
  return data ?? []
}
