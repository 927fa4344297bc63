import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, dataOf } from '../api/client'
import { VerdictMark, verdictWords } from '../settings/VerdictMark'
import { useTrial } from './TrialContext'

/** Whether filament and recipe go with this card, and why not. */
export function MatchNote() {
  const { card, filament, recipe } = useTrial()
  const body = {
    card: { ...card.document, routines: undefined, sources: undefined },
    filament: filament?.document,
    recipe: recipe?.document,
  }
  const { data: match } = useQuery({
    queryKey: ['match', JSON.stringify(body)],
    enabled: Boolean(filament ?? recipe),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/match', { body, signal })),
  })
  if (!match) return null
  return (
    <section aria-label="Match" className="match-note" data-match={match.verdict}>
      <p className="with-mark">
        <VerdictMark verdict={match.verdict} /> filament and recipe: {verdictWords[match.verdict]}
      </p>
      {match.reasons.map((reason) => (
        <p key={reason.message} className={reason.verdict === 'does-not-fit' ? 'reason no' : 'reason'}>
          {reason.message}
        </p>
      ))}
    </section>
  )
}
