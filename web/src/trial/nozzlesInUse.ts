import { useQueries } from '@tanstack/react-query'
import type { Card, Filament, Trial } from '../api/client'
import { documents } from '../open-document/documents'
import { useTrial } from './TrialContext'

const both = (trial: Trial) => trial.mode?.kind === 'copy' || trial.mode?.kind === 'mirror'

/** Ids of the nozzles that print something: those of the parts, and the second one in copy and mirror. */
export function nozzlesInUse(trial: Trial, card: Card): string[] {
  const ids = (card.head?.nozzles ?? []).map((nozzle) => nozzle.id)
  const asked = (trial.parts ?? []).map((part) => part.nozzles?.[0] ?? ids[0])
  const used = ids.filter((id, i) => asked.includes(id) || (both(trial) && i < 2))
  return used.length > 0 ? used : ids.slice(0, 1)
}

/** What a nozzle prints, in words. */
export function printedBy(trial: Trial, card: Card, nozzle: string): string {
  const ids = (card.head?.nozzles ?? []).map(({ id }) => id)
  if (both(trial) && nozzle === ids[1]) return trial.mode?.kind === 'copy' ? 'the copy' : 'the mirror image'
  const names = (trial.parts ?? []).filter((part) => (part.nozzles?.[0] ?? ids[0]) === nozzle).map((part) => part.name)
  if (names.length === 0) return 'nothing'
  return names.length > 3 ? `${names.length} parts` : names.join(', ')
}

/** Which filament's document is named for each nozzle, and the documents that are here. */
export function useLoaded(): { ids: Record<string, string>; documents: Record<string, Filament> } {
  const { asked, card } = useTrial('asked', 'card')
  const { filament, secondFilament, loaded } = asked
  const nozzles = card.document.head?.nozzles ?? []
  const ids: Record<string, string> = Object.fromEntries(
    nozzles
      .map(({ id }, i) => [id, loaded?.[id] ?? [filament, secondFilament][i]] as const)
      .filter((entry): entry is readonly [string, string] => Boolean(entry[1])),
  )
  const found = useQueries({
    queries: Object.values(ids).map((id) => ({ queryKey: ['read', 'filaments', id], queryFn: () => documents.read('filaments', id) })),
    combine: (answers) => answers.map(({ data }) => data?.document),
  })
  const held: Record<string, Filament> = {}
  Object.keys(ids).forEach((id, i) => {
    const document = found[i]
    if (document && i > 0) held[id] = document
  })
  return { ids, documents: held }
}
