import { Button, LinearProgress } from '@mui/material'
import { Link } from 'react-router'
import type { Refusal, RunResult } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { VerdictMark } from '../findings/VerdictMark'
import { duration, plain, timeOfDay } from '../units/format'
import { useTrial } from './TrialContext'
import { misfitOf, verdictOf } from './verdict'
import './verdict.css'

/** What the trial comes to, always in sight: does it fit, print and end safe, what it takes, the worst that was found, and how old
 * that is. */
export function VerdictStrip() {
  const { id, card, laid, run, stale, unsaved, computing } = useTrial('id', 'card', 'laid', 'run', 'stale', 'unsaved', 'computing')
  const busy = computing.step !== undefined
  const current = Boolean(run && !stale && !busy && !computing.refusal)
  const result = run?.result
  return (
    <section className="verdict" aria-label="Verdict" data-state={stateOf(busy, Boolean(computing.refusal), current, Boolean(run))}>
      <div className="verdict-words" aria-live="polite">
        <Words />
      </div>
      {result && !computing.refusal && <Figures result={result} old={!current} />}
      <span className="space" />
      {current && <First />}
      {busy && <Button onClick={computing.cancel}>Cancel</Button>}
      {!busy && !current && laid > 0 && (
        <Button variant="contained" disabled={unsaved} onClick={computing.start}>
          Slice
        </Button>
      )}
      {current && (
        <>
          <Button variant="contained" href={`/api/trials/${id}/run/program`} download>
            Save the G-code
          </Button>
          <Button component={Link} to={`/cards/${card.id}/line?trial=${id}`}>
            Send to line
          </Button>
        </>
      )}
    </section>
  )
}

function stateOf(busy: boolean, refused: boolean, current: boolean, ran: boolean) {
  if (busy) return 'computing'
  if (refused) return 'refused'
  if (current) return 'current'
  return ran ? 'old' : 'nothing'
}

/** The verdict with its mark, and how old it is. */
function Words() {
  const { fits, laid, run, stale, unsaved, computing } = useTrial('fits', 'laid', 'run', 'stale', 'unsaved', 'computing')
  const result = run?.result
  if (laid === 0 && result?.origin !== 'file') return <Said words="Nothing lies on the bed" age="Drop a file on this page" />
  if (computing.step !== undefined)
    return (
      <Said words={result ? 'Computing anew' : 'Computing'} age={`computing: ${computing.step}`}>
        <LinearProgress variant="determinate" value={100 * (computing.share ?? 0)} aria-label="Slicing" />
      </Said>
    )
  if (computing.refusal)
    return (
      <div className="verdict-said" role="alert">
        <SeverityMark severity="stop" size={18} />
        <div>
          {sentencesOf(computing.refusal).map((message, i) => (
            <p key={i}>{message}</p>
          ))}
        </div>
      </div>
    )
  const by = result?.origin === 'file' ? 'file brought' : 'computed'
  const waits = <ByHand />
  const misfit = misfitOf(fits, laid)
  if (misfit && (!run || stale))
    return (
      <Said
        words={misfit}
        age={run ? `${by} before the last change` : 'it is computed once it does'}
        mark={<SeverityMark severity="stop" size={18} />}
      />
    )
  if (!result || !run) return <Said words="Not computed yet" age={unsaved ? 'waits until all is saved' : waits} />
  if (stale)
    return (
      <Said
        words="Changed since"
        age={
          <>
            {`${by} before the last change`} · {waits}
          </>
        }
      />
    )
  const { words, worst } = verdictOf(fits, laid, result)
  const age = computing.age === undefined ? `${by} ${timeOfDay(run.at)}` : `${by} ${plain(computing.age, 1)} s after the last change`
  return (
    <Said
      words={words}
      age={
        <>
          {age} · {waits}
        </>
      }
      mark={worst ? <SeverityMark severity={worst} size={18} /> : <VerdictMark verdict="fits" />}
    />
  )
}

function Said({ words, age, mark, children }: { words: string; age: React.ReactNode; mark?: React.ReactNode; children?: React.ReactNode }) {
  return (
    <div className="verdict-said">
      {mark}
      <div>
        <strong>{words}</strong>
        {children}
        <p className="quiet">{age}</p>
      </div>
    </div>
  )
}

/** Whether changes are computed unasked. */
function ByHand() {
  const { computing } = useTrial('computing')
  return (
    <button className="link" onClick={() => computing.setByHand(!computing.byHand)}>
      {computing.byHand ? 'compute changes unasked' : 'by hand only'}
    </button>
  )
}

/** The finding to look at first, and how many there are. */
function First() {
  const { id, fits, laid, run } = useTrial('id', 'fits', 'laid', 'run')
  const { first, open } = verdictOf(fits, laid, run!.result)
  if (!first) return null
  return (
    <Link className="verdict-first" to={`/trials/${id}/run?line=${first.line ?? 1}`} title={first.message}>
      <SeverityMark severity={first.severity} />
      <span className="number">{open}</span>
      <span>{first.message}</span>
    </Link>
  )
}

function Figures({ result, old }: { result: RunResult; old: boolean }) {
  const { peakFlow } = result
  return (
    <dl className={old ? 'figures old' : 'figures'}>
      <Figure name="time" value={duration(result.seconds)} />
      <Figure name="filament" value={`${plain(result.filament / 1000, 2)} m`} />
      {result.grams != null && <Figure name="mass" value={`${plain(result.grams, 1)} g`} />}
      {result.cost != null && <Figure name="cost" value={result.cost.toFixed(2)} />}
      {peakFlow && (
        <Figure
          name="peak flow"
          value={`${plain(peakFlow.flow, 1)}${peakFlow.ceiling == null ? '' : ` of ${plain(peakFlow.ceiling, 1)}`} mm³/s`}
        />
      )}
    </dl>
  )
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="mono">{value}</dd>
    </div>
  )
}

/** What a refusal says: the findings or fields that it names, else its own sentence. */
function sentencesOf({ findings, errors, detail }: Partial<Refusal>): (string | null | undefined)[] {
  if (findings?.length) return findings.map(({ message }) => message)
  return errors?.length ? errors.map(({ message }) => message) : [detail]
}
