import { useState, type PointerEvent } from 'react'
import { fromX, fromY, type View } from '../drawing/view'
import { snapped } from './snap'

type Place = [number, number]
type Rectangle = ReturnType<typeof rectangleOf>

/** Narrower is taken for a click, mm. */
const narrowest = 1

/** Where a pointer is on a plan, mm. */
export function placeOf(event: PointerEvent<SVGSVGElement>, plan: View): Place {
  const box = event.currentTarget.getBoundingClientRect()
  return [fromX(plan, event.clientX - box.left), fromY(plan, event.clientY - box.top)]
}

/** A rectangle drawn on the plan by dragging, once armed: in steps of 1 mm, of 5 with Shift. */
export function useDrawnKeepOut(plan: View, onDrawn: (outline: Rectangle) => void) {
  const [armed, setArmed] = useState(false)
  const [corners, setCorners] = useState<{ from: Place; to: Place }>()
  const onRaster = (event: PointerEvent<SVGSVGElement>): Place => {
    const [x, y] = placeOf(event, plan)
    const step = event.shiftKey ? 5 : 1
    return [snapped(x, step), snapped(y, step)]
  }
  return {
    armed,
    outline: corners && rectangleOf(corners),
    toggle: () => setArmed(!armed),
    /** Whether the pointer draws from here on. */
    begin: (event: PointerEvent<SVGSVGElement>) => {
      if (!armed) return false
      event.currentTarget.setPointerCapture(event.pointerId)
      setCorners({ from: onRaster(event), to: onRaster(event) })
      return true
    },
    /** Whether the pointer draws. */
    pull: (event: PointerEvent<SVGSVGElement>) => {
      if (!corners) return false
      setCorners({ ...corners, to: onRaster(event) })
      return true
    },
    end: () => {
      if (!corners) return
      const outline = rectangleOf(corners)
      setCorners(undefined)
      setArmed(false)
      if (outline.width >= narrowest && outline.depth >= narrowest) onDrawn(outline)
    },
  }
}

/** The rectangle between two corners. */
function rectangleOf({ from, to }: { from: [number, number]; to: [number, number] }) {
  return {
    shape: 'rectangle' as const,
    x: Math.min(from[0], to[0]),
    y: Math.min(from[1], to[1]),
    width: Math.abs(from[0] - to[0]),
    depth: Math.abs(from[1] - to[1]),
  }
}
