import { api, dataOf, type Card, type CeilingBy, type Filament, type LayerHere, type LineAnswer, type Recipe } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { cividis, cssOf } from '../drawing/cividis'
import { useScheme } from '../drawing/useScheme'
import { machineOf } from '../open-card/machine'
import type { DocumentState } from '../open-document/documentStore'
import { plain } from '../units/format'
import { useRecipeHere } from './useRecipeHere'
import './recipe-lines.css'

const causes: Record<CeilingBy, string> = {
  axis: 'the axes',
  'filament-drive': 'the filament drive',
  'hot-end': 'the hot end',
  filament: 'the filament',
  'step-rate': "the board's step rate",
}

const kinds = [
  { key: 'outerWall', label: 'outer wall' },
  { key: 'innerWall', label: 'inner wall' },
  { key: 'solid', label: 'solid fill' },
  { key: 'infill', label: 'infill' },
  { key: 'firstLayer', label: 'first layer', first: true },
] as const

/** Where the recipe's lines lie: on the ladder of Z, and under the ceiling of speed over width and height. */
export function RecipeLines({
  card,
  recipe,
  filament,
}: {
  card: Card
  recipe: DocumentState<Recipe> | undefined
  filament: Filament | undefined
}) {
  const bore = card.head?.nozzles?.[0]?.diameter
  const here = useRecipeHere(card, recipe?.document, filament)
  const chart = useLines(card, filament, bore ? steps(0.6 * bore, 2 * bore, 15) : [], bore ? steps(0.15 * bore, 0.8 * bore, 11) : [])
  if (!recipe || !here?.width || !here.others) return null
  const { width } = here
  const others = here.others.line ?? undefined
  const first = here.first?.line ?? others
  const own = [here.others.line, here.first?.line].filter((line) => line != null)
  const speeds = recipe.document.speeds
  return (
    <div className="recipe-lines">
      <div>
        <LadderNote recipe={recipe} layer={here.others} pointer="/layers/others" name="layers" />
        {here.first && <LadderNote recipe={recipe} layer={here.first} pointer="/layers/first" name="the first layer" />}
        {others && (
          <p>
            A line of {plain(width)} × {plain(others.height)} is {plain(others.area, 4)} mm²
            {others.feed != null && `, ${plain(others.feed, 4)} mm of filament a mm`}; neighbours lie {plain(others.spacing, 3)} apart.
            {here.walls != null && recipe.document.walls !== 0 && ` Walls come to ${plain(here.walls)} mm.`}
          </p>
        )}
        {speeds &&
          kinds.map((kind) => {
            const line = 'first' in kind ? first : others
            const asked = speeds[kind.key] ?? 0
            return line?.fastest != null && asked > line.fastest + 0.05 ? (
              <p key={kind.key} className="capped">
                {kind.label}: {plain(asked)} asked, {plain(line.fastest, 1)} mm/s go, because of {causes[line.by]}.
              </p>
            ) : null
          })}
        {others?.fastest != null && (
          <p className="quiet">
            Nothing faster than {plain(others.fastest, 1)} mm/s: {causes[others.by]} {filament ? '' : '(no filament chosen) '}sets it.
          </p>
        )}
      </div>
      {chart && chart.length > 0 && <FlowChart lines={chart} points={own} />}
    </div>
  )
}

function useLines(
  card: Card,
  filament: Filament | undefined,
  widths: (number | null | undefined)[],
  heights: (number | null | undefined)[],
): LineAnswer[] | undefined {
  const known = (values: (number | null | undefined)[]) => [...new Set(values.filter((v): v is number => typeof v === 'number'))]
  const body = { card: machineOf(card), filament, widths: known(widths), heights: known(heights) }
  const asked = body.widths.length > 0 && body.heights.length > 0
  const { data } = useAnswer('flow', asked ? body : undefined, async (question, signal) =>
    dataOf(await api.POST('/api/flow', { body: question, signal })),
  )
  return data
}

