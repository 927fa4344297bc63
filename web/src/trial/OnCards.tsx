import { Button } from '@mui/material'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { saidBy, sentenceOf, type OnCardMessage, type TrialOnCard } from '../api/client'
import { send } from '../api/send'
import { messages } from '../api/stream'
import { documents } from '../open-document/documents'
import { duration, plain } from '../units/format'
import { useTrial } from './TrialContext'

interface Looked {
  running: boolean
  of: number
  on: TrialOnCard[]
  problem?: string
}

/** The same trial on every card of the rack: what it comes to there, or why it cannot be printed. */
export function OnCards() {
  const { id, laid, unsaved, card, asked } = useTrial('id', 'laid', 'unsaved', 'card', 'asked')
  const [looked, setLooked] = useState<Looked>()
  const abort = useRef<AbortController>(undefined)
  const navigate = useNavigate()
  const ask = async () => {
    const controller = (abort.current = new AbortController())
    setLooked({ running: true, of: 0, on: [] })
    try {
      const answer = await send(`/api/trials/${id}/on-cards`, { signal: controller.signal })
      for await (const { of, on, problem } of messages<OnCardMessage>(answer)) {
        const said = saidBy(problem)
        setLooked(
          (before) => before && { ...before, of, problem: said ?? before.problem, on: on ? [...before.on, on].sort(byTime) : before.on },
        )
      }
      setLooked((before) => before && { ...before, running: false })
    } catch (failure) {
      setLooked((before) => before && { ...before, running: false, problem: controller.signal.aborted ? undefined : sentenceOf(failure) })
    }
  }
  const make = async (there: TrialOnCard) => {
    if (!there.trial) return
    const made = await documents.make('trials', { ...there.trial, name: `${asked.name ?? 'trial'}, on ${there.name}` })
    await navigate(`/trials/${made.id}`)
  }
  return (
    <section aria-label="On which card">
      <div className="head-line between">
        <h2 className="caps">On which card</h2>
        {looked?.running ? (
          <span className="head-links">
            <span className="quiet" role="status">
              {looked.on.length} of {looked.of || '…'}
            </span>
            <Button onClick={() => abort.current?.abort()}>Cancel</Button>
          </span>
        ) : (
          <button className="link" disabled={unsaved || laid === 0} onClick={() => void ask()}>
            {looked ? 'look again' : 'look at all cards'}
          </button>
        )}
      </div>
      {looked?.problem && (
        <p className="trouble" role="alert">
          {looked.problem}
        </p>
      )}
      {looked && looked.on.length > 0 && (
        <table className="list">
          <thead>
            <tr>
              <th>Card</th>
              <th className="number">Time</th>
              <th className="number">Mass</th>
              <th className="number">Cost</th>
              <th className="number">Per bed</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            {looked.on.map((there) => (
              <tr key={there.card} className={there.figures ? undefined : 'idle'}>
                <td>
                  <Link to={`/cards/${there.card}`}>{there.name}</Link>
                  {there.changed.map((sentence) => (
                    <p key={sentence} className="quiet on-card-note">
                      {sentence}
                    </p>
                  ))}
                  {there.figures && <p className="quiet on-card-note">{countsOf(there.figures.findings ?? [])}</p>}
                </td>
                {there.figures ? (
                  <>
                    <td className="number">{duration(there.figures.seconds)}</td>
                    <td className="number">{there.figures.grams == null ? '' : `${plain(there.figures.grams, 1)} g`}</td>
                    <td className="number">{there.figures.cost == null ? '' : there.figures.cost.toFixed(2)}</td>
                    <td className="number">{there.perBed ?? ''}</td>
                  </>
                ) : (
                  <td colSpan={4}>{there.why}</td>
                )}
                <td>
                  {there.figures && there.card !== card.id && (
                    <button className="link" onClick={() => void make(there)}>
                      make it there
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}

/** What can be printed comes first, the quickest before the others. */
const byTime = (a: TrialOnCard, b: TrialOnCard) => (a.figures?.seconds ?? Infinity) - (b.figures?.seconds ?? Infinity)

function countsOf([stops = 0, cautions = 0, notes = 0]: readonly number[]): string {
  const said = [
    [stops, 'stop'],
    [cautions, 'caution'],
    [notes, 'note'],
  ].flatMap(([count, word]) => (count ? [`${count} ${word}${count === 1 ? '' : 's'}`] : []))
  return said.length > 0 ? said.join(', ') : 'nothing to say'
}
