import { useQueries, useQueryClient } from '@tanstack/react-query'
import { api, dataOf, type MeshFacts, type TrialPart } from '../api/client'
import { stanceOf } from './placement'

/** The meshes of parts as they stand, by part. */
export function useMeshes(parts: TrialPart[]): (MeshFacts | undefined)[] {
  const client = useQueryClient()
  // until the mesh as it stands now is there, the newest of the same file is drawn, so that a held handle stays in hand
  const newest = (file: string) =>
    client
      .getQueryCache()
      .findAll({ queryKey: ['mesh', file], predicate: (query) => query.state.data !== undefined })
      .sort((a, b) => a.state.dataUpdatedAt - b.state.dataUpdatedAt)
      .at(-1)?.state.data as MeshFacts | undefined
  return useQueries({
    queries: parts.map((part) => {
      const { file } = part
      // all of it, as far as it is sunk into the bed too
      const query = stanceOf(part)
      return {
        queryKey: ['mesh', file, query],
        staleTime: Infinity,
        placeholderData: () => newest(file),
        queryFn: async () => dataOf(await api.GET('/api/meshes/{hash}', { params: { path: { hash: file }, query } })),
      }
    }),
    combine: (answers) => answers.map(({ data }) => data),
  })
}
