import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { TrialPart } from '../api/client'
import { ringsPath } from '../drawing/outline'
import { toX, toY, type View, type XY } from '../drawing/view'
import { plain } from '../units/format'
import { PlanHandles } from './Handles'
import { placedOutline } from './placement'
import { useTrial } from './TrialContext'

/** A part from above, to be moved. */
export function PartOnBed({ index, part, view, bad, faint }: { index: number; part: TrialPart; view: View; bad: boolean; faint: boolean }) {
  const { trial, meshes, chosen, choose, dragging } = useTrial('trial', 'meshes', 'chosen', 'choose', 'dragging')
  const mesh = meshes[index]
  const from = useRef<{ pointer: XY; at: XY }>(undefined)
  const [held, setHeld] = useState(false)
  if (!mesh) return null
  const rings = placedOutline(mesh, part)
  const move = (x: number, y: number) =>
    trial.change(
      (before) => ({ ...before, parts: before.parts?.map((p, i) => (i === index ? { ...p, x: round(x), y: round(y) } : p)) }),
      `part ${index}`,
    )
  const down = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    from.current = { pointer: [event.clientX, event.clientY], at: [part.x ?? 0, part.y ?? 0] }
    choose(index)
    setHeld(true)
    dragging(true)
  }
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (!from.current) return
    const { pointer, at } = from.current
    move(at[0] + (event.clientX - pointer[0]) / view.scale, at[1] - (event.clientY - pointer[1]) / view.scale)
  }
  const up = () => {
    from.current = undefined
    setHeld(false)
    dragging(false)
  }
  const key = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1
    const [dx, dy] = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key] ?? [0, 0]
    if (!dx && !dy) return
    event.preventDefault()
    move((part.x ?? 0) + dx!, (part.y ?? 0) + dy!)
  }
  return (
    <g
      className={`part${chosen === index ? ' chosen' : ''}${bad ? ' bad' : ''}${faint ? ' faint' : ''}${held ? ' held' : ''}`}
      tabIndex={0}
      role="button"
      aria-label={`${part.name}, part ${index + 1}, at ${plain(part.x ?? 0, 1)}, ${plain(part.y ?? 0, 1)}`}
      data-part={index}
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={up}
      onFocus={() => choose(index)}
      onKeyDown={key}
    >
      <path d={ringsPath(rings, view)} fillRule="evenodd" />
      {chosen === index && <PlanHandles index={index} part={part} view={view} />}
      <circle cx={toX(view, part.x ?? 0)} cy={toY(view, part.y ?? 0)} r="10" />
      <text x={toX(view, part.x ?? 0)} y={toY(view, part.y ?? 0) + 4} textAnchor="middle">
        {index + 1}
      </text>
    </g>
  )
}

const round = (value: number) => Math.round(value * 10) / 10
