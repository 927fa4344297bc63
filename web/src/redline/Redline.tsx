import { useSnackbar } from 'notistack'
import { lazy, Suspense, useState, type ReactNode } from 'react'
import { sentenceOf, type Card } from '../api/client'
import { documents, type Kind } from '../open-document/documents'
import type { SetAside } from '../open-document/documentStore'
import { isObject } from '../open-document/members'
import { nameOf, shown } from '../open-document/names'
import { fieldPointer, pointerOf } from '../open-document/pointer'
import { changedBy, redline, taken, type Difference } from '../open-document/redline'
import { sourceWords } from '../open-card/SourceMark'
import type { Choice } from '../open-card/words'
import { useAddress } from '../shell/useAddress'
import { dayOf } from '../units/format'
import type { Limits } from '../units/limits'
import { isOfPattern, withAlong } from './along'
import { States } from './States'
import { useOther } from './useOther'
import './redline.css'

const TextSides = lazy(() => import('./TextSides'))

interface RedlineProps<T extends object> {
  kind: Kind
  id: string
  /** The draft. */
  mine: T
  savedAt: string
  /** Whether the draft holds what the database does not. */
  clashes: boolean
  setAside: readonly SetAside[]
  change: (edit: (document: T) => T) => void
  limits: (pointer: string) => Limits
  choices: (pointer: string) => Choice[]
  /** The heading under which a value stands; the last of the headings where none does. */
  headingOf: (path: readonly string[]) => string | undefined
  headings: string[]
  /** What is told beside the differences. */
  beside?: (sides: { left: T; right: T; then: T | undefined; drawable: boolean }) => ReactNode
}

const keyOf = ({ path, order }: Difference) => `${path.join('/')}${order ? '#' : ''}`

const byWords = { mine: 'here', theirs: 'there', both: 'both', neither: 'neither' } as const

/** Two states side by side: what differs, each of it to be taken over where one of them is the draft. */
export function Redline<T extends object>(props: RedlineProps<T>) {
  const { kind, id, mine, savedAt, clashes, setAside, change, limits, choices, headingOf, headings, beside } = props
  const [params, show] = useAddress()
  const [against, of, since, only] = ['with', 'of', 'since', 'only'].map((name) => params.get(name) ?? '') as [
    string,
    string,
    string,
    string,
  ]
  const whose = { kind, id, mine, setAside }
  const right = useOther(whose, against)
  const left = useOther(whose, of)
  const past = useOther(whose, since)
  const ancestor = since === '' ? right.base : past.other
  const [chosen, choose] = useState<ReadonlySet<string>>(new Set())
  const { enqueueSnackbar } = useSnackbar()
  const error = right.error ?? left.error ?? past.error
  const [one, other] = [left.other, against === '' ? undefined : right.other]
  const differences = one && other ? redline(one, other) : []
  const canTake = of === ''
  const picked = canTake ? differences.filter((one) => chosen.has(keyOf(one))) : []
  const shown =
    only !== '' && ancestor !== undefined
      ? differences.filter((difference) => changedBy(ancestor, difference, one, other) !== 'mine')
      : differences
  const groups = headings.map((title) => ({
    title,
    own: shown.filter(({ path }) => (headingOf(path) ?? headings.at(-1)) === title),
  }))
  const pick = (list: readonly Difference[], on: boolean) => {
    const keys = list.map(keyOf)
    choose(new Set(on ? [...chosen, ...keys] : [...chosen].filter((key) => !keys.includes(key))))
  }
  const took = withAlong(against, picked, differences)
  const [asking, ask] = useState(false)
  const take = async () => {
    if (!other) return
    if (!right.holds) {
      ask(true)
      try {
        await documents.holds(kind, taken<T>(mine, other, took))
      } catch (failure) {
        enqueueSnackbar(`It is not taken: ${sentenceOf(failure)}`, { variant: 'error' })
        return
      } finally {
        ask(false)
      }
    }
    change((now) => taken<T>(now, other, took))
    choose(new Set())
    enqueueSnackbar(`${counted(picked.length)} taken over; undo takes that back.`)
  }
  const look = (name: 'with' | 'of' | 'since' | 'only', to: string) => {
    choose(new Set())
    show({ [name]: to })
  }
  const states = { kind, id, savedAt, clashes, setAside }
  const sides = [canTake ? 'the draft' : 'on the left', 'there'] as const
  return (
    <main className="redline-page">
      <section aria-label="Redline">
        <div className="head-line between">
          <h2 className="caps">Redline</h2>
          <span className="redline-states">
            <States {...states} label="On the left" none="the draft" value={of} onChange={(to) => look('of', to)} />
            <States {...states} label="Held against" none="held against …" value={against} onChange={(to) => look('with', to)} />
            <States {...states} label="Changed since" none="changed since …" value={since} onChange={(to) => look('since', to)} />
          </span>
        </div>
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        {against === '' && <p className="nothing">Choose what it is held against.</p>}
        {against !== '' && !error && (!one || !other) && <p className="quiet">It is being read …</p>}
        {one && other && differences.length === 0 && (
          <p className="nothing">Nothing differs: every fact is the same, and comes from the same source.</p>
        )}
        {differences.length > 0 && (
          <p className="redline-keys">
            <span>{counted(differences.length)}</span>
            {canTake && (
              <>
                <button className="link" onClick={() => pick(shown, picked.length < shown.length)}>
                  {picked.length < shown.length ? 'choose all' : 'choose none'}
                </button>
                {ancestor !== undefined && (
                  <button className="link" onClick={() => pick(changedThere(ancestor, differences, one, other), true)}>
                    choose what was changed there alone
                  </button>
                )}
                <button className="key" disabled={picked.length === 0 || asking} onClick={() => void take()}>
                  {asking ? 'asking whether it holds …' : `take over ${picked.length === 0 ? '…' : picked.length}`}
                </button>
              </>
            )}
          </p>
        )}
        {ancestor !== undefined && differences.length > 0 && (
          <label className="quiet">
            <input type="checkbox" checked={only !== ''} onChange={(event) => look('only', event.target.checked ? 'there' : '')} /> leave
            out what was changed here alone{only !== '' && `, ${differences.length - shown.length}`}
          </label>
        )}
        {canTake && isOfPattern(against) && differences.some(({ path }) => path[0] === 'pattern') && (
          <p className="quiet">
            With whatever is taken, the card remembers this version of its pattern; take that alone where nothing else is wanted.
          </p>
        )}
        {groups.map(
          ({ title, own }) =>
            own.length > 0 && (
              <table key={title} className="list redline-table" aria-label={title}>
                <thead>
                  <tr>
                    <th>
                      {canTake && (
                        <input
                          type="checkbox"
                          aria-label={`all of ${title}`}
                          checked={own.every((one) => chosen.has(keyOf(one)))}
                          onChange={(event) => pick(own, event.target.checked)}
                        />
                      )}
                    </th>
                    <th>{title}</th>
                    <th>{sides[0]}</th>
                    <th>{sides[1]}</th>
                    {ancestor !== undefined && <th className="changed-by">changed</th>}
                  </tr>
                </thead>
                <tbody>
                  {own.map((difference) => (
                    <Row
                      key={keyOf(difference)}
                      difference={difference}
                      both={[one, other]}
                      on={chosen.has(keyOf(difference))}
                      by={ancestor === undefined ? undefined : byWords[changedBy(ancestor, difference, one, other)]}
                      limits={limits}
                      choices={choices}
                      onPick={canTake ? (on) => pick([difference], on) : undefined}
                    />
                  ))}
                </tbody>
              </table>
            ),
        )}
      </section>
      <aside className="margin-column">
        {beside &&
          one &&
          other &&
          beside({
            left: one,
            right: other,
            drawable: left.holds && right.holds,
            then: took.length > 0 ? taken<T>(mine, other, took) : undefined,
          })}
      </aside>
    </main>
  )
}

