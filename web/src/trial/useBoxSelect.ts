import { useRef, useState, type PointerEvent } from 'react'
import { fromX, fromY, type View, type XY } from '../drawing/view'
import { boxOnBed } from './PartOnBed'
import { useTrial } from './TrialContext'

/** A box drawn on free ground selects what it touches. Over a zoomed plan dragging moves the plan; there Shift draws the box. */
export function useBoxSelect(view: View, isZoomed: boolean) {
  const { trial, meshes, select } = useTrial('trial', 'meshes', 'select')
  const from = useRef<XY>(undefined)
  const [to, setTo] = useState<{ from: XY; to: XY }>()
  const at = (event: PointerEvent<SVGSVGElement>): XY => {
    const box = event.currentTarget.getBoundingClientRect()
    return [event.clientX - box.left, event.clientY - box.top]
  }
  return {
    /** Its outline while it is drawn, px. */
    path: to && `M${to.from[0]} ${to.from[1]}H${to.to[0]}V${to.to[1]}H${to.from[0]}Z`,
    /** Each tells whether the box takes the event. */
    down: (event: PointerEvent<SVGSVGElement>) => {
      if (event.button !== 0 || (isZoomed && !event.shiftKey)) return false
      event.currentTarget.setPointerCapture(event.pointerId)
      from.current = at(event)
      select([])
      return true
    },
    move: (event: PointerEvent<SVGSVGElement>) => {
      if (!from.current) return false
      const [a, b] = [from.current, at(event)]
      setTo({ from: a, to: b })
      const [minX, maxX] = [a[0], b[0]].map((x) => fromX(view, x)).sort((p, q) => p - q) as [number, number]
      const [minY, maxY] = [a[1], b[1]].map((y) => fromY(view, y)).sort((p, q) => p - q) as [number, number]
      select(
        (trial.document.parts ?? []).flatMap((part, i) => {
          const box = boxOnBed(meshes[i], part)
          return box && box[0] < maxX && box[2] > minX && box[1] < maxY && box[3] > minY ? [i] : []
        }),
      )
      return true
    },
    up: () => {
      const was = from.current !== undefined
      from.current = undefined
      setTo(undefined)
      return was
    },
  }
}
