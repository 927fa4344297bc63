import { Button } from '@mui/material'
import { useEffect, useRef } from 'react'
import { useNavigate, useParams } from 'react-router'
import { api, dataOf, type Card } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { FactField } from '../open-card/FactField'
import { asAsked, pointersOf, type Fact, type FactGroup } from '../open-card/facts'
import { SheetDrawing } from '../open-card/SheetDrawing'
import { SourceMark } from '../open-card/SourceMark'
import { known } from '../open-card/sources'
import { valueAt } from '../open-document/pointer'
import { questions, type Question } from './questions'
import { Summary } from './Summary'
import './measure-up.css'

const isThere = (value: unknown) => value !== undefined && value !== null && value !== ''

/** The interview: one question at a time, the answer on the drawing at once. It can be left at any question and gone on with later. */
export function MeasureUpTab() {
  const { id, document: card, facts: groups, change } = useCard()
  const { '*': path = '' } = useParams()
  const go = useNavigate()
  const asked = path.split('/')[0] || card.measureUp?.at || questions[0]!.id
  const index = questions.findIndex((question) => question.id === asked)
  const question = questions[index]
  const to = (next: string) => {
    change((before) => ({
      ...before,
      measureUp: { ...before.measureUp, at: next, done: next === 'summary' || (before.measureUp?.done ?? false) },
    }))
    void go(`/cards/${id}/measure-up/${next}`)
  }
  const next = questions[index + 1]?.id ?? 'summary'
  // the keyboard goes on with the question; on the first look it stays where it is
  const ask = useRef<HTMLDivElement>(null)
  const seen = useRef(asked)
  useEffect(() => {
    if (seen.current === asked) return
    seen.current = asked
    const first = ask.current?.querySelector<HTMLElement>('.answer :is(input, select, textarea), .plain-routines button, section h2')
    first?.focus()
  }, [asked])

  return (
    <main className="measure-up">
      <nav className="steps" aria-label="Questions">
        <ol>
          {questions.map((step, i) => (
            <li key={step.id}>
              <button className="link plain" aria-current={step.id === asked ? 'step' : undefined} onClick={() => to(step.id)}>
                <span className="mono">{i + 1}</span> {step.id} <span className="quiet">{answered(askedOf(step, groups, card), card)}</span>
              </button>
            </li>
          ))}
          <li>
            <button className="link plain" aria-current={asked === 'summary' ? 'step' : undefined} onClick={() => to('summary')}>
              <span className="mono">=</span> what follows
            </button>
          </li>
        </ol>
      </nav>
      <div className="ask" ref={ask}>
        {question ? (
          <form
            key={question.id}
            onSubmit={(event) => {
              event.preventDefault()
              to(next)
            }}
          >
            <p className="quiet">
              question {index + 1} of {questions.length}
            </p>
            <h2>{question.title}</h2>
            <p className="where">{question.where}</p>
            {index === 0 && <NameField />}
            {question.id === 'routines' ? <PlainRoutines /> : <Answers question={question} />}
            <div className="slice-line">
              <Button disabled={index === 0} onClick={() => to(questions[index - 1]!.id)}>
                Back
              </Button>
              <Button type="submit" variant="contained">
                {index === questions.length - 1 ? 'See what follows' : 'Next'}
              </Button>
              <span className="quiet">what you do not know can stay open; it is asked for on the sheet</span>
            </div>
          </form>
        ) : (
          <Summary onAsk={to} />
        )}
      </div>
      <SheetDrawing />
    </main>
  )
}

/** The facts that a question asks of this card. */
const askedOf = ({ pointers }: Question, groups: FactGroup[], card: Card): Fact[] =>
  pointers
    .map((pointer) => groups.flatMap((group) => group.facts).find((fact) => fact.pointer === pointer))
    .filter((fact): fact is Fact => fact !== undefined && (fact.when?.(card) ?? true))

function answered(facts: Fact[], card: Card): string {
  const missing = facts.filter(({ pointer, needed }) => needed && !isThere(valueAt(card, pointer))).length
  return missing > 0 ? `${missing} open` : ''
}

function NameField() {
  const { document: card, set } = useCard()
  return (
    <label className="answer">
      <span>name of the machine</span>
      <input
        className="plain-field"
        value={card.name ?? ''}
        maxLength={120}
        placeholder="what you call it"
        onChange={(event) => set('/name', event.target.value || undefined)}
      />
      <span />
    </label>
  )
}

function Answers({ question }: { question: Question }) {
  const { document: card, facts: groups, change } = useCard()
  const facts = askedOf(question, groups, card).map((fact) => asAsked(fact, card))
  const assumed = facts.filter((fact) => isThere(valueAt(card, fact.pointer)) && card.sources?.[fact.pointer]?.source === 'assumed')
  return (
    <>
      {facts.map((fact) => (
        <div key={fact.pointer} className="answer" data-pointer={fact.pointer}>
          <span>
            {fact.letter && <span className="letter">{fact.letter} </span>}
            {fact.label}
            {fact.hint && <span className="quiet hint">{fact.hint}</span>}
          </span>
          <FactField fact={fact} knownBy={question.knownBy} />
          <SourceMark pointer={fact.pointer} />
        </div>
      ))}
      {assumed.length > 0 && (
        <p>
          <Button
            onClick={() =>
              change((before) =>
                known(
                  before,
                  assumed.flatMap((fact) => pointersOf(fact, before)),
                  question.knownBy,
                ),
              )
            }
          >
            {assumed.length === 1 ? 'The assumed figure is right' : `The ${assumed.length} assumed figures are right`}
          </Button>
        </p>
      )}
    </>
  )
}

function PlainRoutines() {
  const { document: card, change } = useCard()
  const write = async () => {
    const plain = dataOf(await api.POST('/api/plain-routines', { body: card }))
    change((before) => ({ ...before, routines: { ...before.routines, ...plain } }))
  }
  return (
    <div className="plain-routines">
      {(['start', 'end'] as const).map((name) => (
        <div key={name}>
          <span className="quiet">{name}</span>
          <pre>{card.routines?.[name] || 'not written yet'}</pre>
        </div>
      ))}
      <Button onClick={() => void write()}>{card.routines?.start ? 'Write them anew' : 'Write a plain start and end'}</Button>
    </div>
  )
}
