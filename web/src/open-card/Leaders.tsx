import { outlineBox } from '../drawing/outline'
import { spread } from '../drawing/spread'
import { toX, toY } from '../drawing/view'
import { plain } from '../units/format'
import { useCard } from './CardContext'
import type { SheetLayout } from './sheetLayout'

/** Names of the keep-outs, led out of the plan to a column where no two overlap. */
export function Leaders({ layout, keepOut }: { layout: SheetLayout; keepOut: number | undefined }) {
  const { document: card } = useCard()
  const { plan, right, names } = layout
  const line = 16
  const most = Math.max(1, Math.floor((names[1] - names[0]) / line))
  const named = (card.envelope?.keepOuts ?? [])
    .map((k, i) => {
      const box = outlineBox(k.outline)
      return {
        i,
        text: `F ${k.name}${k.kind === 'obstacle' && k.top ? `, ${plain(k.top)} high` : ''}`,
        x: toX(plan, box.x + box.width / 2),
        y: toY(plan, box.y + box.depth / 2),
      }
    })
    .sort((a, b) => a.y - b.y)
  const shown = named.slice(0, most)
  const at = spread(
    shown.map((label) => label.y),
    line,
    names[0],
    names[1],
  )
  const spots = shown.map((label, i) => ({ ...label, at: at[i]! }))
  const x = right - 4
  return (
    <g className="leaders">
      {spots.map((label) => (
        <g key={label.i} className={keepOut === label.i ? 'lit' : undefined}>
          <path d={`M${label.x} ${label.y}L${x - 14} ${label.at}H${x - 4}`} />
          <circle cx={label.x} cy={label.y} r="1.8" />
          <text x={x} y={label.at + 4}>
            {label.text.length > 26 ? `${label.text.slice(0, 25)}…` : label.text}
          </text>
        </g>
      ))}
      {named.length > shown.length && (
        <text x={x} y={at.at(-1)! + line + 4}>
          and {named.length - shown.length} more
        </text>
      )}
    </g>
  )
}
