import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { json, send } from '../api/send'
import { answerOf, sentenceOf, type StockRevision } from '../api/client'
import { FixRevision } from '../exchange/FixRevision'
import { StartClean } from '../exchange/StartClean'
import { dayOf } from '../units/format'
import type { DocumentState } from '../open-document/documentStore'
import type { Settable } from './settable'

/** Fixed states of a filament or a recipe, lettered A, B, C …, and the way back to one. */
export function Revisions<T extends Settable>({ state, kind }: { state: DocumentState<T>; kind: 'filaments' | 'recipes' }) {
  const address = `/api/${kind}/${state.id}/revisions`
  const client = useQueryClient()
  const key = ['revisions', kind, state.id, state.savedAt]
  const { data: revisions } = useQuery({
    queryKey: key,
    placeholderData: (before: StockRevision[] | undefined) => before,
    queryFn: async () => answerOf<StockRevision[]>(await send(address)),
  })
  const [problem, setProblem] = useState<string>()
  const act = (does: () => Promise<void>) => {
    setProblem(undefined)
    return does().catch((failure: unknown) => setProblem(sentenceOf(failure)))
  }
  return (
    <section aria-label="Revisions" className="stock-revisions">
      <div className="head-line between">
        <h2 className="caps">Revisions</h2>
        <StartClean
          kind={kind}
          id={state.id}
          name={state.document.name || `the ${kind.slice(0, -1)}`}
          ways={[{ says: `a plain ${kind.slice(0, -1)}: everything as usual`, get: (): T => ({}) as T }]}
          onStart={(clean) => state.change(({ name, schema }) => ({ ...clean, schema, name }))}
        />
      </div>
      <FixRevision
        disabled={state.state !== 'saved'}
        onFix={(note, who) =>
          act(async () => {
            const answer = await send(address, { method: 'POST', ...json({ note, ...(who && { who }) }) })
            client.setQueryData(key, await answerOf<StockRevision[]>(answer))
          })
        }
      />
      {problem && (
        <p className="trouble" role="alert">
          {problem}
        </p>
      )}
      {revisions?.map((revision) => (
        <p key={revision.letter} data-revision={revision.letter}>
          <strong>{revision.letter}</strong> {revision.note || 'without a note'}{' '}
          <span className="quiet">
            {revision.who ? `${revision.who}, ` : ''}
            {dayOf(revision.at)},{' '}
            {revision.changed.length === 0
              ? 'the draft is the same'
              : `the draft differs in ${revision.changed.slice(0, 3).join(', ')}${revision.changed.length > 3 ? ' …' : ''}`}
          </span>{' '}
          <Link to={`/${kind}/${state.id}/redline?with=revision.${revision.letter}`}>redline</Link>{' '}
          {revision.changed.length > 0 && (
            <button
              className="link"
              onClick={() =>
                void act(async () => {
                  const document = await answerOf<T>(await send(`${address}/${revision.letter}`))
                  state.change(() => document)
                })
              }
            >
              go back to it
            </button>
          )}
        </p>
      ))}
    </section>
  )
}
