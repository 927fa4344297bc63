import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { Link, useNavigate } from 'react-router'
import { api, dataOf, Refused, sentenceOf, type Card } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { documents } from '../open-document/documents'
import { SeverityMark } from '../findings/SeverityMark'
import { useFindings } from '../findings/useFindings'
import { questions } from './questions'
import { isWithin } from '../open-document/pointer'

/** What follows from the answers: sentences with numbers, what is still open, and the way to a first trial. */
export function Summary({ onAsk }: { onAsk: (question: string) => void }) {
  const { id, document: card } = useCard()
  const { findings, unlooked } = useFindings(card, (finding) => finding.rule !== 'missing-fact')
  const { data, error } = useConsequences(card)
  const go = useNavigate()
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const open = error instanceof Refused ? (error.refusal.errors ?? []) : []

  const start = async () => {
    if (!data) return
    try {
      const [recipe, filament] = [await documents.make('recipes', data.recipe), await documents.make('filaments', data.filament)]
      const trial = await documents.make('trials', {
        schema: 'mill-card/trial/1',
        name: `First trial on ${card.name ?? 'this card'}`,
        card: id,
        filament: filament.id,
        recipe: recipe.id,
        parts: [],
      })
      await client.invalidateQueries({ queryKey: ['list'] })
      await go(`/trials/${trial.id}`)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }

  return (
    <section aria-label="What follows">
      <h2 tabIndex={-1}>What follows from your answers</h2>
      {open.length > 0 && (
        <>
          <p>Before anything can be sliced:</p>
          <ul className="open-list">
            {open.map((missing) => {
              const question = questions.find((q) =>
                q.pointers.some((pointer) => isWithin(pointer, missing.pointer) || isWithin(missing.pointer, pointer)),
              )
              return (
                <li key={missing.pointer}>
                  <SeverityMark severity="stop" /> {missing.message}{' '}
                  <button className="link" onClick={() => onAsk(question?.id ?? 'size')}>
                    answer it
                  </button>
                </li>
              )
            })}
          </ul>
        </>
      )}
      {error && open.length === 0 && <p className="trouble">{sentenceOf(error)}</p>}
      {data && (
        <dl className="follows">
          {data.consequences.map((consequence) => (
            <div key={consequence.title}>
              <dt className="caps">{consequence.title}</dt>
              <dd>{consequence.says}</dd>
            </div>
          ))}
        </dl>
      )}
      {unlooked !== undefined && <p className="quiet">{unlooked}</p>}
      {findings.map((finding, i) => (
        <p key={i} className="short-finding">
          <SeverityMark severity={finding.severity} /> <span>{finding.message}</span>
        </p>
      ))}
      <div className="slice-line">
        <Button variant="contained" disabled={!data} onClick={() => void start()}>
          Open a first trial
        </Button>
        <Button component={Link} to={`/cards/${id}`}>
          To the sheet
        </Button>
        {data && (
          <span className="quiet">
            with {data.filament.name} and a moderate recipe: {data.recipe.layers?.others} mm layers, {data.recipe.lineWidth} mm lines
          </span>
        )}
      </div>
    </section>
  )
}

function useConsequences(card: Card) {
  return useQuery({
    queryKey: ['consequences', JSON.stringify(card)],
    retry: false,
    gcTime: 10_000,
    queryFn: async () => dataOf(await api.POST('/api/consequences', { body: card })),
  })
}