const changedThere = (ancestor: unknown, differences: readonly Difference[], mine: unknown, theirs: unknown) =>
  differences.filter((difference) => changedBy(ancestor, difference, mine, theirs) === 'theirs')

const counted = (count: number) => (count === 1 ? 'One difference' : `${count} differences`)

type Source = NonNullable<Card['sources']>[string]

/** Where a fact comes from, in a few words. */
const saidSource = (source: Source | undefined) =>
  source ? [sourceWords[source.source ?? 'assumed'], source.note, source.on && dayOf(source.on)].filter(Boolean).join(', ') : 'not said'

interface RowProps {
  difference: Difference
  both: readonly [unknown, unknown]
  on: boolean
  /** Which side changed it, where that is known. */
  by: string | undefined
  limits: (pointer: string) => Limits
  choices: (pointer: string) => Choice[]
  onPick: ((on: boolean) => void) | undefined
}

function Row({ difference: { path, order, mine, theirs }, both, on, by, limits, choices, onPick }: RowProps) {
  const name = order ? `order of ${nameOf(path, both, limits)}` : nameOf(path, both, limits)
  const pointer = fieldPointer(path)
  const { unit } = limits(pointer)
  const said = (value: unknown, document: unknown) => {
    if (order) return (value as unknown[]).map((one) => (isObject(one) ? String(one.name ?? one.id) : String(one))).join(', ')
    if (path[0] === 'sources') return saidSource(value as Source | undefined)
    const word = typeof value === 'string' ? choices(pointer).find((choice) => choice.value === value)?.label : undefined
    const source = (document as { sources?: Card['sources'] }).sources?.[pointerOf(path)]
    return `${word ?? shown(value, unit)}${source ? ` · ${saidSource(source)}` : ''}`
  }
  const isText = [mine, theirs].some((value) => typeof value === 'string' && value.includes('\n'))
  return (
    <>
      <tr data-difference={pointerOf(path)}>
        <td>
          {onPick && <input type="checkbox" aria-label={`take ${name}`} checked={on} onChange={(event) => onPick(event.target.checked)} />}
        </td>
        <td>{name}</td>
        {!isText && <td className="mono">{said(mine, both[0])}</td>}
        {!isText && <td className="mono">{said(theirs, both[1])}</td>}
        {isText && <td colSpan={2}></td>}
        {by && <td className="changed-by">{by}</td>}
      </tr>
      {isText && (
        <tr>
          <td colSpan={by ? 5 : 4}>
            <Suspense fallback={<p className="quiet">Comparing …</p>}>
              <TextSides mine={String(mine ?? '')} theirs={String(theirs ?? '')} />
            </Suspense>
          </td>
        </tr>
      )}
    </>
  )
}
