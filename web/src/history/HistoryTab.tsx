import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link } from 'react-router'
import { bytes, send } from '../api/send'
import { api, answerOf, dataOf, sentenceOf, type Card, type PrintRecord, type Revision } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { dayOf, momentOf, plain } from '../units/format'
import { useFactNames } from '../open-card/useFactNames'
import { useRevisions } from '../open-card/useRevisions'
import { useSettings } from '../open-document/description'
import { pointerOf, stepsOf } from '../open-document/pointer'
import { NumberField } from '../units/NumberField'
import { FixRevision } from '../exchange/FixRevision'
import { OnPaper } from '../exchange/OnPaper'
import { StartClean } from '../exchange/StartClean'
import { blankCard } from '../open-card/facts'
import { cardOfPattern } from '../open-card/patterns'
import { Changes } from './Changes'
import './history.css'

/** Revisions of the card with their stamps, and how real prints came out. */
export function HistoryTab() {
  const { id, document: card, savedAt, change } = useCard()
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const path = { params: { path: { id } } }
  const revisions = useRevisions(id, savedAt)
  const { data: trials } = useQuery({
    queryKey: ['list', 'trials', id],
    queryFn: async () => dataOf(await api.GET('/api/trials', { params: { query: { card: id } } })),
  })
  const names = useFactNames()
  async function act(does: () => Promise<void>) {
    try {
      await does()
    } catch (problem) {
      enqueueSnackbar(sentenceOf(problem), { variant: 'error', persist: true })
    }
  }
  const show = (list: Revision[]) => client.setQueryData(['revisions', id, savedAt], list)
  return (
    <main className="history">
      <section aria-label="Revisions">
        <div className="head-line between">
          <h2 className="caps">Revisions</h2>
          <StartClean
            kind="cards"
            id={id}
            name={card.name || 'the card'}
            ways={[
              ...(card.pattern
                ? [{ says: 'the pattern that it was made from, every figure unconfirmed', get: () => cardOfPattern(card.pattern!.id) }]
                : []),
              { says: 'a plain card: nothing is known of the machine', get: () => blankCard },
            ]}
            onStart={(clean) => change(({ name }) => ({ ...clean, name }))}
          />
        </div>
        <FixRevision
          onFix={(note, who) =>
            act(async () => {
              show(dataOf(await api.POST('/api/cards/{id}/revisions', { ...path, body: { note, ...(who && { who }) } })))
            })
          }
        />
        {revisions?.length === 0 && <p className="nothing">There is no revision yet: the card is a draft.</p>}
        {revisions?.map((revision, i) => (
          <article key={revision.letter} className="revision" data-revision={revision.letter}>
            <strong className="letter">{revision.letter}</strong>
            <div>
              <p>{revision.note || 'without a note'}</p>
              <p className="quiet">
                {revision.who ? `${revision.who}, ` : ''}
                {momentOf(revision.at)} ·{' '}
                {revision.changed.length === 0
                  ? 'the draft is the same'
                  : `the draft differs in ${revision.changed.length === 1 ? 'one fact' : `${revision.changed.length} facts`}: ` +
                    `${namesOf(revision.changed.slice(0, 3), names.ofCard)}${revision.changed.length > 3 ? ' …' : ''}`}
              </p>
              <Changes id={id} letter={revision.letter} before={revisions[i + 1]?.letter} />
              <Stamp revision={revision} />
              <PrintsOf id={id} letter={revision.letter} />
              <p className="keys">
                <button
                  className="link"
                  disabled={revision.changed.length === 0}
                  onClick={() =>
                    void act(async () => {
                      const document = dataOf(
                        await api.GET('/api/cards/{id}/revisions/{letter}', { params: { path: { id, letter: revision.letter } } }),
                      )
                      change(() => document)
                      enqueueSnackbar(`The draft is revision ${revision.letter} again; undo takes that back.`)
                    })
                  }
                >
                  go back to it
                </button>{' '}
                <Link to={`/cards/${id}/redline?with=revision.${revision.letter}`}>redline</Link>{' '}
                {revisions[i + 1] && (
                  <>
                    <Link to={`/cards/${id}/redline?of=revision.${revision.letter}&with=revision.${revisions[i + 1]!.letter}`}>
                      beside {revisions[i + 1]!.letter}
                    </Link>{' '}
                  </>
                )}
                <OnPaper of={`/api/cards/${id}`} revision={revision.letter} />{' '}
                <StampWith
                  trials={trials ?? []}
                  onStamp={(trial) =>
                    void act(async () => {
                      show(
                        dataOf(
                          await api.POST('/api/cards/{id}/revisions/{letter}/proof', {
                            params: { path: { id, letter: revision.letter } },
                            body: { trial },
                          }),
                        ),
                      )
                    })
                  }
                />
              </p>
            </div>
          </article>
        ))}
      </section>
      <Prints id={id} revisions={revisions ?? []} />
    </main>
  )
}

