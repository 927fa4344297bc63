import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import { useTrial } from './TrialContext'

/**
 * Makes something of a drawing draggable: while it is held, tells how far the pointer has gone since, mm to the right and upwards, beside
 * what stood when it was taken.
 */
export function useHeld<T>(scale: number, taken: () => T, to: (start: T, right: number, up: number) => void) {
  const { dragging } = useTrial('dragging')
  const held = useRef<{ at: [number, number]; start: T }>(undefined)
  const drop = () => {
    if (held.current) dragging(false)
    held.current = undefined
  }
  return {
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      held.current = { at: [event.clientX, event.clientY], start: taken() }
      dragging(true)
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (!held.current) return
      const { at, start } = held.current
      to(start, (event.clientX - at[0]) / scale, (at[1] - event.clientY) / scale)
    },
    onPointerUp: drop,
    onPointerCancel: drop,
    /** Arrow keys: 1 mm, with Shift 10, with Alt 0.1. */
    onKeyDown: (event: KeyboardEvent) => {
      const step = stepOf(event)
      const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key]
      if (!by) return
      event.preventDefault()
      event.stopPropagation()
      to(taken(), by[0]!, by[1]!)
    },
  }
}

/** How far an arrow key moves what has the focus, mm. */
export function stepOf(event: { altKey: boolean; shiftKey: boolean }): number {
  if (event.altKey) return 0.1
  return event.shiftKey ? 10 : 1
}
