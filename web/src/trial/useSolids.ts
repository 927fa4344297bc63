import { useQueries } from '@tanstack/react-query'
import { send } from '../api/send'
import type { TrialPart } from '../api/client'
import { readSolid, type Solid } from '../pictorial/solid'

/** The meshes of parts as their files have them, each file once. */
export function useSolids(parts: readonly TrialPart[]): (Solid | undefined)[] {
  const files = [...new Set(parts.map((part) => part.file))]
  const known = useQueries({
    queries: files.map((file) => ({
      queryKey: ['solid', file],
      staleTime: Infinity,
      queryFn: async () => readSolid(await (await send(`/api/meshes/${file}/solid`)).arrayBuffer()),
    })),
    combine: (answers) => answers.map(({ data }) => data),
  })
  return parts.map((part) => known[files.indexOf(part.file)])
}
