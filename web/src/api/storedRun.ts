import { queryOptions, type QueryClient } from '@tanstack/react-query'
import { api, dataOf, type StoredRun } from './client'

/** The question for a trial's last run; null where there is none. */
export const runOf = (id: string) =>
  queryOptions({
    queryKey: ['run', id],
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/run', { params: { path: { id } } })) ?? null,
  })

/** Takes a new run in. An answer under way that knows the run before must not take its place. */
export async function takeRun(client: QueryClient, id: string, run: StoredRun) {
  const { queryKey } = runOf(id)
  await client.cancelQueries({ queryKey })
  client.setQueryData(queryKey, run)
}
