import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { api, dataOf, sentenceOf, type Card } from '../api/client'
import { documents } from '../open-document/documents'
import { isObject } from '../open-document/members'
import { nameOf, shown } from '../open-document/names'
import { pointerOf } from '../open-document/pointer'
import { redline, taken, type Difference } from '../open-document/redline'
import { useCard } from '../open-card/CardContext'
import { sourceWords } from '../open-card/SourceMark'
import { useRevisions } from '../open-card/useRevisions'
import { dayOf } from '../units/format'
import { TextSides } from './TextSides'
import { useOther } from './useOther'
import { WhatFollows } from './WhatFollows'
import './redline.css'

/** Headings in the order of the sheet, by the members of a card. */
const headings: Record<string, string> = {
  envelope: 'Envelope',
  head: 'Head',
  motion: 'Motion',
  heat: 'Heat',
  firmware: 'Firmware',
  routines: 'Routines',
  modes: 'Modes',
}
const others = 'The card itself'

const keyOf = ({ path, order }: Difference) => `${path.join('/')}${order ? '#' : ''}`

/** The card's draft side by side with another state or another card: what differs, each of it to be taken over. */
export function RedlineTab() {
  const { id, document: mine, savedAt, change } = useCard()
  const [params, setParams] = useSearchParams()
  const against = params.get('with') ?? ''
  const { other, error } = useOther(id, against, mine)
  const [chosen, choose] = useState<ReadonlySet<string>>(new Set())
  const { enqueueSnackbar } = useSnackbar()
  const differences = other ? redline(mine, other) : []
  const picked = differences.filter((one) => chosen.has(keyOf(one)))
  const groups = [...Object.values(headings), others].map((title) => ({
    title,
    own: differences.filter(({ path }) => (headings[headingOf(path)] ?? others) === title),
  }))
  const pick = (list: readonly Difference[], on: boolean) => {
    const keys = list.map(keyOf)
    choose(new Set(on ? [...chosen, ...keys] : [...chosen].filter((key) => !keys.includes(key))))
  }
  const take = () => {
    if (!other) return
    change((now) => taken(now, other, picked))
    choose(new Set())
    enqueueSnackbar(`${counted(picked.length)} taken over; undo takes that back.`)
  }
  return (
    <main className="redline-page">
      <section aria-label="Redline">
        <div className="head-line between">
          <h2 className="caps">Redline</h2>
          <AgainstWhat
            id={id}
            savedAt={savedAt}
            against={against}
            onAgainst={(to) => {
              choose(new Set())
              setParams(to ? { with: to } : {}, { replace: true })
            }}
          />
        </div>
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        {against === '' && <p className="nothing">Choose what the draft is held against.</p>}
        {against !== '' && !error && !other && <p className="quiet">It is being read …</p>}
        {other && differences.length === 0 && (
          <p className="nothing">Nothing differs: every fact is the same, and comes from the same source.</p>
        )}
        {differences.length > 0 && (
          <p className="redline-keys">
            <span>{counted(differences.length)}</span>
            <button className="link" onClick={() => pick(differences, picked.length < differences.length)}>
              {picked.length < differences.length ? 'choose all' : 'choose none'}
            </button>
            <button className="key" disabled={picked.length === 0} onClick={take}>
              take over {picked.length === 0 ? '…' : picked.length}
            </button>
          </p>
        )}
        {groups.map(
          ({ title, own }) =>
            own.length > 0 && (
              <table key={title} className="list redline-table" aria-label={title}>
                <thead>
                  <tr>
                    <th>
                      <input
                        type="checkbox"
                        aria-label={`all of ${title}`}
                        checked={own.every((one) => chosen.has(keyOf(one)))}
                        onChange={(event) => pick(own, event.target.checked)}
                      />
                    </th>
                    <th>{title}</th>
                    <th>the draft</th>
                    <th>there</th>
                  </tr>
                </thead>
                <tbody>
                  {own.map((one) => (
                    <Row key={keyOf(one)} one={one} both={[mine, other!]} on={chosen.has(keyOf(one))} onPick={(on) => pick([one], on)} />
                  ))}
                </tbody>
              </table>
            ),
        )}
      </section>
      <aside className="margin-column">
        {other && <WhatFollows mine={mine} then={picked.length > 0 ? taken(mine, other, picked) : undefined} />}
      </aside>
    </main>
  )
}

