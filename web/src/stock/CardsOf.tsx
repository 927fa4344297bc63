import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { send } from '../api/send'
import { api, answerOf, dataOf, sentenceOf, type CopyAnswer } from '../api/client'
import type { DocumentState } from '../open-document/documentStore'
import { withEdits } from '../findings/edits'
import { Reasons } from '../findings/Reasons'
import type { Settable } from './settable'
import { VerdictMark, verdictWords } from '../findings/VerdictMark'

/** On which cards this can be printed and why not on others; and a copy for one of them. */
export function CardsOf<T extends Settable>({ state, kind }: { state: DocumentState<T>; kind: 'filaments' | 'recipes' }) {
  const { data: cards } = useQuery({
    queryKey: ['matches', kind, state.id, state.savedAt],
    placeholderData: (before: unknown) => before as never,
    queryFn: async () =>
      dataOf(
        kind === 'filaments'
          ? await api.GET('/api/filaments/{id}/matches', { params: { path: { id: state.id } } })
          : await api.GET('/api/recipes/{id}/matches', { params: { path: { id: state.id } } }),
      ),
  })
  const client = useQueryClient()
  const [copied, setCopied] = useState<{ answer: CopyAnswer; card: string }>()
  const [problem, setProblem] = useState<string>()
  const copy = async (card: string, name: string) => {
    try {
      const answer = await answerOf<CopyAnswer>(await send(`/api/${kind}/${state.id}/copies?card=${card}`, { method: 'POST' }))
      await client.invalidateQueries({ queryKey: ['list', kind] })
      setCopied({ answer, card: name })
    } catch (failure) {
      setProblem(sentenceOf(failure))
    }
  }
  return (
    <section className="cards-of" aria-label="Cards">
      <h2 className="caps">On which cards</h2>
      {cards?.map((card) => (
        <div key={card.id} className="card-of" data-match={card.verdict}>
          <div className="head-line between">
            <span className="with-mark">
              <VerdictMark verdict={card.verdict} />
              <Link to={`/cards/${card.id}`}>{card.name}</Link>
              <span className="quiet">{verdictWords[card.verdict]}</span>
            </span>
            <Button size="small" onClick={() => void copy(card.id, card.name)}>
              Copy for it
            </Button>
          </div>
          <Reasons reasons={card.reasons} onRemedy={({ remedy }) => state.change((before) => withEdits(before, remedy?.edits ?? []))} />
        </div>
      ))}
      {problem && (
        <p className="trouble" role="alert">
          {problem}
        </p>
      )}
      {copied && (
        <div className="copied" role="status">
          <p>
            <Link to={`/${kind}/${copied.answer.id}`}>The copy for {copied.card}</Link> is made.{' '}
            {copied.answer.left.length === 0 ? 'Nothing had to be left out.' : 'Left out, as it belongs to the machine it comes from:'}
          </p>
          <ul>
            {copied.answer.left.map((left) => (
              <li key={left.pointer}>{left.message}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  )
}
