import { useEffect } from 'react'
import { Link } from 'react-router'
import { inField } from '../shell/inField'
import { clockTime } from '../units/format'
import { nextMove } from './step'
import { useTrial } from './TrialContext'
import { useStep } from './useStep'

/** The line of the program at the moment that is looked at, with what it does; moves are stepped through one by one. */
export function MomentLine() {
  const { id, run, stepTo, lookAt, layer } = useTrial('id', 'run', 'stepTo', 'lookAt', 'layer')
  const step = useStep()
  const count = run?.result.lines ?? 0
  const go = (way: 1 | -1) => step && stepTo(nextMove(step.lines, step.at, way, count))
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.ctrlKey || event.metaKey || event.altKey || !step) return
      const way = ({ ',': -1, '.': 1 } as const)[event.key]
      if (way === undefined) return
      event.preventDefault()
      stepTo(nextMove(step.lines, step.at, way, count))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [step, stepTo, count])
  if (!step || !run) return null
  const line = step.lines.get(step.at)
  return (
    <div className="moment-line" role="group" aria-label="Program at this moment">
      <button className="key" aria-label="a move back" title="a move back · ," onClick={() => go(-1)}>
        ‹
      </button>
      <button className="key" aria-label="a move on" title="a move on · ." onClick={() => go(1)}>
        ›
      </button>
      <Link className="mono quiet" to={`/trials/${id}/run?line=${step.at}`} title="this line in the dry run">
        line {step.at}
      </Link>
      <code>{line?.text ?? '…'}</code>
      <span className="does">{line?.effect}</span>
      {line && <span className="mono quiet">{clockTime(line.start)}</span>}
      {step.chosen && (
        <button className="link quiet" onClick={() => lookAt(layer)}>
          whole layer
        </button>
      )}
    </div>
  )
}