/** Of a source, the heading of its fact. */
const headingOf = (path: readonly string[]) => (path[0] === 'sources' ? (path[1] ?? '').split('/')[1] : path[0]) ?? ''

const counted = (count: number) => (count === 1 ? 'One difference' : `${count} differences`)

type Source = NonNullable<Card['sources']>[string]

/** Where a fact comes from, in a few words. */
const saidSource = (source: Source | undefined) =>
  source ? [sourceWords[source.source ?? 'assumed'], source.note, source.on && dayOf(source.on)].filter(Boolean).join(', ') : 'not said'

interface RowProps {
  one: Difference
  both: readonly [Card, Card]
  on: boolean
  onPick: (on: boolean) => void
}

function Row({ one: { path, order, mine, theirs }, both, on, onPick }: RowProps) {
  const { limits, choices } = useCard()
  const name = order ? `order of ${nameOf(path, both, limits)}` : nameOf(path, both, limits)
  const pointer = pointerOf(path.map((step) => (step.startsWith('@') ? '0' : step)))
  const { unit } = limits(pointer)
  const said = (value: unknown, document: Card) => {
    if (order) return (value as unknown[]).map((one) => (isObject(one) ? String(one.name ?? one.id) : String(one))).join(', ')
    if (path[0] === 'sources') return saidSource(value as Source | undefined)
    const word = typeof value === 'string' ? choices(pointer).find((choice) => choice.value === value)?.label : undefined
    const source = document.sources?.[pointerOf(path)]
    return `${word ?? shown(value, unit)}${source ? ` · ${saidSource(source)}` : ''}`
  }
  const isText = [mine, theirs].some((value) => typeof value === 'string' && value.includes('\n'))
  return (
    <>
      <tr data-difference={pointerOf(path)}>
        <td>
          <input type="checkbox" aria-label={`take ${name}`} checked={on} onChange={(event) => onPick(event.target.checked)} />
        </td>
        <td>{name}</td>
        {!isText && <td className="mono">{said(mine, both[0])}</td>}
        {!isText && <td className="mono">{said(theirs, both[1])}</td>}
        {isText && <td colSpan={2}></td>}
      </tr>
      {isText && (
        <tr>
          <td colSpan={4}>
            <TextSides mine={String(mine ?? '')} theirs={String(theirs ?? '')} />
          </td>
        </tr>
      )}
    </>
  )
}

interface AgainstWhatProps {
  id: string
  savedAt: string
  against: string
  onAgainst: (to: string) => void
}

/** What the draft can be held against: its revisions, other cards, patterns. */
function AgainstWhat({ id, savedAt, against, onAgainst }: AgainstWhatProps) {
  const revisions = useRevisions(id, savedAt)
  const { data: cards } = useQuery({ queryKey: ['list', 'cards'], queryFn: () => documents.list('cards') })
  const { data: patterns } = useQuery({
    queryKey: ['patterns'],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/patterns')),
  })
  return (
    <select className="plain-field" aria-label="Held against" value={against} onChange={(event) => onAgainst(event.target.value)}>
      <option value="">held against …</option>
      <optgroup label="revisions of this card">
        {revisions?.map(({ letter, note }) => (
          <option key={letter} value={`revision.${letter}`}>
            {letter}: {note || 'without a note'}
          </option>
        ))}
      </optgroup>
      <optgroup label="other cards">
        {cards
          ?.filter((card) => card.id !== id)
          .map((card) => (
            <option key={card.id} value={`card.${card.id}`}>
              {card.name || 'card without a name'}
            </option>
          ))}
      </optgroup>
      <optgroup label="patterns">
        {patterns?.map((pattern) => (
          <option key={pattern.id} value={`pattern.${pattern.id}`}>
            {pattern.name}
          </option>
        ))}
      </optgroup>
    </select>
  )
}