/** The prints that were made with a revision, by how they came out. */
function PrintsOf({ id, letter }: { id: string; letter: string }) {
  const { data } = useQuery({
    queryKey: ['prints', id],
    queryFn: async () => dataOf(await api.GET('/api/cards/{id}/prints', { params: { path: { id } } })),
  })
  const own = data?.prints.filter(({ record }) => record.revision === letter) ?? []
  if (own.length === 0) return null
  return (
    <p className="quiet">printed: {own.map(({ record }) => outcomes.find(({ value }) => value === record.outcome)?.title).join(', ')}</p>
  )
}

/** Names of what pointers lead to, each once. */
const namesOf = (pointers: string[], name: (pointer: string) => string) => [...new Set(pointers.map(name))].join(', ')

function Stamp({ revision }: { revision: Revision }) {
  const { proof } = revision
  const names = useFactNames()
  if (!proof) return null
  return proof.lapsed.length === 0 ? (
    <p className="stamp" data-stamp="holds">
      proved with {proof.trial}, {dayOf(proof.at)}
    </p>
  ) : (
    <p className="stamp lapsed" data-stamp="lapsed">
      the stamp of {dayOf(proof.at)} has lapsed: {namesOf(proof.lapsed.slice(0, 4), names.ofAny)}
      {proof.lapsed.length > 4 ? ` and ${proof.lapsed.length - 4} more` : ''} changed
    </p>
  )
}

function StampWith({ trials, onStamp }: { trials: { id: string; name: string }[]; onStamp: (trial: string) => void }) {
  return (
    <select
      className="plain-field"
      aria-label="stamp with a trial"
      value=""
      onChange={(event) => event.target.value && onStamp(event.target.value)}
    >
      <option value="">stamp with a trial …</option>
      {trials.map((trial) => (
        <option key={trial.id} value={trial.id}>
          {trial.name || 'trial without a name'}
        </option>
      ))}
    </select>
  )
}

const outcomes = [
  { value: 'good', title: 'good' },
  { value: 'flawed', title: 'usable, with a flaw' },
  { value: 'failed', title: 'failed' },
] as const

/** Of a place, which is measured rather than tried. */
const isCoordinate = /\/[xyz]$/

/** A fact of the first nozzle stands for the same of every nozzle; other lists have no value that is tried. */
function placesOf(pointer: string, card: Card): string[] {
  const steps = stepsOf(pointer)
  if (steps[1] === 'nozzles') return (card.head?.nozzles ?? []).map((_, i) => pointerOf(steps.with(2, String(i))))
  return steps.includes('0') ? [] : [pointer]
}

