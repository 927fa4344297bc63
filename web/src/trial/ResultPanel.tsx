import { Button, LinearProgress } from '@mui/material'
import { Link } from 'react-router'
import type { NozzleSpent, PlasticUsed, Refusal } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { duration, plain, timeOfDay } from '../units/format'
import { useTrial } from './TrialContext'
import { useSlice } from './useSlice'

/** Slice, what came of it, and the way to its dry run. */
export function ResultPanel() {
  const { id, laid, run, unsaved, stale } = useTrial('id', 'laid', 'run', 'unsaved', 'stale')
  const slicing = useSlice(id)
  const result = run?.result
  const findings = result?.findings ?? []
  return (
    <section aria-label="Result" className="result">
      <div className="slice-line">
        {slicing.step === undefined ? (
          <Button variant="contained" disabled={laid === 0 || unsaved} onClick={slicing.start}>
            Slice
          </Button>
        ) : (
          <>
            <Button onClick={slicing.cancel}>Cancel</Button>
            <span className="progress">
              <LinearProgress variant="determinate" value={100 * (slicing.share ?? 0)} aria-label="Slicing" />
              <span className="quiet">{slicing.step}</span>
            </span>
          </>
        )}
        {run && slicing.step === undefined && (
          <span className={stale ? 'quiet stale' : 'quiet'}>
            {result?.origin === 'file' ? 'file brought' : 'sliced'} {timeOfDay(run.at)}, {plain(result?.took ?? 0, 1)} s
            {stale ? '; changed since' : ''}
          </span>
        )}
      </div>
      {slicing.refusal && (
        <div className="trouble" role="alert">
          {sentencesOf(slicing.refusal).map((message, i) => (
            <p key={i}>{message}</p>
          ))}
        </div>
      )}
      {result && (
        <>
          <dl className={stale ? 'figures old' : 'figures'}>
            <Figure name="time" value={duration(result.seconds)} />
            <Figure name="filament" value={`${plain(result.filament / 1000, 2)} m`} />
            {result.grams != null && <Figure name="mass" value={`${plain(result.grams, 1)} g`} />}
            {result.changes && <Figure name="changes" value={`${result.changes.changes}, ${duration(result.changes.seconds)}`} />}
            {result.cost != null && <Figure name="cost" value={result.cost.toFixed(2)} />}
            <Figure name="layers" value={String(result.layers || '—')} />
            {result.busiestSecond != null && <Figure name="busiest second" value={`${result.busiestSecond} moves`} />}
          </dl>
          <ByNozzle spent={result.spent ?? []} old={stale} />
          <ByUse uses={result.uses ?? []} old={stale} />
          <div className="head-line between">
            <h2 className="caps">Dry run</h2>
            <span className="quiet">{result.lines.toLocaleString('en-GB').replaceAll(',', ' ')} lines</span>
          </div>
          {findings.length === 0 && <p className="fits">No finding: nothing is hit, every wait ends, all heaters are off at the end.</p>}
          {findings.slice(0, 4).map((finding, i) => (
            <p key={i} className="short-finding">
              <SeverityMark severity={finding.severity} />
              <Link to={`/trials/${id}/run?line=${finding.line ?? 1}`}>
                {finding.message} {finding.line ? `(line ${finding.line})` : ''}
              </Link>
            </p>
          ))}
          {findings.length > 4 && <p className="quiet">and {findings.length - 4} more</p>}
          <div className="slice-line">
            <Button component={Link} to={`/trials/${id}/run`}>
              Look at every line
            </Button>
            <Button href={`/api/trials/${id}/run/program`} download>
              Save the G-code
            </Button>
            <Button href={`/api/trials/${id}/bed?format=3mf`} download>
              Bed as 3MF
            </Button>
            <Button href={`/api/trials/${id}/bed?format=stl`} download>
              STL
            </Button>
          </div>
        </>
      )}
    </section>
  )
}

/** Time, filament, mass and cost of each nozzle that laid anything. */
function ByNozzle({ spent, old }: { spent: NozzleSpent[]; old: boolean }) {
  const { card } = useTrial('card')
  const used = spent.filter((nozzle) => nozzle.filament > 0)
  if (used.length < 2) return null
  return (
    <table className={old ? 'list by-nozzle old' : 'list by-nozzle'} aria-label="By nozzle">
      <tbody>
        {used.map((nozzle) => (
          <tr key={nozzle.nozzle}>
            <td>{card.document.head?.nozzles?.[nozzle.nozzle]?.id ?? `T${nozzle.nozzle}`}</td>
            <td className="number">{duration(nozzle.seconds)}</td>
            <Used {...nozzle} />
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Filament, mass and cost of what is thrown away, beside that of the parts. */
function ByUse({ uses, old }: { uses: PlasticUsed[]; old: boolean }) {
  if (uses.length < 2) return null
  return (
    <table className={old ? 'list by-nozzle old' : 'list by-nozzle'} aria-label="By use">
      <tbody>
        {uses.map((used) => (
          <tr key={used.use}>
            <td>{useNames[used.use]}</td>
            <Used {...used} />
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Cells of filament, mass and cost. */
function Used({ filament, grams, cost }: Pick<PlasticUsed, 'filament' | 'grams' | 'cost'>) {
  return (
    <>
      <td className="number">{plain(filament / 1000, 2)} m</td>
      <td className="number">{grams == null ? 'mass ?' : `${plain(grams, 1)} g`}</td>
      <td className="number">{cost == null ? '' : cost.toFixed(2)}</td>
    </>
  )
}

const useNames: Record<PlasticUsed['use'], string> = {
  parts: 'parts',
  supports: 'supports',
  foot: 'skirt, brim, raft',
  tower: 'tower',
  shield: 'shield',
  routines: 'priming by routines',
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
