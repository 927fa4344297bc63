import { api, dataOf } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from '../open-card/machine'
import { withEdits } from '../findings/edits'
import { Reasons } from '../findings/Reasons'
import { VerdictMark, verdictWords } from '../findings/VerdictMark'
import { nozzlesInUse, useLoaded } from './nozzlesInUse'
import { useTrial } from './TrialContext'

/** Whether filament and recipe go with this card, and why not. */
export function MatchNote() {
  const { trial, card, filament, recipe } = useTrial('trial', 'card', 'filament', 'recipe')
  const { documents: loaded } = useLoaded()
  const question = {
    card: machineOf(card.document),
    filament: filament?.document,
    recipe: recipe?.document,
    loaded,
    nozzles: nozzlesInUse(trial.document, card.document),
    mode: trial.document.mode ?? undefined,
  }
  const { data: match } = useAnswer('match', (filament ?? recipe) && question, async (body, signal) =>
    dataOf(await api.POST('/api/match', { body, signal })),
  )
  if (!match) return null
  return (
    <section aria-label="Match" className="match-note" data-match={match.verdict}>
      <p className="with-mark">
        <VerdictMark verdict={match.verdict} /> filament and recipe: {verdictWords[match.verdict]}
      </p>
      <Reasons
        reasons={match.reasons}
        onRemedy={recipe && (({ remedy }) => recipe.change((before) => withEdits(before, remedy?.edits ?? [])))}
      />
    </section>
  )
}
