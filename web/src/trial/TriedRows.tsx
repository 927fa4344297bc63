import type { NozzleSpent, WhatIfMessage, WhatIfVariant } from '../api/client'
import { useSettings } from '../open-document/description'
import { plain } from '../units/format'
import { useTrial } from './TrialContext'

interface TriedRowsProps {
  /** What it comes to as it is. */
  now: NonNullable<WhatIfMessage['now']>
  tried: readonly WhatIfVariant[]
}

/** What one thing changed would come to, against what it comes to as it is; each can be taken. */
export function TriedRows({ now, tried }: TriedRowsProps) {
  const { recipe } = useTrial('recipe')
  const settings = useSettings('recipe')
  const take = (variant: WhatIfVariant) => {
    if (!recipe || !variant.pointer) return
    // rungs and shares of the nozzle would go before what is taken in mm
    const before = { '/layers/others': '/layers/rungs', '/layers/first': '/layers/firstRungs', '/lineWidth': '/lineWidthOfNozzle' }[
      variant.pointer
    ]
    if (before) recipe.set(before, undefined)
    recipe.set(variant.pointer, variant.value)
  }
  return tried.map((variant) => {
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
            <td></td>
            <td>
              <button className="link quiet" onClick={() => take(variant)}>
                take
              </button>
            </td>
          </>
        ) : (
          <td colSpan={6} className="quiet">
            {variant.refusal}
          </td>
        )}
      </tr>
    )
  })
}

/** The mass of each nozzle that lays anything, or how it changes; nothing where one nozzle lays it all. */
export function ByNozzle({ now = [], then }: { now: NozzleSpent[] | undefined; then?: NozzleSpent[] | undefined }) {
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
