import { useQueries, useQuery } from '@tanstack/react-query'
import { api, dataOf, type StoredRun, type RunLine } from './client'

const pageSize = 200

const page = (id: string, run: StoredRun | undefined, index: number) => ({
  queryKey: ['lines', id, run?.at, index],
  enabled: run !== undefined,
  staleTime: Infinity,
  gcTime: 60_000,
  queryFn: async () =>
    dataOf(
      await api.GET('/api/trials/{id}/run/lines', { params: { path: { id }, query: { from: index * pageSize + 1, count: pageSize } } }),
    ),
})

/** Lines of a run between two, both counted from 1, as they arrive. */
export function useLines(id: string, run: StoredRun | undefined, first: number, last: number): Map<number, RunLine> {
  const from = Math.floor((first - 1) / pageSize)
  const to = Math.floor((last - 1) / pageSize)
  return useQueries({
    queries: Array.from({ length: to - from + 1 }, (_, i) => page(id, run, from + i)),
    combine: (pages) => new Map(pages.flatMap(({ data }) => data ?? []).map((line) => [line.line, line])),
  })
}

/** One line of a run. */
export function useLine(id: string, run: StoredRun | undefined, number: number): RunLine | undefined {
  const { data } = useQuery(page(id, run, Math.floor((number - 1) / pageSize)))
  return data?.find((line) => line.line === number)
}
