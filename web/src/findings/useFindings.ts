import { api, dataOf, sentenceOf, type Card, type Finding } from '../api/client'
import { useAnswer } from '../api/useAnswer'

export interface Looked {
  findings: Finding[]
  /** Why it is not known whether there are others; undefined once the card was looked at as it stands. */
  unlooked?: string
}

/** Findings about a card as it stands now, complete or not. */
export function useFindings(card: Card, about: (finding: Finding) => boolean = () => true): Looked {
  const { data, error, isPlaceholderData } = useAnswer('findings', card, async (body, signal) =>
    dataOf(await api.POST('/api/check', { params: { query: { draft: true } }, body, signal })),
  )
  return { findings: (data?.findings ?? []).filter(about), unlooked: unlookedBy(error, !data || isPlaceholderData) }
}

/** Why something was not looked at yet; undefined where it was. */
export function unlookedBy(error: unknown, pending: boolean): string | undefined {
  if (error) return `Could not be looked at: ${sentenceOf(error)}`
  return pending ? 'Looking …' : undefined
}
