import { useEffect, useLayoutEffect, useRef } from 'react'
import type { TrialPart } from '../api/client'
import { onLevel, upright, type Look } from '../pictorial/look'
import { moved } from './together'
import { useTrial } from './TrialContext'

/** Farther than this a press is no click, px. */
const still = 4
/** A part lies on the bed again where it comes this near, mm. */
const settles = 0.4

interface Held {
  index: number
  from: [number, number]
  parts: readonly TrialPart[]
  moves: boolean
}

/** Parts that are selected, dragged over the bed in the pictorial view; with Shift they are lifted. */
export function useHeldInSpace(look: Look) {
  const { trial, selected, pointing, dragging } = useTrial('trial', 'selected', 'pointing', 'dragging')
  const held = useRef<Held>(undefined)
  const newest = useRef({ look, trial })
  useLayoutEffect(() => {
    newest.current = { look, trial }
  }, [look, trial])
  useEffect(() => {
    const onMove = (event: PointerEvent) => {
      const hold = held.current
      if (!hold) return
      const [dx, dy] = [event.clientX - hold.from[0], event.clientY - hold.from[1]]
      if (!hold.moves && Math.hypot(dx, dy) < still) return
      if (!hold.moves) dragging(true)
      hold.moves = true
      const { look: now, trial: open } = newest.current
      const after = event.shiftKey
        ? moved(hold.parts, [hold.index], 0, 0, settled(hold, upright(now, dy)))
        : moved(hold.parts, [hold.index], ...(onLevel(now, dx, dy).map(tenth) as [number, number]))
      open.change(
        (before) => ({
          ...before,
          parts: before.parts?.map((part, i) => ({
            ...part,
            x: after[i]?.x ?? part.x,
            y: after[i]?.y ?? part.y,
            lift: after[i]?.lift ?? part.lift,
          })),
        }),
        `hold ${hold.index}`,
      )
    }
    const onUp = () => {
      if (held.current?.moves) dragging(false)
      held.current = undefined
    }
    window.addEventListener('pointermove', onMove)
    window.addEventListener('pointerup', onUp)
    window.addEventListener('pointercancel', onUp)
    return () => {
      window.removeEventListener('pointermove', onMove)
      window.removeEventListener('pointerup', onUp)
      window.removeEventListener('pointercancel', onUp)
    }
  }, [dragging])
  return {
    holding: () => held.current !== undefined,
    /** A press on a part; it is held where it is selected. */
    hold: (index: number, event: PointerEvent) => {
      if (pointing.does !== 'choose' || !selected.includes(index)) return false
      held.current = { index, from: [event.clientX, event.clientY], parts: newest.current.trial.document.parts ?? [], moves: false }
      return true
    },
  }
}

const tenth = (value: number) => Math.round(value * 10) / 10

function settled({ parts, index }: Held, up: number): number {
  const was = parts[index]?.lift ?? 0
  return Math.abs(was + up) < settles ? -was : tenth(up)
}
