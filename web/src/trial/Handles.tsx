import { useRef, useState, type PointerEvent } from 'react'
import type { TrialPart } from '../api/client'
import { toX, toY, type View, type XY } from '../drawing/view'
import { scaleOf } from './placement'
import { scaled, turned } from './together'
import { useTrial } from './TrialContext'

interface HandleProps {
  x: number
  y: number
  title: string
  square?: boolean
  name: string
  /** Told where the pointer is, px of the drawing, and whether it asks for free movement. */
  onDrag: (to: XY, free: boolean, from: XY) => void
}

/** A thing to be dragged. While it is held, verdicts go without curing moves. */
export function Handle({ x, y, title, square, name, onDrag }: HandleProps) {
  const { dragging } = useTrial('dragging')
  const [from, setFrom] = useState<XY>()
  const at = (event: PointerEvent<SVGElement>): XY => {
    const frame = event.currentTarget.ownerSVGElement!.getScreenCTM()!
    return [(event.clientX - frame.e) / frame.a, (event.clientY - frame.f) / frame.d]
  }
  const drop = () => {
    setFrom(undefined)
    dragging(false)
  }
  const on = {
    className: 'handle',
    'data-handle': name,
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      setFrom(at(event))
      dragging(true)
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => from && onDrag(at(event), event.shiftKey, from),
    onPointerUp: drop,
    onPointerCancel: drop,
    children: <title>{title}</title>,
  }
  return square ? <rect x={x - 5} y={y - 5} width={10} height={10} {...on} /> : <circle cx={x} cy={y} r={6} {...on} />
}

const degreesOf = (radians: number) => (radians * 180) / Math.PI

/** An angle in steps of 15°, or freely. */
const stepped = (degrees: number, free: boolean) => (free ? Math.round(degrees * 10) / 10 : Math.round(degrees / 15) * 15)

/** What handles do to a part and all that belong to it, in one step of undo while they are held. */
export function useHandled(index: number) {
  const { trial, meshes, hands } = useTrial('trial', 'meshes', 'hands')
  const taken = useRef<{ parts: readonly TrialPart[]; key: string }>(undefined)
  const change = (to: (parts: readonly TrialPart[]) => TrialPart[], step: string) =>
    trial.change((before) => ({ ...before, parts: to(before.parts ?? []) }), `${step} ${index}`)
  return {
    /** To an angle from Y towards −X. */
    turn: (radians: number, free: boolean) =>
      change((parts) => turned(parts, meshes, index, stepped(degreesOf(radians), free) - (parts[index]?.turn ?? 0)), 'turn'),
    tilt: (about: 'x' | 'y', radians: number, free: boolean) => {
      const { x = 0, y = 0 } = trial.document.parts?.[index]?.tilt ?? {}
      hands.tilt(index, { x, y, [about]: stepped(degreesOf(radians), free) })
    },
    /** By a ratio to what it was when the handle was taken. */
    scale: (ratio: number, free: boolean, key: string) => {
      if (taken.current?.key !== key) taken.current = { parts: trial.document.parts ?? [], key }
      const { parts } = taken.current
      const start = scaleOf(parts[index]!).x
      const step = free ? 0.001 : 0.01
      const next = Math.min(1000, Math.max(0.01, Math.round((start * ratio) / step) * step))
      const after = scaled(parts, index, next / start)
      // others may have been moved meanwhile, in another window
      const standing = (part: TrialPart, i: number) => (after[i] && after[i] !== parts[i] ? { ...part, ...standingOf(after[i]) } : part)
      change((now) => now.map(standing), 'scale')
    },
  }
}

/** Where a part stands and how large it is. */
const standingOf = ({ x, y, lift, scale }: TrialPart) => ({ x, y, lift, scale })

/** Handles of a part on the plan: one on a stalk turns it, one at the corner scales it. */
export function PlanHandles({ index, part, view }: { index: number; part: TrialPart; view: View }) {
  const { meshes } = useTrial('meshes')
  const handled = useHandled(index)
  const mesh = meshes[index]
  if (!mesh) return null
  const [cx, cy] = [toX(view, part.x ?? 0), toY(view, part.y ?? 0)]
  const half = (Math.hypot(mesh.size[0]!, mesh.size[1]!) / 2) * view.scale
  const angle = ((part.turn ?? 0) * Math.PI) / 180
  const [x, y] = [cx - (half + 16) * Math.sin(angle), cy - (half + 16) * Math.cos(angle)]
  const corner: XY = [cx + half * Math.SQRT1_2, cy + half * Math.SQRT1_2]
  return (
    <g className="handles">
      <line x1={cx} y1={cy} x2={x} y2={y} />
      <Handle
        x={x}
        y={y}
        name="turn"
        title="turn in steps of 15°, with Shift freely"
        onDrag={([px, py], free) => handled.turn(Math.atan2(cx - px, cy - py), free)}
      />
      <Handle
        x={corner[0]}
        y={corner[1]}
        square
        name="scale"
        title="scale evenly in steps of 1 %, with Shift of 0.1 %"
        onDrag={([px, py], free, from) =>
          handled.scale(Math.hypot(px - cx, py - cy) / Math.max(1, Math.hypot(from[0] - cx, from[1] - cy)), free, from.join())
        }
      />
    </g>
  )
}

/** A handle of a part on the elevation: on a stalk, it tilts the part about its Y. */
export function FrontHandle({
  index,
  part,
  left,
  right,
  top,
  floor,
}: {
  index: number
  part: TrialPart
  left: number
  right: number
  top: number
  floor: number
}) {
  const handled = useHandled(index)
  const [cx, cy] = [(left + right) / 2, (top + floor) / 2]
  const angle = ((part.tilt?.y ?? 0) * Math.PI) / 180
  const reach = (floor - top) / 2 + 16
  const [x, y] = [cx + reach * Math.sin(angle), cy - reach * Math.cos(angle)]
  return (
    <g className="handles">
      <line x1={cx} y1={cy} x2={x} y2={y} />
      <Handle
        x={x}
        y={y}
        name="tilt"
        title="tilt in steps of 15°, with Shift freely; the part stays on the bed"
        onDrag={([px, py], free) => handled.tilt('y', Math.atan2(px - cx, cy - py), free)}
      />
    </g>
  )
}
