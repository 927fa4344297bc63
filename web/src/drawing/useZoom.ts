import { useRef, useState, type PointerEvent, type WheelEvent } from 'react'
import type { View } from './view'

const most = 60

/** Pan and zoom over fitted views: the wheel zooms about the pointer, dragging pans. */
export function useZoom() {
  const [{ factor, dx, dy }, setZoom] = useState({ factor: 1, dx: 0, dy: 0 })
  const held = useRef<[number, number]>(undefined)
  const zoomed = (fitted: View): View => ({ scale: fitted.scale * factor, x0: fitted.x0 * factor + dx, y0: fitted.y0 * factor + dy })

  const onWheel = (event: WheelEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const [x, y] = [event.clientX - box.left, event.clientY - box.top]
    setZoom((before) => {
      const next = Math.min(most, Math.max(1, before.factor * Math.exp(-event.deltaY / 400)))
      if (next === 1) return { factor: 1, dx: 0, dy: 0 }
      const by = next / before.factor
      return { factor: next, dx: x - (x - before.dx) * by, dy: y - (y - before.dy) * by }
    })
  }
  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (factor === 1) return
    event.currentTarget.setPointerCapture(event.pointerId)
    held.current = [event.clientX, event.clientY]
  }
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (!held.current) return
    const [x, y] = held.current
    held.current = [event.clientX, event.clientY]
    setZoom((before) => ({ ...before, dx: before.dx + event.clientX - x, dy: before.dy + event.clientY - y }))
  }
  const onPointerUp = () => (held.current = undefined)

  return {
    /** A fitted view as it is looked at now. */
    zoomed,
    isZoomed: factor !== 1,
    fit: () => setZoom({ factor: 1, dx: 0, dy: 0 }),
    handlers: { onWheel, onPointerDown, onPointerMove, onPointerUp, onPointerCancel: onPointerUp },
  }
}
