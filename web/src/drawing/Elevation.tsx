import type { ReactNode } from 'react'
import type { Card } from '../api/client'
import { useHatch } from './Hatches'
import { bedSize, outlineBox } from './outline'
import { toX, toY, type View } from './view'

interface ElevationProps {
  card: Card
  /** x as in the plan; y0 is the plate. */
  view: View
  lit?: number
  children?: ReactNode
}

/** The machine from the front: plate, height, limit of use, obstacles. What stands on it is drawn by the children. */
export function Elevation({ card, view, lit, children }: ElevationProps) {
  const hatch = useHatch()
  const { width = 0 } = bedSize(card.envelope?.bed)
  const height = card.envelope?.height ?? 0
  const use = card.envelope?.use?.height ?? 0
  const [left, right, floor, ceiling] = [toX(view, 0), toX(view, width), toY(view, 0), toY(view, height)]
  return (
    <g className="elevation">
      {height > 0 && <rect x={left} y={ceiling} width={right - left} height={floor - ceiling} className="volume" />}
      {use > 0 && use < height && (
        <>
          <rect x={left} y={ceiling} width={right - left} height={toY(view, use) - ceiling} fill={hatch('lost')} />
          <path d={`M${left} ${toY(view, use)}H${right}`} className="use" />
          <text x={right - 4} y={toY(view, use) + 14} textAnchor="end" className="use">
            use {use}
          </text>
        </>
      )}
      {(card.envelope?.keepOuts ?? []).map((keepOut, i) => {
        if (keepOut.kind !== 'obstacle' || !keepOut.top) return null
        const box = outlineBox(keepOut.outline)
        return (
          <rect
            key={i}
            x={toX(view, box.x)}
            y={toY(view, keepOut.top)}
            width={box.width * view.scale}
            height={keepOut.top * view.scale}
            fill={hatch('obstacle')}
            className={lit === i ? 'keep-out lit' : 'keep-out'}
          />
        )
      })}
      {children}
      <path d={`M${left - 10} ${floor}H${right + 10}`} className="plate-line" />
    </g>
  )
}