function Prints({ id, revisions }: { id: string; revisions: Revision[] }) {
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const { document: card, set } = useCard()
  const names = useFactNames()
  const facts = useSettings('card')
    .filter(({ kind, pointer }) => kind === 'number' && !isCoordinate.test(pointer))
    .flatMap((fact) => placesOf(fact.pointer, card).map((pointer) => ({ ...fact, pointer })))
  const path = { params: { path: { id } } }
  const { data } = useQuery({ queryKey: ['prints', id], queryFn: async () => dataOf(await api.GET('/api/cards/{id}/prints', path)) })
  const [record, setRecord] = useState<PrintRecord>({ outcome: 'good' })
  const [tried, setTried] = useState('')
  const [value, setValue] = useState<number>()
  const [picture, setPicture] = useState<File>()

  async function note() {
    try {
      if (tried && value === undefined) throw new Error(`What was tried as ${names.ofCard(tried)} is not said.`)
      const values = tried && value !== undefined ? [{ pointer: tried, value }] : []
      const answer = dataOf(await api.POST('/api/cards/{id}/prints', { ...path, body: { ...record, tried: values } }))
      const [newest] = answer.prints
      if (picture && newest)
        await answerOf(await send(`/api/cards/${id}/prints/${newest.id}/picture`, { method: 'PUT', ...bytes(picture) }))
      setRecord({ outcome: 'good', revision: record.revision })
      setTried('')
      setValue(undefined)
      setPicture(undefined)
      await client.invalidateQueries({ queryKey: ['prints', id] })
    } catch (problem) {
      enqueueSnackbar(sentenceOf(problem), { variant: 'error', persist: true })
    }
  }

  return (
    <section aria-label="Prints">
      <h2 className="caps">Real prints</h2>
      <form
        className="note-print"
        onSubmit={(event) => {
          event.preventDefault()
          void note()
        }}
      >
        <select
          className="plain-field"
          aria-label="outcome"
          value={record.outcome ?? 'good'}
          onChange={(event) => setRecord({ ...record, outcome: event.target.value as 'good' })}
        >
          {outcomes.map(({ value, title }) => (
            <option key={value} value={value}>
              {title}
            </option>
          ))}
        </select>
        <select
          className="plain-field"
          aria-label="revision"
          value={record.revision ?? ''}
          onChange={(event) => setRecord({ ...record, revision: event.target.value || undefined })}
        >
          <option value="">draft</option>
          {revisions.map(({ letter }) => (
            <option key={letter} value={letter}>
              revision {letter}
            </option>
          ))}
        </select>
        <input
          className="plain-field wide"
          aria-label="how it came out"
          placeholder="one line: what was seen, what was changed"
          maxLength={500}
          value={record.line ?? ''}
          onChange={(event) => setRecord({ ...record, line: event.target.value })}
        />
        <select className="plain-field" aria-label="tried fact" value={tried} onChange={(event) => setTried(event.target.value)}>
          <option value="">no value was tried</option>
          {[...new Set(facts.map(({ group }) => group))].map((group) => (
            <optgroup key={group} label={group}>
              {facts
                .filter((fact) => fact.group === group)
                .map(({ pointer, limits }) => (
                  <option key={pointer} value={pointer}>
                    {names.ofCard(pointer)}
                    {limits.unit ? `, ${limits.unit}` : ''}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
        {tried && (
          <NumberField
            value={value}
            label="tried value"
            limits={facts.find(({ pointer }) => pointer === tried)?.limits ?? {}}
            onChange={setValue}
          />
        )}
        <label className="link">
          {picture ? picture.name : 'add a picture'}
          <input type="file" hidden accept="image/png,image/jpeg,image/webp" onChange={(event) => setPicture(event.target.files?.[0])} />
        </label>
        <button className="key">Note it</button>
      </form>
      {data?.open.map((fact) => (
        <p key={fact.pointer} className="open-values" data-open={fact.pointer}>
          Open for {names.ofCard(fact.pointer)}:{' '}
          {fact.values.map((value, i) => (
            <button key={value.value} className="link" onClick={() => set(fact.pointer, value.value)}>
              {plain(value.value)}
              {i === 0 && fact.values.length > 1 ? ' (safest)' : ''}
            </button>
          ))}
        </p>
      ))}
      {data?.prints.length === 0 && <p className="nothing">No print is noted yet.</p>}
      {data?.prints.map((print) => (
        <article key={print.id} className={`print ${print.record.outcome}`} data-print={print.record.outcome}>
          {print.picture && <img src={`/api/cards/${id}/prints/${print.id}/picture`} alt="" />}
          <div>
            <p>{print.record.line || outcomes.find((one) => one.value === print.record.outcome)?.title}</p>
            <p className="quiet">
              {outcomes.find((one) => one.value === print.record.outcome)?.title} ·{' '}
              {print.record.revision ? `revision ${print.record.revision}` : 'draft'} · {momentOf(print.at)}
              {print.record.tried?.map((value) => ` · ${names.ofCard(value.pointer)} ${plain(value.value)}`)}{' '}
              <button
                className="link"
                onClick={() =>
                  void api
                    .DELETE('/api/cards/{id}/prints/{print}', { params: { path: { id, print: print.id } } })
                    .then(() => client.invalidateQueries({ queryKey: ['prints', id] }))
                }
              >
                strike out
              </button>
            </p>
          </div>
        </article>
      ))}
    </section>
  )
}
