import { useState } from 'react'
import type { Outcome, VariantAnswer, WhatIfVariant } from '../api/client'
import { useSettings } from '../open-document/description'
import { duration, plain } from '../units/format'
import { AskWhatIf } from './AskWhatIf'
import { ByNozzle, TriedRows } from './TriedRows'
import { useTrial } from './TrialContext'
import { useVariants } from './useVariants'
import { useWhatIf, type Comparison } from './useWhatIf'
import { differencesOf } from './variantWords'

type Figures = Pick<VariantAnswer['figures'], 'seconds' | 'grams' | 'cost' | 'peakFlow' | 'layers' | 'stops' | 'cautions'>

/** Kept states of the trial, what it comes to now, and what it would come to with one thing changed, in one table. */
export function Variants() {
  const { id, run, stale, laid } = useTrial('id', 'run', 'stale', 'laid')
  const { kept, ready, keep, take, problem } = useVariants()
  const settings = useSettings('recipe')
  const whatIf = useWhatIf(id)
  const [outcome, setOutcome] = useState<Outcome>()
  const tried = worthwhile(whatIf, outcome)
  const left = whatIf.variants.length - tried.length
  if (laid === 0) return null
  const now: Figures | undefined = run && {
    ...run.result,
    peakFlow: run.result.peakFlow?.flow ?? null,
    stops: run.result.findings.filter(({ severity }) => severity === 'stop').length,
    cautions: run.result.findings.filter(({ severity }) => severity === 'caution').length,
  }
  return (
    <section aria-label="Variants">
      <div className="head-line between">
        <h2 className="caps">Variants</h2>
        <button className="link keep-this" disabled={!ready} onClick={keep}>
          keep this one · k
        </button>
        <AskWhatIf comparison={whatIf} onAsk={setOutcome} />
        {whatIf.running && (
          <button className="key" onClick={whatIf.cancel}>
            Cancel
          </button>
        )}
        {whatIf.running && (
          <span className="quiet" role="status">
            {whatIf.variants.length} of {whatIf.of || '…'}
          </span>
        )}
      </div>
      {[problem, whatIf.problem].map(
        (said) =>
          said && (
            <p key={said} className="trouble" role="alert">
              {said}
            </p>
          ),
      )}
      {kept.length === 0 && !whatIf.now && (
        <p className="quiet">
          What is kept here, with its settings, its places and what comes of it, can be compared and taken back; what one change would do
          can be asked.
        </p>
      )}
      {(kept.length > 0 || whatIf.now) && (
        <div className="variants-table">
          <table className="list">
            <thead>
              <tr>
                {['', 'Time', 'Mass', 'Cost', 'Peak flow', 'Findings', ''].map((name, i) => (
                  <th key={i} className={i > 0 ? 'number' : undefined}>
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {kept.map((variant) => {
                const differs = differencesOf(variant, settings)
                return (
                  <tr key={variant.letter} title={`kept ${new Date(variant.at).toLocaleString('en-GB')}`}>
                    <td>{differs.length === 0 ? `${variant.letter} is as it is now.` : `${variant.letter} has ${differs.join(', ')}.`}</td>
                    <Cells of={variant.figures} />
                    <td>
                      {differs.length > 0 && (
                        <button className="link quiet" onClick={() => take(variant.letter)}>
                          take {variant.letter}
                        </button>
                      )}
                    </td>
                  </tr>
                )
              })}
              {now && (
                <tr className={stale ? 'as-now stale' : 'as-now'}>
                  <td>{stale ? 'before the last change' : 'now'}</td>
                  <Cells of={now} byNozzle={<ByNozzle now={run?.result.spent} />} />
                  <td></td>
                </tr>
              )}
              {whatIf.now && <TriedRows now={whatIf.now} tried={tried} />}
            </tbody>
          </table>
        </div>
      )}
      {whatIf.now && run && Math.abs(whatIf.now.seconds - run.result.seconds) > 1 && (
        <p className="quiet">What was tried is told against {duration(whatIf.now.seconds)}, as it was when it was asked.</p>
      )}
      {left > 0 && (
        <p className="quiet">{left === 1 ? '1 change that was tried saves' : `${left} changes that were tried save`} no time; left out.</p>
      )}
      {whatIf.now && !whatIf.running && whatIf.variants.length === 0 && (
        <p className="quiet">There is nothing to vary: it is not set, or has no other value.</p>
      )}
    </section>
  )
}

/** Where time is asked for, what really saves most comes first, and what saves none is left out. */
function worthwhile({ now, variants }: Comparison, outcome: Outcome | undefined): WhatIfVariant[] {
  if (outcome !== 'time' || !now) return variants
  const seconds = (variant: WhatIfVariant) => variant.figures?.seconds ?? Infinity
  return variants.filter((variant) => seconds(variant) < now.seconds - 1).sort((a, b) => seconds(a) - seconds(b))
}

function Cells({ of: { seconds, grams, cost, peakFlow, stops, cautions }, byNozzle }: { of: Figures; byNozzle?: React.ReactNode }) {
  return (
    <>
      <td className="number">{duration(seconds)}</td>
      <td className="number">
        {grams == null ? '–' : `${plain(grams, 1)} g`}
        {byNozzle}
      </td>
      <td className="number">{cost == null ? '–' : cost.toFixed(2)}</td>
      <td className="number">{peakFlow == null ? '–' : plain(peakFlow, 1)}</td>
      <td className="number" title={`${stops} stops, ${cautions} cautions`}>
        {stops + cautions === 0 ? 'none' : `${stops} + ${cautions}`}
      </td>
    </>
  )
}
