import type { TrialPart } from '../api/client'
import { duration, plain } from '../units/format'
import { useTrial } from './TrialContext'
import { useWhatIf } from './useWhatIf'

/** A part on each of its flat sides, compared by what hangs over, supports and time. */
export function CompareSides({ index, onTake }: { index: number; onTake: (tilt: TrialPart['tilt']) => void }) {
  const { trial, recipe, filament, unsaved } = useTrial('trial', 'recipe', 'filament', 'unsaved')
  const comparison = useWhatIf(trial.id)
  return (
    <div className="compare-sides">
      <button className="key" disabled={unsaved || !recipe || !filament} onClick={() => comparison.ask({ part: String(index) })}>
        compare sides
      </button>
      {comparison.running && (
        <>
          <span className="quiet" role="status">
            {comparison.variants.length} of {comparison.of || '…'}
          </span>
          <button className="key" onClick={comparison.cancel}>
            cancel
          </button>
        </>
      )}
      {comparison.problem && (
        <p className="trouble" role="alert">
          {comparison.problem}
        </p>
      )}
      {comparison.variants.length > 0 && (
        <table className="list">
          <thead>
            <tr>
              <th>Stands</th>
              <th className="number">Overhang</th>
              <th className="number">Supports</th>
              <th className="number">Time</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            {comparison.variants.map((variant) => (
              <tr key={variant.label}>
                <td>{variant.label}</td>
                <td className="number">{variant.overhang == null ? '' : `${plain(variant.overhang, 0)} mm²`}</td>
                {variant.figures ? (
                  <>
                    <td className="number">{plain(variant.figures.supportVolume / 1000, 2)} cm³</td>
                    <td className="number">{duration(variant.figures.seconds)}</td>
                  </>
                ) : (
                  <td colSpan={2} className="quiet">
                    {variant.refusal}
                  </td>
                )}
                <td>
                  <button className="link quiet" onClick={() => onTake(variant.tilt)}>
                    take
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  )
}