/** Where a layer's height comes from and where it falls on the ladder, with what can be done about it. */
function LadderNote({
  recipe,
  layer,
  pointer,
  name,
}: {
  recipe: DocumentState<Recipe>
  layer: LayerHere
  pointer: '/layers/others' | '/layers/first'
  name: string
}) {
  const { line } = layer
  const rungs = pointer === '/layers/others' ? '/layers/rungs' : '/layers/firstRungs'
  const { onRung } = recipe.document.layers ?? {}
  const count = line?.nearest ? line.nearest.halfSteps / 2 : undefined
  if (layer.from === 'rungs')
    return (
      <p>
        {name}: {layer.why}{' '}
        <button className="link quiet" onClick={() => recipe.set(rungs, undefined)}>
          count it in mm again
        </button>
      </p>
    )
  if (layer.why)
    return (
      <p>
        {name}: {layer.why}{' '}
        {pointer === '/layers/others' && (
          <button className="link quiet" onClick={() => recipe.set('/layers/onRung', undefined)}>
            take mm as they are
          </button>
        )}
      </p>
    )
  if (!line?.nearest || !line.place) return null
  const are = name === 'layers' ? 'are' : 'is'
  return (
    <p>
      {line.place === 'whole-steps' ? (
        <>
          {plain(line.height, 4)} mm for {name} {are} {count} {count === 1 ? 'step' : 'steps'} of Z.{' '}
          <button className="link quiet" onClick={() => recipe.set(rungs, count)}>
            count it in steps, for other machines too
          </button>
        </>
      ) : (
        <>
          {plain(line.height, 4)} mm for {name} {line.place === 'half-steps' ? 'fall on half steps' : 'fall between the steps'} of Z.{' '}
          {!onRung && (
            <button className="link" onClick={() => recipe.set('/layers/onRung', true)}>
              keep to about so much, on a rung
            </button>
          )}
        </>
      )}
    </p>
  )
}

const steps = (from: number, to: number, count: number) =>
  Array.from({ length: count }, (_, i) => Math.round((from + ((to - from) * i) / (count - 1)) * 1000) / 1000)

const shadesHere = 6

/** The fastest speed over line width and layer height, with the recipe's lines on it. */
function FlowChart({ lines, points }: { lines: LineAnswer[]; points: LineAnswer[] }) {
  const widths = [...new Set(lines.map((line) => line.width))]
  const heights = [...new Set(lines.map((line) => line.height))]
  const known = lines.filter((line) => line.fastest != null)
  const scheme = useScheme()
  if (known.length === 0) return null
  const [slowest, fastest] = [Math.min(...known.map((l) => l.fastest!)), Math.max(...known.map((l) => l.fastest!))]
  const [left, top, w, h] = [34, 8, 176, 92]
  const [dw, dh] = [w / widths.length, h / heights.length]
  const shade = (i: number) => cssOf(cividis(i / (shadesHere - 1), scheme))
  const color = (speed: number) =>
    shade(Math.min(shadesHere - 1, Math.floor(((speed - slowest) / Math.max(1e-9, fastest - slowest)) * shadesHere)))
  const at = (line: LineAnswer) => {
    const [w0, w1, h0, h1] = [widths[0]!, widths.at(-1)!, heights[0]!, heights.at(-1)!]
    return [
      left + dw / 2 + ((line.width - w0) / (w1 - w0)) * (w - dw),
      top + h - dh / 2 - ((line.height - h0) / (h1 - h0)) * (h - dh),
    ] as const
  }
  return (
    <svg
      className="flow-chart"
      viewBox="0 0 216 134"
      role="img"
      aria-label={`fastest speed over width and height, ${plain(slowest, 0)} to ${plain(fastest, 0)} mm/s`}
    >
      {known.map((line) => (
        <rect
          key={`${line.width} ${line.height}`}
          x={left + widths.indexOf(line.width) * dw}
          y={top + h - (heights.indexOf(line.height) + 1) * dh}
          width={dw + 0.4}
          height={dh + 0.4}
          fill={color(line.fastest!)}
        >
          <title>{`${line.width} × ${line.height}: ${plain(line.fastest!, 0)} mm/s, ${causes[line.by]}`}</title>
        </rect>
      ))}
      {points.map((line) => {
        const [x, y] = at(line)
        return <circle key={line.height} cx={x} cy={y} r="4" className="recipe-point" />
      })}
      <text x={left} y={top + h + 13}>
        {plain(widths[0]!)}
      </text>
      <text x={left + w} y={top + h + 13} textAnchor="end">
        {plain(widths.at(-1)!)} mm wide
      </text>
      <text x={left - 4} y={top + h} textAnchor="end">
        {plain(heights[0]!)}
      </text>
      <text x={left - 4} y={top + 9} textAnchor="end">
        {plain(heights.at(-1)!)}
      </text>
      {Array.from({ length: shadesHere }, (_, i) => (
        <rect key={i} x={left + i * 12} y={top + h + 18} width="12" height="8" fill={shade(i)} />
      ))}
      <text x={left + 78} y={top + h + 26}>
        {plain(slowest, 0)} to {plain(fastest, 0)} mm/s
      </text>
    </svg>
  )
}
