import { useId, type ReactNode } from 'react'
import type { Card } from '../api/client'
import { useHatch } from './Hatches'
import { bedSize, outlineBox } from './outline'
import { plain } from '../units/format'
import { toX, toY, type View } from './view'

interface ElevationProps {
  card: Card
  /** x as in the plan; y0 is the plate. */
  view: View
  lit?: number
  /** Where the drawing is cut, px, if there is no room for all of the height. */
  cutAt?: number
  children?: ReactNode
}

/** The machine from the front: plate, height, limit of use, obstacles. What stands on it is drawn by the children. */
export function Elevation({ card, view, lit, cutAt, children }: ElevationProps) {
  const hatch = useHatch()
  const clip = useId()
  const { width = 0 } = bedSize(card.envelope?.bed)
  const height = card.envelope?.height ?? 0
  const use = card.envelope?.use?.height ?? 0
  const [left, right, floor, ceiling] = [toX(view, 0), toX(view, width), toY(view, 0), toY(view, height)]
  const cut = cutAt !== undefined && ceiling < cutAt
  return (
    <g className="elevation">
      <clipPath id={clip}>
        <rect
          x={left - 20}
          y={cut ? cutAt : ceiling - 20}
          width={right - left + 40}
          height={Math.max(0, floor - (cut ? cutAt : ceiling - 20) + 4)}
        />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
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
      </g>
      {cut && (
        <>
          <path d={breakLine(left - 10, right + 10, cutAt)} className="break" />
          <text x={left + 6} y={cutAt + 16} className="quiet-text">
            up to {plain(height)}
          </text>
        </>
      )}
      {children}
      <path d={`M${left - 10} ${floor}H${right + 10}`} className="plate-line" />
    </g>
  )
}

/** A line with a zigzag, after ISO 128: the drawing goes on beyond it. */
function breakLine(from: number, to: number, y: number): string {
  const middle = (from + to) / 2
  return `M${from} ${y}H${middle - 12}l6 -6l12 12l6 -6H${to}`
}
