import { Button } from '@mui/material'
import { useState } from 'react'
import type { NozzleSpent, Outcome, WhatIfVariant } from '../api/client'
import { grouped, useSettings } from '../open-document/description'
import { outcomes } from '../settings/outcomes'
import { duration, plain } from '../units/format'
import { useTrial } from './TrialContext'
import { useWhatIf } from './useWhatIf'

/** What a change really does: a setting a step down and up, all choices of a kind, or what makes an outcome better. */
export function WhatIf() {
  const { id, laid, recipe, unsaved } = useTrial('id', 'laid', 'recipe', 'unsaved')
  const settings = useSettings('recipe')
  const groups = grouped(settings.filter((setting) => setting.says && setting.kind !== 'text'))
  const whatIf = useWhatIf(id)
  const [asked, setAsked] = useState('')
  const ask = (value: string) => {
    setAsked(value)
    const [kind, what] = [value.slice(0, value.indexOf(' ')), value.slice(value.indexOf(' ') + 1)]
    if (what) whatIf.ask({ [kind]: what })
  }
  const outcome = asked.startsWith('outcome ') ? (asked.slice(8) as Outcome) : undefined
  const now = whatIf.now
  // where time is asked for, what really saves most comes first
  const quicker = (variant: WhatIfVariant) => now !== null && now !== undefined && (variant.figures?.seconds ?? Infinity) < now.seconds - 1
  const variants =
    outcome === 'time' && now
      ? whatIf.variants.filter(quicker).sort((a, b) => (a.figures?.seconds ?? Infinity) - (b.figures?.seconds ?? Infinity))
      : whatIf.variants
  const slower = whatIf.variants.length - variants.length
  const take = (variant: WhatIfVariant) => {
    if (!recipe || !variant.pointer) return
    // rungs and shares of the nozzle would go before what is taken in mm
    const before = { '/layers/others': '/layers/rungs', '/layers/first': '/layers/firstRungs', '/lineWidth': '/lineWidthOfNozzle' }[
      variant.pointer
    ]
    if (before) recipe.set(before, undefined)
    recipe.set(variant.pointer, variant.value)
  }
  return (
    <section aria-label="What if" className="what-if">
      <div className="head-line between">
        <h2 className="caps">What if</h2>
        <select
          className="plain-field"
          aria-label="What if"
          disabled={unsaved || laid === 0}
          value={asked}
          onChange={(event) => ask(event.target.value)}
        >
          <option value="">ask …</option>
          <optgroup label="I want">
            {Object.entries(outcomes).map(([name, { ask: words }]) => (
              <option key={name} value={`outcome ${name}`}>
                {words}
              </option>
            ))}
          </optgroup>
          {groups.map((group) => (
            <optgroup key={group.title} label={group.title}>
              {group.settings.map((setting) => (
                <option key={setting.pointer} value={`setting ${setting.pointer}`}>
                  {setting.label}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
        {whatIf.running && <Button onClick={whatIf.cancel}>Cancel</Button>}
        {whatIf.running && (
          <span className="quiet" role="status">
            {whatIf.variants.length} of {whatIf.of || '…'}
          </span>
        )}
      </div>
      {whatIf.problem && (
        <p className="trouble" role="alert">
          {whatIf.problem}
        </p>
      )}
      {now && (
        <table className="list">
          <thead>
            <tr>
              <th>{outcome ? `For ${outcomes[outcome].ask}` : 'Changed'}</th>
              <th className="number">Time</th>
              <th className="number">Mass</th>
              <th className="number">Cost</th>
              <th className="number">Peak flow</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>as it is</td>
              <td className="number">{duration(now.seconds)}</td>
              <td className="number">
                {now.grams == null ? '' : `${plain(now.grams, 1)} g`}
                <ByNozzle now={now.byNozzle} />
              </td>
              <td className="number">{now.cost == null ? '' : now.cost.toFixed(2)}</td>
              <td className="number">{plain(now.peakFlow, 1)}</td>
              <td></td>
            </tr>
            {variants.map((variant) => {
              const { figures } = variant
              return (
                <tr key={`${variant.pointer} ${variant.label}`} title={settings.find(({ pointer }) => pointer === variant.pointer)?.says}>
                  <td>{variant.label}</td>
                  {figures ? (
                    <>
                      <td className="number">{signed((figures.seconds - now.seconds) / 60, 'min')}</td>
                      <td className="number">
                        {figures.grams == null || now.grams == null ? '' : signed(figures.grams - now.grams, 'g')}
                        <ByNozzle now={now.byNozzle} then={figures.byNozzle} />
                      </td>
                      <td className="number">{figures.cost == null || now.cost == null ? '' : signed(figures.cost - now.cost, '', 2)}</td>
                      <td className="number">{plain(figures.peakFlow, 1)}</td>
                    </>
                  ) : (
                    <td colSpan={4} className="quiet">
                      {variant.refusal}
                    </td>
                  )}
                  <td>
                    {figures && (
                      <button className="link quiet" onClick={() => take(variant)}>
                        take
                      </button>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      {slower > 0 && (
        <p className="quiet">
          {slower === 1 ? '1 change that was tried saves' : `${slower} changes that were tried save`} no time; left out.
        </p>
      )}
      {now && !whatIf.running && whatIf.variants.length === 0 && (
        <p className="quiet">There is nothing to vary: it is not set, or has no other value.</p>
      )}
    </section>
  )
}

/** The mass of each nozzle that lays anything, or how it changes; nothing where one nozzle lays it all. */
function ByNozzle({ now = [], then }: { now: NozzleSpent[] | undefined; then?: NozzleSpent[] | undefined }) {
  const { card } = useTrial('card')
  const used = now.filter((one) => one.filament > 0 || (then?.[one.nozzle]?.filament ?? 0) > 0)
  if (used.length < 2) return null
  const said = ({ nozzle, grams }: NozzleSpent) => {
    const other = then?.[nozzle]?.grams
    if (grams == null || (then && other == null)) return '?'
    return then ? signed(other! - grams, '') : plain(grams, 1)
  }
  return (
    <span className="quiet each-nozzle">
      {used.map((one) => `${card.document.head?.nozzles?.[one.nozzle]?.id ?? `T${one.nozzle}`} ${said(one)}`).join(' · ')}
    </span>
  )
}

const signed = (value: number, unit: string, digits = 1) => {
  const said = plain(Math.abs(value), digits)
  return said === '0' ? '=' : `${value < 0 ? '−' : '+'}${said}${unit ? ` ${unit}` : ''}`
}
