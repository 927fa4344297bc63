import { useId, type ReactNode } from 'react'
import type { Card, RegionAnswer } from '../api/client'
import { plain } from '../units/format'
import { useHatch } from './Hatches'
import { bedOutline, bedSize, outlinePath, ringsPath } from './outline'
import { PlateUnder } from './PlateUnder'
import { gridStep, toX, toY, type View } from './view'

interface PlanProps {
  card: Card
  view: View
  /** What the head makes of the keep-outs; drawn round them. */
  regions?: RegionAnswer[]
  /** The bed within its margin. */
  usable?: number[][][]
  /** Index of the keep-out that is pointed at. */
  lit?: number
  onPoint?: (keepOut: number | undefined) => void
  onPick?: (keepOut: number) => void
  children?: ReactNode
}

/** The bed from above: outline, grid, margin, keep-outs, machine zero. What lies on it is drawn by the children. */
export function Plan({ card, view, regions = [], usable = [], lit, onPoint, onPick, children }: PlanProps) {
  const hatch = useHatch()
  const clip = useId()
  const bed = bedOutline(card.envelope?.bed)
  if (!bed) return null
  const { width = 0, depth = 0 } = bedSize(card.envelope?.bed)
  const keepOuts = card.envelope?.keepOuts ?? []
  const margin = card.envelope?.use?.margin ?? 0
  const path = outlinePath(bed, view)
  return (
    <g className="plan">
      <clipPath id={clip}>
        <path d={path} />
      </clipPath>
      <path d={path} fill="var(--sheet)" />
      <g clipPath={`url(#${clip})`}>
        <PlateUnder plate={card.envelope?.plate} view={view} width={width} depth={depth} />
        <path d={grid(view, width, depth)} className="grid" />
        {regions
          .filter((region) => region.with)
          .map((region, i) => (
            <path key={i} d={ringsPath(region.rings, view)} fill={hatch('lost')} className="lost" fillRule="evenodd" />
          ))}
        {usable.length > 0 && <path d={ringsPath(usable, view)} className="margin" />}
        {children}
      </g>
      {keepOuts.map((keepOut, i) => (
        <path
          key={i}
          d={outlinePath(keepOut.outline, view)}
          fill={hatch(keepOut.kind)}
          className={lit === i ? 'keep-out lit' : 'keep-out'}
          data-keep-out={keepOut.name}
          onPointerEnter={() => onPoint?.(i)}
          onPointerLeave={() => onPoint?.(undefined)}
          onPointerDown={(event) => {
            if (!onPick) return
            event.stopPropagation()
            onPick(i)
          }}
        />
      ))}
      <path d={path} className="bed" />
      {margin > 0 && (
        <text x={toX(view, width) - 6} y={toY(view, depth) + 16} textAnchor="end" className="tag">
          <tspan className="tag-letter">E</tspan> {plain(margin)}
        </text>
      )}
      {card.envelope?.home && <Home x={toX(view, card.envelope.home.x)} y={toY(view, card.envelope.home.y)} />}
      {card.envelope?.origin && <MachineZero x={toX(view, card.envelope.origin.x)} y={toY(view, card.envelope.origin.y)} />}
    </g>
  )
}

function grid(view: View, width: number, depth: number): string {
  const step = gridStep(view.scale)
  let path = ''
  for (let x = step; x < width; x += step) path += `M${toX(view, x)} ${toY(view, 0)}V${toY(view, depth)}`
  for (let y = step; y < depth; y += step) path += `M${toX(view, 0)} ${toY(view, y)}H${toX(view, width)}`
  return path
}

function MachineZero({ x, y }: { x: number; y: number }) {
  return (
    <g className="machine-zero" aria-label="machine zero">
      <path d={`M${x} ${y}h34M${x} ${y}v-34`} stroke="var(--madder)" strokeWidth="1.2" />
      <circle cx={x} cy={y} r="5" fill="var(--sheet)" stroke="var(--madder)" strokeWidth="1.2" />
      <path d={`M${x} ${y}v-5a5 5 0 0 1 5 5zM${x} ${y}v5a5 5 0 0 1 -5 -5z`} fill="var(--madder)" />
      <text x={x - 8} y={y + 16} textAnchor="end">
        D
      </text>
      <text x={x + 38} y={y - 3}>
        X
      </text>
      <text x={x + 4} y={y - 36}>
        Y
      </text>
    </g>
  )
}

/** Where X and Y stand after homing. */
function Home({ x, y }: { x: number; y: number }) {
  return (
    <g className="machine-zero" aria-label="home position">
      <path d={`M${x - 5} ${y - 5}l10 10M${x + 5} ${y - 5}l-10 10`} stroke="var(--madder)" strokeWidth="1.4" />
      <text x={x + 8} y={y + 14}>
        H
      </text>
    </g>
  )
}
