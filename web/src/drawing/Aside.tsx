import type { Card } from '../api/client'
import { useHatch } from './Hatches'
import { bedOutline, bedSize, outlinePath } from './outline'
import { fitted } from './view'

const a4 = { width: 210, depth: 297 }

/** The bed beside an A4 sheet (ISO 216), both to one scale, so that its size can be felt. */
export function BesideA4({ card, x, y, width, height }: { card: Card; x: number; y: number; width: number; height: number }) {
  const bed = bedOutline(card.envelope?.bed)
  const size = bedSize(card.envelope?.bed)
  const plane = { x: 0, y: 0, width: Math.max(a4.width, size.width ?? 0), depth: Math.max(a4.depth, size.depth ?? 0) }
  const fit = fitted(plane, { x, y, width, height })
  const view = { ...fit, x0: x, y0: y + height }
  return (
    <g aria-label="the bed beside an A4 sheet">
      <rect
        x={x}
        y={view.y0 - a4.depth * view.scale}
        width={a4.width * view.scale}
        height={a4.depth * view.scale}
        fill="none"
        stroke="var(--hair)"
        strokeWidth="1.4"
      />
      {bed && <path d={outlinePath(bed, view)} fill="none" stroke="var(--ink)" strokeWidth="1.2" />}
      <text x={x} y={y + height + 15} className="quiet-text">
        {bed ? 'this bed on an A4 sheet' : 'an A4 sheet'}
      </text>
    </g>
  )
}

/** Height of a line of the legend, px. */
export const legendLine = 24

const legend: { kind: Parameters<ReturnType<typeof useHatch>>[0]; label: string }[] = [
  { kind: 'obstacle', label: 'obstacle' },
  { kind: 'lost', label: 'lost to the head' },
  { kind: 'bad-surface', label: 'bad surface' },
  { kind: 'reserved', label: 'reserved' },
]

/** What the hatchings on this card mean. */
export function Legend({ card, x, y }: { card: Card; x: number; y: number }) {
  const hatch = useHatch()
  const keepOuts = card.envelope?.keepOuts ?? []
  const shown = legend.filter(({ kind }) =>
    kind === 'lost'
      ? keepOuts.some((k) => k.kind === 'obstacle') || Boolean(card.envelope?.use?.height)
      : keepOuts.some((k) => k.kind === kind),
  )
  return (
    <g aria-label="legend">
      {shown.map(({ kind, label }, i) => (
        <g key={kind}>
          <rect x={x} y={y + legendLine * i} width={22} height={13} fill={hatch(kind)} stroke="var(--ink)" strokeWidth="0.8" />
          <text x={x + 30} y={y + legendLine * i + 11}>
            {label}
          </text>
        </g>
      ))}
    </g>
  )
}
