import type { PointerEvent } from 'react'
import type { Beam } from '../api/client'
import { type View, toX, toY } from '../drawing/view'
import { snapped } from '../open-card/snap'

interface HeightGripProps {
  x: number
  view: View
  height: number
  label: string
  onChange: (height: number) => void
}

/** Drags a height in the front view, in steps of 0.5 mm. */
export function HeightGrip({ x, view, height, label, onChange }: HeightGripProps) {
  const drag = (event: PointerEvent<SVGCircleElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const top = event.currentTarget.ownerSVGElement!.getBoundingClientRect().top
    onChange(Math.max(0, snapped((view.y0 - (event.clientY - top)) / view.scale, event.shiftKey ? 5 : 0.5)))
  }
  return (
    <circle
      cx={x}
      cy={toY(view, height)}
      r={5}
      className="grip"
      data-grip="underside"
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={drag}
    >
      <title>drag the {label}</title>
    </circle>
  )
}

/** Drags one face of a beam in the view from below, in steps of 1 mm. */
export function EdgeGrip({
  beam,
  face,
  view,
  onChange,
}: {
  beam: Beam
  face: 'near' | 'far'
  view: View
  onChange: (value: number) => void
}) {
  const along = beam.along === 'x'
  const drag = (event: PointerEvent<SVGCircleElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect()
    const value = along ? (event.clientY - box.top - view.y0) / view.scale : (event.clientX - box.left - view.x0) / view.scale
    onChange(snapped(value, event.shiftKey ? 5 : 1))
  }
  return (
    <circle
      cx={along ? toX(view, 0) + 60 : toX(view, beam[face])}
      cy={along ? toY(view, beam[face]) : toY(view, 0) + 60}
      r={5}
      className="grip"
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={drag}
    />
  )
}
