import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card } from '../api/client'

/** The routines of a card as they stand now, run with an imagined part. */
export function useRoutinePreview(card: Card, layer: number) {
  return useQuery({
    queryKey: ['routine-preview', JSON.stringify(card), layer],
    placeholderData: keepPreviousData,
    gcTime: 10_000,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/routines/preview', { body: { card, layer }, signal })),
  })
}

/** The macros of a macro file, or the files that a text of command files holds. */
export function useMacros(text: string | null | undefined, files = false) {
  const { data } = useQuery({
    queryKey: ['macros', text, files],
    enabled: Boolean(text),
    staleTime: Infinity,
    queryFn: async () =>
      dataOf(
        await api.POST('/api/routines/macros', {
          params: { query: { files } },
          body: text!,
          bodySerializer: (body: string) => body,
          headers: { 'content-type': 'text/plain' },
        }),
      ),
  })
  return text ? (data ?? []) : []
}
