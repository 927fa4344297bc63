import { Slider } from '@mui/material'
import { cividis, cssOf, shades } from '../drawing/cividis'
import { useScheme } from '../drawing/useScheme'
import { plain } from '../units/format'
import { countOutside, markKinds, measures, type Measure } from './drawnBy'
import { LayerLegend } from './LayerPaths'
import { useTrial } from './TrialContext'

/** What lines are drawn by, with the legend, a range to look at, and marks. */
export function DrawnBy() {
  const { layers, layer, drawing, draw, span } = useTrial('layers', 'layer', 'drawing', 'draw', 'span')
  const shown = layers[layer]
  if (!shown) return null
  const { by, marks } = drawing
  return (
    <div className="drawn-by">
      <label>
        <span className="quiet">drawn by</span>
        <select
          className="plain-field"
          aria-label="lines drawn by"
          value={by}
          onChange={(event) => draw({ ...drawing, by: event.target.value as Measure | 'kind', within: undefined })}
        >
          <option value="kind">kind of line</option>
          {Object.entries(measures).map(([name, { label }]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {by === 'kind' || !span ? <LayerLegend layer={shown} /> : <Scale by={by} span={span} />}
      <fieldset className="marks">
        <legend className="quiet">marked on the plan</legend>
        {markKinds.map((mark) => (
          <label key={mark}>
            <input
              type="checkbox"
              checked={marks.includes(mark)}
              onChange={(event) => draw({ ...drawing, marks: event.target.checked ? [...marks, mark] : marks.filter((m) => m !== mark) })}
            />
            {mark}
          </label>
        ))}
      </fieldset>
    </div>
  )
}

function Scale({ by, span }: { by: Measure; span: readonly [number, number] }) {
  const { layers, drawing, draw } = useTrial('layers', 'drawing', 'draw')
  const scheme = useScheme()
  const { label, unit, digits } = measures[by]
  const [least, most] = [floored(span[0], digits), -floored(-span[1], digits)]
  const within = drawing.within ?? [least, most]
  const said = (value: number) => `${plain(value, digits)}${unit && ` ${unit}`}`
  if (most <= least) return <p className="quiet scale-of-lines">{`every line: ${said(least)}`}</p>
  const outside = drawing.within && countOutside(layers, by, drawing.within)
  return (
    <div className="scale-of-lines">
      <svg viewBox={`0 0 ${shades} 1`} preserveAspectRatio="none" aria-hidden="true">
        {Array.from({ length: shades }, (_, i) => (
          <rect key={i} x={i} width="1.02" height="1" fill={cssOf(cividis(i / (shades - 1), scheme))} />
        ))}
      </svg>
      <Slider
        size="small"
        getAriaLabel={(index) => `${label} ${index === 0 ? 'from' : 'to'}`}
        getAriaValueText={said}
        min={least}
        max={most}
        step={10 ** -digits}
        value={[...within]}
        onChange={(_, value) => {
          const [from, to] = value
          draw({ ...drawing, within: from! <= least && to! >= most ? undefined : [from!, to!] })
        }}
      />
      <p className="quiet">
        {said(within[0])} to {said(within[1])}
        {outside !== undefined && (
          <span className="outside"> · {outside === 1 ? '1 line lies' : `${outside} lines lie`} outside, in madder</span>
        )}
      </p>
    </div>
  )
}

const floored = (value: number, digits: number) => Math.floor(value * 10 ** digits + 1e-6) / 10 ** digits
