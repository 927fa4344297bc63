import type { Card, RoutinePreview } from '../api/client'
import { clockTime, duration } from '../units/format'
import { moments, type MomentName } from './moments'

interface MomentStripProps {
  card: Card
  preview: RoutinePreview | undefined
  chosen: MomentName
  onChoose: (moment: MomentName) => void
  layer: number
  onLayer: (layer: number) => void
  /** Worst severity of the findings of a routine. */
  worst: (moment: MomentName) => string | undefined
}

/** A print from first to last, each routine at its moment; those that come from outside stand apart. */
export function MomentStrip({ card, preview, chosen, onChoose, layer, onLayer, worst }: MomentStripProps) {
  const twoNozzles = (card.head?.nozzles?.length ?? 0) > 1
  const step = (name: MomentName, title: string) => {
    const ran = preview?.moments.find((moment) => moment.moment === name)
    const empty = !(card.routines?.[name] ?? '').trim()
    const none = name === 'toolChange' && !twoNozzles
    const severity = worst(name)
    return (
      <button
        key={name}
        className={`moment${empty ? ' empty' : ''}${name === 'start' || name === 'end' ? ' wide' : ''}`}
        aria-pressed={chosen === name}
        data-moment={name}
        onClick={() => onChoose(name)}
      >
        <strong>{title}</strong>
        <span>{none ? 'not on this machine' : stateOf(empty, ran)}</span>
        {severity && <i className={`dot ${severity}`} aria-label={severity} role="img" />}
      </button>
    )
  }
  const title = (name: MomentName) => moments.find((moment) => moment.name === name)!.title
  return (
    <nav className="strip" aria-label="Moments of a print">
      {step('start', title('start'))}
      {step('beforeLayer', title('beforeLayer'))}
      <div className="moment layers">
        <span className="bars" aria-hidden>
          {Array.from({ length: 9 }, (_, i) => (
            <i key={i} />
          ))}
        </span>
        <label>
          layer{' '}
          <input
            type="number"
            aria-label="Layer shown"
            min={1}
            max={preview?.layers ?? 1}
            value={layer}
            onChange={(event) => onLayer(Math.min(preview?.layers ?? 1, Math.max(1, Math.round(Number(event.target.value)) || 1)))}
          />{' '}
          of {preview?.layers ?? '…'}
          {preview ? `, ${duration(preview.printSeconds)}` : ''}
        </label>
      </div>
      {(['afterLayer', 'toolChange', 'end'] as const).map((name) => step(name, title(name)))}
      <span className="apart" aria-hidden />
      {(['pause', 'resume', 'cancel'] as const).map((name) => step(name, title(name)))}
    </nav>
  )
}

function stateOf(empty: boolean, ran: RoutinePreview['moments'][number] | undefined): string {
  if (empty) return 'empty'
  if (!ran) return 'cannot run yet'
  const lines = `${ran.lines.length} ${ran.lines.length === 1 ? 'line' : 'lines'}`
  return `${lines}, ${ran.endless ? 'never ends' : clockTime(ran.seconds)}`
}
