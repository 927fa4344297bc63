import { Button } from '@mui/material'
import { Link } from 'react-router'
import type { NozzleSpent, PlasticUsed } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { duration, plain } from '../units/format'
import { useTrial } from './TrialContext'

/** What came of the last run beside its verdict, and the way to its dry run. */
export function ResultPanel() {
  const { id, run, stale } = useTrial('id', 'run', 'stale')
  if (!run) return null
  const { result } = run
  const { findings } = result
  return (
    <section aria-label="Result" className="result">
      <div className="head-line between">
        <h2 className="caps">Dry run</h2>
        <span className="quiet">
          {result.layers ? `${result.layers} layers, ` : ''}
          {result.lines.toLocaleString('en-GB').replaceAll(',', ' ')} lines
          {result.busiestSecond == null ? '' : `, ${result.busiestSecond} moves in the busiest second`}
        </span>
      </div>
      {findings.length === 0 && !stale && (
        <p className="fits">No finding: nothing is hit, every wait ends, all heaters are off at the end.</p>
      )}
      {findings.slice(0, 4).map((finding, i) => (
        <p key={i} className="short-finding">
          <SeverityMark severity={finding.severity} />
          <Link to={`/trials/${id}/run?line=${finding.line ?? 1}`}>
            {finding.message} {finding.line ? `(line ${finding.line})` : ''}
          </Link>
        </p>
      ))}
      {findings.length > 4 && <p className="quiet">and {findings.length - 4} more</p>}
      {result.changes && (
        <p>
          {result.changes.changes} changes of nozzle take {duration(result.changes.seconds)}.
        </p>
      )}
      <ByNozzle spent={result.spent ?? []} old={stale} />
      <ByUse uses={result.uses ?? []} old={stale} />
      <div className="slice-line">
        <Button component={Link} to={`/trials/${id}/run`}>
          Look at every line
        </Button>
        <Button href={`/api/trials/${id}/bed?format=3mf`} download>
          Bed as 3MF
        </Button>
        <Button href={`/api/trials/${id}/bed?format=stl`} download>
          STL
        </Button>
      </div>
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
