import { useState, type PointerEvent } from 'react'
import type { Outline } from '../api/client'
import { outlinePath } from '../drawing/outline'
import { senseY, toX, toY, type View } from '../drawing/view'
import { snapped } from './snap'

interface OutlineGripsProps {
  outline: Outline
  view: View
  onChange: (outline: Outline) => void
  /** Whether dragging the inside moves all of it. */
  movable?: boolean
}

/** The corners of an outline, to be dragged; dragging its inside moves all of it. Snaps to 1 mm, with Shift to 5. */
export function OutlineGrips({ outline, view, onChange, movable = true }: OutlineGripsProps) {
  const [held, setHeld] = useState<{ outline: Outline; x: number; y: number; grip: number | 'all' }>()
  const take =
    (grip: number | 'all', from = outline) =>
    (event: PointerEvent<SVGElement>) => {
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      setHeld({ outline: from, x: event.clientX, y: event.clientY, grip })
    }
  const drag = (event: PointerEvent<SVGElement>) => {
    if (!held) return
    const { outline: from, x, y, grip } = held
    const step = event.shiftKey ? 5 : 1
    const by = [(event.clientX - x) / view.scale, (senseY(view) * (event.clientY - y)) / view.scale] as const
    onChange(grip === 'all' ? moved(from, by, step) : reshaped(from, grip, by, step))
  }
  const drop = () => setHeld(undefined)
  const on = { onPointerMove: drag, onPointerUp: drop, onPointerCancel: drop }
  return (
    <g>
      {movable && (
        <path
          d={outlinePath(outline, view)}
          fill="transparent"
          className="keep-out lit"
          style={{ cursor: 'move' }}
          onPointerDown={take('all')}
          {...on}
        />
      )}
      {midsOf(outline).map(([x, y], i) => (
        <circle
          key={`mid ${i}`}
          cx={toX(view, x)}
          cy={toY(view, y)}
          r={3}
          className="grip"
          data-mid={i}
          onPointerDown={(event) => take(i + 1, withCorner(outline, i, [x, y]))(event)}
          {...on}
        >
          <title>drag to make a corner here</title>
        </circle>
      ))}
      {gripsOf(outline).map(([x, y], i) => (
        <circle key={i} cx={toX(view, x)} cy={toY(view, y)} r={5} className="grip" data-grip={i} onPointerDown={take(i)} {...on} />
      ))}
    </g>
  )
}

type XY = readonly [number, number]

function gripsOf(outline: Outline): XY[] {
  switch (outline.shape) {
    case 'circle':
      return [[outline.x + outline.radius, outline.y]]
    case 'polygon':
      return outline.points.map(([x, y]) => [x!, y!] as const)
    default: {
      const { x, y, width, depth } = outline as Extract<Outline, { width: number }>
      return [
        [x, y],
        [x + width, y],
        [x + width, y + depth],
        [x, y + depth],
      ]
    }
  }
}

/** The middles of a polygon's edges. */
function midsOf(outline: Outline): XY[] {
  if (outline.shape !== 'polygon') return []
  const { points } = outline
  return points.map(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!
    return [(x! + nx!) / 2, (y! + ny!) / 2]
  })
}

function withCorner(outline: Outline, edge: number, corner: XY): Outline {
  return outline.shape === 'polygon' ? { ...outline, points: outline.points.toSpliced(edge + 1, 0, [...corner]) } : outline
}

function moved(outline: Outline, [dx, dy]: XY, step: number): Outline {
  if (outline.shape === 'polygon') {
    const [x, y] = outline.points[0] as [number, number]
    const [mx, my] = [snapped(x + dx, step) - x, snapped(y + dy, step) - y]
    return { ...outline, points: outline.points.map(([px, py]) => [round(px! + mx), round(py! + my)]) }
  }
  const placed = outline as Exclude<Outline, { points: number[][] }>
  return { ...placed, x: snapped(placed.x + dx, step), y: snapped(placed.y + dy, step) }
}

function reshaped(outline: Outline, grip: number, [dx, dy]: XY, step: number): Outline {
  switch (outline.shape) {
    case 'circle':
      return { ...outline, radius: Math.max(step, snapped(outline.radius + dx, step)) }
    case 'polygon':
      return {
        ...outline,
        points: outline.points.map(([x, y], i) => (i === grip ? [snapped(x! + dx, step), snapped(y! + dy, step)] : [x!, y!])),
      }
    default: {
      const box = outline as Extract<Outline, { width: number }>
      const [left, front, right, back] = [box.x, box.y, box.x + box.width, box.y + box.depth]
      const x = snapped((grip === 0 || grip === 3 ? left : right) + dx, step)
      const y = snapped((grip < 2 ? front : back) + dy, step)
      const [ox, oy] = [grip === 0 || grip === 3 ? right : left, grip < 2 ? back : front]
      return { ...box, x: Math.min(x, ox), y: Math.min(y, oy), width: Math.max(1, Math.abs(ox - x)), depth: Math.max(1, Math.abs(oy - y)) }
    }
  }
}

const round = (value: number) => Math.round(value * 1000) / 1000
